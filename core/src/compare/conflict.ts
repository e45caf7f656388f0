/** Spots where two people changed the same thing in different ways, and the words for them. */
import { partSchema } from '../blocks/define-block.ts'
import type { FieldSchema } from '../kit/fields.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { componentField } from '../reuse/component-values.ts'
import { describeNode } from '../edits/describe.ts'
import { editSentence } from '../edits/edit.ts'
import type { ValueAddress } from '../edits/edit-shapes.ts'
import { applyEdits } from '../edits/transaction.ts'
import type { Json } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page } from '../page/page.ts'
import { subtreeIds } from '../page/walk.ts'
import { lineWords } from '../page/line.ts'
import { richTextWords, type RichText, type Run } from '../page/rich-text.ts'
import { STEP_WORDS } from '../look/scales.ts'
import { sizeWord, type WithSizes } from '../sizes/site-sizes.ts'
import { diffPages } from './diff-pages.ts'
import { formattedRuns, formattedText } from './formatted-words.ts'

export type Side = 'ours' | 'theirs'

/** Where a node stands, without its order there. */
export interface SlotPlace {
  readonly parentId: NodeId
  readonly slot: string
}

export type Conflict = { readonly key: string; readonly nodeId: NodeId } & (
  | {
      readonly type: 'value'
      readonly at: ValueAddress
      readonly ours: Json | undefined
      readonly theirs: Json | undefined
    }
  /** One deleted it, the other changed something in it. */
  | { readonly type: 'deleted'; readonly by: Side }
  | { readonly type: 'place'; readonly ours: SlotPlace | undefined; readonly theirs: SlotPlace | undefined }
  /** `nodeId` is the container; the lists hold the blocks that both have put in another order. */
  | {
      readonly type: 'order'
      readonly slot: string
      readonly ours: readonly NodeId[]
      readonly theirs: readonly NodeId[]
    }
  /** The sum of both does not make a valid page: one of the two pages has to be taken whole. */
  | { readonly type: 'page' }
)

/** Describes a conflict to the person who decides it. `title` names the block and the field; the sides are given uncut. */
export interface ConflictWords {
  readonly title: string
  readonly ours: string
  readonly theirs: string
  /** Whether both sides are text of which the differences can be shown. */
  readonly isText: boolean
}

export interface Versions {
  readonly base: Page
  readonly ours: Page
  readonly theirs: Page
}

/** A conflict in words, with both sides of it. `sizes` are those of the site, for their names. */
export function describeConflict(
  conflict: Conflict,
  pages: Versions,
  registry: Registry,
  sizes?: WithSizes,
): ConflictWords {
  const name = nameOf(conflict.nodeId, pages, registry)
  const plain = { isText: false }
  switch (conflict.type) {
    case 'value':
      return {
        ...valueSides(conflict, fieldOf(conflict, pages, registry)),
        title: `${valueTitle(conflict, pages, registry, sizes)} of ${name}`,
        isText: [conflict.ours, conflict.theirs].every(isTextual),
      }
    case 'deleted': {
      const kept = subtreeText(conflict.by === 'ours' ? pages.theirs : pages.ours, conflict.nodeId, registry)
      return conflict.by === 'ours'
        ? { ...plain, title: `${capital(name)}: deleted or changed`, ours: DELETED, theirs: kept }
        : { ...plain, title: `${capital(name)}: deleted or changed`, ours: kept, theirs: DELETED }
    }
    case 'place':
      return {
        ...plain,
        title: `Place of ${name}`,
        ours: placeWords(conflict.ours, pages, registry),
        theirs: placeWords(conflict.theirs, pages, registry),
      }
    case 'order':
      return {
        ...plain,
        title: `Order in ${name}`,
        ours: orderWords(conflict.ours, pages, registry),
        theirs: orderWords(conflict.theirs, pages, registry),
      }
    case 'page':
      return {
        ...plain,
        title: 'The whole page',
        ours: changeWords(pages.base, pages.ours, registry, sizes),
        theirs: changeWords(pages.base, pages.theirs, registry, sizes),
      }
  }
}

const DELETED = 'Deleted'

/** Everything that leads from one page to another, a line for each change. */
function changeWords(from: Page, to: Page, registry: Registry, sizes: WithSizes | undefined): string {
  const lines: string[] = []
  let now = from
  for (const edit of diffPages(from, to, registry)) {
    lines.push(editSentence(now, edit, registry, sizes))
    const applied = applyEdits(now, [edit], registry)
    // An edit that is valid together with the next ones alone is told, and seen from the page before it.
    if (applied.ok) now = applied.page
  }
  return lines.join('\n') || 'The page as it was opened'
}

/** Returns the text of a block and of its descendants, which is what is lost when its deletion is chosen. */
function subtreeText(page: Page, id: NodeId, registry: Registry): string {
  if (!findNode(page, id)) return DELETED
  const words = subtreeIds(page, id).flatMap((inside) => {
    const node = getNode(page, inside)
    return getKind(registry, node.kind).words(node.content)
  })
  return words.filter((one) => one.trim() !== '').join('\n') || 'Changed; it has no text'
}

function isTextual(value: Json | undefined): boolean {
  return typeof value === 'string' || isRuns(value) || isRichText(value) || isRows(value)
}

function nameOf(id: NodeId, { base, ours, theirs }: Versions, registry: Registry): string {
  const page = [ours, theirs, base].find((one) => findNode(one, id))
  if (!page) return 'a block'
  return id === page.root ? 'the page' : describeNode(page, id, registry)
}

/** The field that a value belongs to; undefined for a block's name and lock. */
function fieldOf(
  { nodeId, at }: Conflict & { type: 'value' },
  pages: Versions,
  registry: Registry,
): FieldSchema | undefined {
  if (at[0] === 'name' || at[0] === 'lock') return undefined
  const page = findNode(pages.ours, nodeId) ? pages.ours : pages.theirs
  if (at[0] === 'values') return componentField(page, nodeId, at[1], registry)?.schema
  const { properties } = partSchema(getKind(registry, getNode(page, nodeId).kind), at[0])
  return properties[at[at.length - 1]!]
}

function valueTitle(
  conflict: Conflict & { type: 'value' },
  pages: Versions,
  registry: Registry,
  sizes: WithSizes | undefined,
): string {
  const { at } = conflict
  if (at[0] === 'name') return 'Name'
  if (at[0] === 'lock') return 'Lock'
  const title = fieldOf(conflict, pages, registry)?.title ?? at[at.length - 1]!
  return at[0] === 'sizes' && at[1] !== 'base' ? `${title} at ${sizeWord(at[1], sizes)}` : title
}

/** The words of both sides, with their formatting where they would read alike without it. */
function valueSides(
  { ours, theirs }: Conflict & { type: 'value' },
  field: FieldSchema | undefined,
): Readonly<Record<Side, string>> {
  const words = { ours: valueWords(ours, field), theirs: valueWords(theirs, field) }
  return words.ours === words.theirs ? { ours: formatted(ours), theirs: formatted(theirs) } : words
}

function formatted(value: Json | undefined): string {
  if (isRuns(value)) return formattedRuns(value)
  if (isRichText(value)) return formattedText(value)
  return typeof value === 'string' ? value : JSON.stringify(value ?? 'Not set')
}

function valueWords(value: Json | undefined, field: FieldSchema | undefined): string {
  if (isRuns(value)) return lineWords(value)
  if (value === undefined) return 'Not set'
  if (typeof value === 'boolean') return value ? 'Yes' : 'No'
  if (typeof value !== 'object' || value === null) {
    const words = field?.words ?? (field?.scale ? STEP_WORDS[field.scale] : undefined)
    return words?.[String(value)] ?? String(value)
  }
  if (isRichText(value)) return richTextWords(value).join('\n')
  if (isRows(value)) return value.map((row) => row.join(' | ')).join('\n')
  return Object.entries(value)
    .map(([key, one]) => `${key}: ${typeof one === 'object' ? JSON.stringify(one) : String(one)}`)
    .join(', ')
}

function isRows(value: unknown): value is readonly (readonly string[])[] {
  return Array.isArray(value) && value.every((row: unknown) => Array.isArray(row))
}

function isRuns(value: unknown): value is readonly Run[] {
  const isRun = (one: unknown) => typeof one === 'object' && one !== null && 'text' in one
  return Array.isArray(value) && value.length > 0 && value.every(isRun)
}

function isRichText(value: unknown): value is RichText {
  return (
    Array.isArray(value) &&
    value.every((one: unknown) => typeof one === 'object' && one !== null && 'type' in one)
  )
}

function placeWords(place: SlotPlace | undefined, pages: Versions, registry: Registry): string {
  return place ? `In ${nameOf(place.parentId, pages, registry)}` : 'Nowhere'
}

function orderWords(ids: readonly NodeId[], pages: Versions, registry: Registry): string {
  return ids.map((id) => nameOf(id, pages, registry)).join(', ')
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}
