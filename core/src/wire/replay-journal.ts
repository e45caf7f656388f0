/** Doing again what was journaled. */
import { checkEditShape } from '../blocks/default-registry.ts'
import type { Edit } from '../edits/edit-shapes.ts'
import { migrateEdit } from '../edits/migrate-edit.ts'
import { applyEdits } from '../edits/transaction.ts'
import type { Registry } from '../blocks/registry.ts'
import type { Page } from '../page/page.ts'
import type { JournalEntry } from './at-work.ts'

/** A page with journaled edits done again. */
export interface Replayed {
  readonly page: Page
  /** The edits that were done, in their order, and those that take them back. */
  readonly edits: readonly Edit[]
  readonly inverse: readonly Edit[]
  /** Entries that are malformed or do not fit the page: nothing of them was done. */
  readonly refused: readonly JournalEntry[]
}

/** Does entries again, one after another, on the page that they were made on. Never throws. */
export function replayEntries(base: Page, entries: readonly JournalEntry[], registry: Registry): Replayed {
  const edits: Edit[] = []
  const refused: JournalEntry[] = []
  let inverse: readonly Edit[] = []
  let page = base
  for (const entry of entries) {
    const migrated = entry.edits.map(migrateEdit) as Edit[]
    const result = tryEdits(page, migrated, registry)
    if (!result) {
      refused.push(entry)
      continue
    }
    page = result.page
    edits.push(...migrated)
    inverse = [...result.inverse, ...inverse]
  }
  return { page, edits, inverse, refused }
}

function tryEdits(page: Page, edits: readonly Edit[], registry: Registry) {
  if (edits.some((edit) => checkEditShape(edit).length > 0)) return undefined
  const result = applyEdits(page, edits, registry)
  return result.ok ? result : undefined
}
