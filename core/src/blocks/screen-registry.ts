/** The registry of a screen that shows pages before anybody changes one. */
import { BLOCK_KINDS } from './kinds/index.ts'
import type { Registry } from './registry.ts'

let checked: Registry | undefined

/** Knows all kinds. Its checks find nothing until `loadChecks` is through, and then what `defaultRegistry` finds. */
export const screenRegistry: Registry = {
  kinds: new Map(BLOCK_KINDS.map((definition) => [definition.kind, definition])),
  check: (kind, part, value) => checked?.check(kind, part, value) ?? [],
}

/** Loads the validators, which are most of what the kinds weigh. What was not checked meanwhile has to be checked then. */
export async function loadChecks(): Promise<void> {
  checked = (await import('./default-registry.ts')).defaultRegistry
}
