/** The order of jest's test files: those that take minutes begin first, so that the others fill the time beside them. */
import TestSequencer from '@jest/test-sequencer'

const LONG = [
  'server-kills',
  'packages',
  'what-goes-live',
  'tree-together',
  'full-disk',
  'documents',
  'two-editors',
  'backup',
  'several-servers',
  'start',
  'incremental-publish',
  'export-site',
  'page-list',
  'database-kills',
  'render',
  'edits',
  'columns',
  'attacks',
  'compare',
]

export default class LongestFirst extends TestSequencer {
  sort(tests) {
    return [...super.sort(tests)].sort((a, b) => rank(a) - rank(b))
  }
}

function rank({ path }) {
  const at = LONG.findIndex((name) => path.endsWith(`${name}.test.ts`))
  return at < 0 ? LONG.length : at
}
