import type { Registry } from '../blocks/registry.ts'
import type { Page } from '../page/page.ts'
import { applyEdit } from './edit.ts'
import type { Edit } from './edit-shapes.ts'
import type { Refusal } from './result.ts'

/** Edits that are done, undone and told of as one. */
export interface Transaction {
  /** What a person calls it: "Moved heading “Visit”". */
  readonly label: string
  /** Who or what made it, such as "keyboard". */
  readonly origin: string
  /** Milliseconds since 1970, from outside: core has no clock. */
  readonly at: number
  /** Transactions in a row with the same key, such as letters typed into one field, are undone together. */
  readonly joinKey?: string
  readonly edits: readonly Edit[]
}

export type TransactionResult =
  | { readonly ok: true; readonly page: Page; readonly inverse: readonly Edit[] }
  | Refusal

/** Applies all edits of a list in order, or none: the first one refused refuses the whole. `inverse` is in the order to apply it. */
export function applyEdits(page: Page, edits: readonly Edit[], registry: Registry): TransactionResult {
  let current = page
  const inverse: Edit[] = []
  for (const edit of edits) {
    const applied = applyEdit(current, edit, registry)
    if (!applied.ok) return applied
    current = applied.page
    inverse.push(applied.inverse)
  }
  return { ok: true, page: current, inverse: inverse.reverse() }
}
