/** Spots where two people changed the same thing in different ways, and the words for them. */
import { partSchema } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { describeNode } from '../edits/describe.ts'
import type { ValueAddress } from '../edits/set.ts'
import type { Json } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page } from '../page/page.ts'
import type { RichText } from '../page/rich-text.ts'
import { richTextWords } from '../page/rich-text.ts'
import { SIZE_WORDS } from '../sizes/cascade.ts'

export type Side = 'ours' | 'theirs'

/** Where a node stands, without its order there. */
export interface Home {
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
  | { readonly type: 'place'; readonly ours: Home | undefined; readonly theirs: Home | undefined }
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

/** A conflict for people: what it is about, and what each side made of it. */
export interface ConflictWords {
  readonly title: string
  readonly ours: string
  readonly theirs: string
}

const LONGEST = 160

export interface Versions {
  readonly base: Page
  readonly ours: Page
  readonly theirs: Page
}

export function describeConflict(conflict: Conflict, pages: Versions, registry: Registry): ConflictWords {
  const name = nameOf(conflict.nodeId, pages, registry)
  switch (conflict.type) {
    case 'value':
      return {
        title: `${valueTitle(conflict, pages, registry)} of ${name}`,
        ours: valueWords(conflict.ours),
        theirs: valueWords(conflict.theirs),
      }
    case 'deleted':
      return conflict.by === 'ours'
        ? { title: capital(name), ours: 'Deleted', theirs: 'Kept, with changes' }
        : { title: capital(name), ours: 'Kept, with changes', theirs: 'Deleted' }
    case 'place':
      return {
        title: `Place of ${name}`,
        ours: homeWords(conflict.ours, pages, registry),
        theirs: homeWords(conflict.theirs, pages, registry),
      }
    case 'order':
      return {
        title: `Order in ${name}`,
        ours: orderWords(conflict.ours, pages, registry),
        theirs: orderWords(conflict.theirs, pages, registry),
      }
    case 'page':
      return { title: 'The whole page', ours: 'The page as it is here', theirs: 'The page as it was saved' }
  }
}

function nameOf(id: NodeId, { base, ours, theirs }: Versions, registry: Registry): string {
  const page = [ours, theirs, base].find((one) => findNode(one, id))
  if (!page) return 'a block'
  return id === page.root ? 'the page' : describeNode(page, id, registry)
}

function valueTitle(
  { nodeId, at }: Conflict & { type: 'value' },
  pages: Versions,
  registry: Registry,
): string {
  if (at[0] === 'name') return 'Name'
  if (at[0] === 'held') return 'Hold'
  const page = findNode(pages.ours, nodeId) ? pages.ours : pages.theirs
  const { properties } = partSchema(getKind(registry, getNode(page, nodeId).kind), at[0])
  const title = properties[at[at.length - 1]!]?.title ?? at[at.length - 1]!
  return at[0] === 'sizes' && at[1] !== 'base' ? `${title} at ${SIZE_WORDS[at[1]]}` : title
}

function valueWords(value: Json | undefined): string {
  if (value === undefined) return 'as it was before it was set'
  if (typeof value === 'string') return value === '' ? 'nothing' : shorten(value)
  if (typeof value !== 'object' || value === null) return String(value)
  if (isRichText(value)) return shorten(richTextWords(value).join(' / '))
  return shorten(JSON.stringify(value))
}

function isRichText(value: unknown): value is RichText {
  return (
    Array.isArray(value) &&
    value.every((one: unknown) => typeof one === 'object' && one !== null && 'type' in one)
  )
}

function homeWords(home: Home | undefined, pages: Versions, registry: Registry): string {
  return home ? `In ${nameOf(home.parentId, pages, registry)}` : 'Nowhere'
}

function orderWords(ids: readonly NodeId[], pages: Versions, registry: Registry): string {
  return shorten(ids.map((id) => nameOf(id, pages, registry)).join(', '))
}

function shorten(words: string): string {
  return words.length <= LONGEST ? words : `${words.slice(0, LONGEST)}…`
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}
