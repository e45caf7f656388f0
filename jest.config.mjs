import { timesOf } from './scripts/lib/soak.mjs'

/** @type {import('jest').Config} */
const swc = [
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
]
const common = {
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '^.+\\.tsx?$': swc },
  testMatch: ['<rootDir>/test/**/*.test.{ts,tsx}'],
}
export default {
  // Nothing here asserts speed: a loaded machine may take its time.
  testTimeout: timesOf(60_000, 14_400_000),
  // Modules of finished files stay in a worker's memory, and collecting around them takes ever longer: one that holds much begins anew.
  workerIdleMemoryLimit: '800MB',
  testSequencer: './scripts/lib/longest-first.mjs',
  projects: [
    { ...common, displayName: 'core', rootDir: 'core', testEnvironment: 'node' },
    {
      ...common,
      displayName: 'web',
      rootDir: 'web',
      testEnvironment: 'jsdom',
      moduleNameMapper: { '^styled-components$': '<rootDir>/test/support/styled-components.mjs' },
    },
    { ...common, displayName: 'server', rootDir: 'server', testEnvironment: 'node' },
    { ...common, displayName: 'cli', rootDir: 'cli', testEnvironment: 'node' },
    { ...common, displayName: 'repository', rootDir: 'scripts', testEnvironment: 'node' },
  ],
}
