import type { JsonObject } from './json.ts'

/** The version of the document format written today; older ones are migrated when read. */
export const PAGE_FORMAT = 4

/** Short, random, made by the caller, never reused within a page. See `id.ts`. */
export type NodeId = string

/** The key of a named range of screen widths; see `sizes/size-keys.ts`. `base` is the widest. */
export type SizeKey = string

/** The values set at each size. A narrower one holds only what differs from the next wider one. */
export interface NodeSizes {
  readonly base: JsonObject
  readonly [size: SizeKey]: JsonObject | undefined
}

/** One block of a page. Immutable: an edit makes a new one, and an unchanged one keeps its identity. */
export interface PageNode {
  /** A block kind of the registry. */
  readonly kind: string
  /** Meaning only, valid against the kind's content schema; never HTML. */
  readonly content: JsonObject
  /** A variant and references to tokens of the site's look. */
  readonly look: JsonObject
  /** Values that may differ by size. A narrower size that differs in nothing is absent, never empty. */
  readonly sizes: NodeSizes
  /** Child ids in order, by slot name. Every slot that the kind declares is present, even when empty. */
  readonly slots: Readonly<Record<string, readonly NodeId[]>>
  /** What the editor calls this block, where it was given a name. */
  readonly name?: string
  /** Locked: the node and everything in it, or all but the text. */
  readonly lock?: 'all' | 'text'
  /** What is asked for in content fields without words, by their names; see `blocks/prompts.ts`. */
  readonly prompts?: Readonly<Record<string, string>>
  /** What an instance says in the fields of its part, by their ids; where it says nothing, the part's own words stand. */
  readonly values?: JsonObject
}

export type Nodes = Readonly<Record<NodeId, PageNode>>

/** A page as data: a flat map of nodes and the id of the one that holds all others. */
export interface Page {
  readonly format: typeof PAGE_FORMAT
  readonly root: NodeId
  readonly nodes: Nodes
}

/** The node with this id, or undefined. Ids come from outside, so inherited keys such as "constructor" are not found. */
export function findNode(page: Pick<Page, 'nodes'>, id: NodeId): PageNode | undefined {
  return Object.hasOwn(page.nodes, id) ? page.nodes[id] : undefined
}

/** The node with this id. Throws RangeError when there is none: for ids that the caller has just read off the page. */
export function getNode(page: Pick<Page, 'nodes'>, id: NodeId): PageNode {
  const node = findNode(page, id)
  if (!node) throw new RangeError(`The page has no node "${id}"`)
  return node
}
