/**
 * Edits: the only way a page changes. Each is a small JSON value that can be kept, sent and undone.
 *
 * The law that undo, redo and everything after them stand on: when `applyEdit(p, e)` succeeds with a page and an
 * inverse, then `applyEdit(page, inverse)` succeeds and gives `p` again. Untouched nodes keep their identity, nothing
 * is mutated, and a refused edit changes nothing.
 */
import type { Registry } from '../blocks/registry.ts'
import type { Page } from '../page/page.ts'
import { applyInsert, insertSentence, type Insert } from './insert.ts'
import { applyMove, moveSentence, type Move } from './move.ts'
import { applyRemove, removeSentence, type Remove } from './remove.ts'
import { applySet, setSentence, type SetValue } from './set.ts'
import type { Applied } from './result.ts'

export type Edit = Insert | Remove | Move | SetValue

type EditName = Edit['edit']

interface EditRules<E extends Edit> {
  apply(page: Page, edit: E, registry: Registry): Applied
  /** What the edit does to `before`, for people: "Moved heading “Opening hours” up". */
  sentence(before: Page, edit: E, registry: Registry): string
}

const EDITS: { readonly [N in EditName]: EditRules<Extract<Edit, { edit: N }>> } = {
  insert: { apply: applyInsert, sentence: insertSentence },
  remove: { apply: applyRemove, sentence: removeSentence },
  move: { apply: applyMove, sentence: moveSentence },
  set: { apply: applySet, sentence: setSentence },
}

/** Every edit there is, for tests that run over all of them. */
export const EDIT_NAMES = Object.keys(EDITS) as readonly EditName[]

/** The page after one edit and the edit that takes it back, or why it does not fit. */
export function applyEdit(page: Page, edit: Edit, registry: Registry): Applied {
  return rulesOf(edit).apply(page, edit, registry)
}

/** What an edit does to the page before it, as a sentence for people. */
export function editSentence(before: Page, edit: Edit, registry: Registry): string {
  return rulesOf(edit).sentence(before, edit, registry)
}

function rulesOf(edit: Edit): EditRules<Edit> {
  if (!Object.hasOwn(EDITS, edit.edit)) throw new RangeError(`There is no edit "${String(edit.edit)}"`)
  return EDITS[edit.edit]
}
