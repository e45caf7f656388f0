import { timesOf } from './scripts/lib/soak.mjs'

const common = { testMatch: ['<rootDir>/test/**/*.test.{ts,tsx}'] }
/**
 * Tests that need no world of their own run in Node itself: in one of Jest's, each global name costs a search, and all
 * that is imported is read again for each file.
 */
const plain = {
  ...common,
  runner: ['<rootDir>/../scripts/lib/jest/light-runner.mjs', { runtime: 'child_process' }],
  // Node reads what is imported by itself; Babel would be loaded for nothing.
  transform: {},
  setupFilesAfterEnv: ['<rootDir>/../scripts/lib/jest/time-limits.mjs'],
}

/** @type {import('jest').Config} */
export default {
  // Nothing here asserts speed: a loaded machine may take its time.
  testTimeout: timesOf(180_000, 14_400_000),
  // Modules of finished files stay in a worker's memory, and collecting around them takes ever longer: one that holds much begins anew.
  workerIdleMemoryLimit: '800MB',
  testSequencer: './scripts/lib/jest/longest-first.mjs',
  projects: [
    { ...plain, displayName: 'core', rootDir: 'core' },
    { ...plain, displayName: 'server', rootDir: 'server' },
    { ...plain, displayName: 'cli', rootDir: 'cli' },
    { ...plain, displayName: 'repository', rootDir: 'scripts' },
    { ...plain, displayName: 'web', rootDir: 'web', testMatch: ['<rootDir>/test/**/!(*.dom).test.{ts,tsx}'] },
    {
      displayName: 'web-dom',
      rootDir: 'web',
      testMatch: ['<rootDir>/test/**/*.dom.test.{ts,tsx}'],
      testEnvironment: 'jsdom',
      moduleNameMapper: { '^styled-components$': '<rootDir>/test/support/styled-components.mjs' },
      extensionsToTreatAsEsm: ['.ts', '.tsx'],
      transform: {
        '^.+\\.tsx?$': [
          '@swc/jest',
          {
            jsc: {
              parser: { syntax: 'typescript', tsx: true },
              target: 'es2022',
              transform: { react: { runtime: 'automatic' } },
            },
            module: { type: 'es6' },
            sourceMaps: 'inline',
          },
        ],
      },
    },
  ],
}
