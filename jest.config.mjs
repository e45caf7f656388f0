import { join } from 'node:path'
import { timesOf } from './scripts/lib/soak.mjs'

const here = (path) => join(import.meta.dirname, path)

/**
 * Tests that need no world of their own run in Node itself: in one of Jest's, each global name costs a search, and all
 * that is imported is read again for each file.
 */
const plain = {
  runner: [here('scripts/lib/jest/light-runner.mjs'), { runtime: 'child_process' }],
  // Node reads what is imported by itself; Babel would be loaded for nothing.
  transform: {},
  setupFilesAfterEnv: [here('scripts/lib/jest/time-limits.mjs')],
}

/** @type {import('jest').Config} */
export default {
  // Nothing here asserts speed: a loaded machine may take its time.
  testTimeout: timesOf(180_000, 14_400_000),
  // Modules of finished files stay in a worker's memory, and collecting around them takes ever longer: one that holds much begins anew.
  workerIdleMemoryLimit: '800MB',
  testSequencer: './scripts/lib/jest/longest-first.mjs',
  projects: [
    {
      ...plain,
      displayName: 'unit',
      // One project: each has processes of its own, which read all of the core first.
      roots: ['core', 'web', 'cli', 'scripts'].map((folder) => here(`${folder}/test`)),
      testMatch: ['**/!(*.dom).test.{ts,tsx}'],
    },
    { ...plain, displayName: 'server', roots: [here('server/test')], testMatch: ['**/*.test.ts'] },
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
