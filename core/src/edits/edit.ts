/**
 * Edits: the only way a page changes. Each is a small JSON value that can be kept, sent and undone.
 *
 * The law that undo, redo and everything after them stand on: when `applyEdit(p, e)` succeeds with a page and an
 * inverse, then `applyEdit(page, inverse)` succeeds and gives `p` again. Untouched nodes keep their identity, nothing
 * is mutated, and a refused edit changes nothing.
 */
import type { Registry } from '../blocks/registry.ts'
import type { WithSizes } from '../sizes/site-sizes.ts'
import type { Page } from '../page/page.ts'
import type { EditDefinition } from './define-edit.ts'
import type { Edit, EditName } from './edit-shapes.ts'
import { insert } from './insert.ts'
import { move } from './move.ts'
import { remove } from './remove.ts'
import type { Applied } from './result.ts'
import { set } from './set.ts'

const EDITS: { readonly [N in EditName]: EditDefinition<Extract<Edit, { edit: N }>> } = {
  insert,
  remove,
  move,
  set,
}

/** Every edit there is, for tests that run over all of them. */
export const EDIT_NAMES = Object.keys(EDITS) as readonly EditName[]

/** The JSON Schema (2020-12) of a stored or sent edit: its shape. What is inside nodes, the edit itself judges. */
export const EDIT_SCHEMA = {
  type: 'object',
  required: ['edit'],
  discriminator: { propertyName: 'edit' },
  oneOf: Object.entries(EDITS).map(([name, { fields, optional = [] }]) => ({
    type: 'object',
    properties: { edit: { const: name }, ...fields },
    required: [
      'edit',
      ...Object.keys(fields).filter((key) => !(optional as readonly string[]).includes(key)),
    ],
    additionalProperties: false,
  })),
}

/** The page after one edit and the edit that takes it back, or why it does not fit. */
export function applyEdit(page: Page, edit: Edit, registry: Registry): Applied {
  return definitionOf(edit).apply(page, edit, registry)
}

/** What an edit does to the page before it, as a sentence for people. `sizes` are those of the site, for their names. */
export function editSentence(before: Page, edit: Edit, registry: Registry, sizes?: WithSizes): string {
  return definitionOf(edit).sentence(before, edit, registry, sizes)
}

/** The two as one edit that does what they do in a row; undefined where that takes both. */
export function mergePair(first: Edit, next: Edit): Edit | undefined {
  return first.edit === next.edit ? definitionOf(first).merge?.(first, next) : undefined
}

/** The same edits with neighbours merged where they can be. */
export function mergeEdits(edits: readonly Edit[]): readonly Edit[] {
  const merged: Edit[] = []
  for (const edit of edits) {
    const last = merged.at(-1)
    const both = last && mergePair(last, edit)
    if (both) merged[merged.length - 1] = both
    else merged.push(edit)
  }
  return merged
}

function definitionOf(edit: Edit): EditDefinition<Edit> {
  if (!Object.hasOwn(EDITS, edit.edit)) throw new RangeError(`There is no edit "${String(edit.edit)}"`)
  return EDITS[edit.edit] as EditDefinition<Edit>
}
