/** Older documents brought up to the format of today, step by step. */
import { PAGE_FORMAT, type Page, type PageNode } from './page.ts'

/** Slots that the root of a page got with format 2. */
const ROOT_SLOTS = ['sections', 'main', 'side', 'aside']

type Document = Omit<Page, 'format'> & { readonly format: number }

/** What each format needs to become the next one, by the older one's number. */
const STEPS: Readonly<Record<number, (node: OlderNode, isRoot: boolean) => OlderNode>> = {
  1: (node, isRoot) =>
    isRoot && node.kind === 'page'
      ? { ...node, slots: { ...Object.fromEntries(ROOT_SLOTS.map((slot) => [slot, []])), ...node.slots } }
      : node,
  2: renameInNode,
  3: withFills,
}

type OlderNode = PageNode & { readonly held?: unknown }

/**
 * Returns a document of any format as one of today's. A value that is not a document of an older format is returned as it
 * is, for validation to judge; never throws.
 */
export function migratePage(value: unknown): unknown {
  if (!isObject(value)) return value
  let document = value as unknown as Document
  while (document.format !== PAGE_FORMAT && Object.hasOwn(STEPS, document.format)) {
    const step = STEPS[document.format]!
    document = { ...document, format: document.format + 1, nodes: stepNodes(document, step) }
  }
  return document
}

function stepNodes({ nodes, root }: Document, step: (typeof STEPS)[number]): Page['nodes'] {
  if (!isObject(nodes)) return nodes
  return Object.fromEntries(
    Object.entries(nodes).map(([id, node]) => {
      const isNode = isObject(node) && isObject((node as PageNode).content)
      return [id, isNode ? step(node, id === root) : node]
    }),
  )
}

/** With format 3 a page's `frame` is its `layout`, and `held` is `lock`, which says "text" and not "words". */
function renameInNode({ held, ...node }: OlderNode): OlderNode {
  const { frame, ...content } = node.content
  const isPage = node.kind === 'page' && frame !== undefined
  return {
    ...node,
    ...(isPage ? { content: { ...content, layout: frame } } : {}),
    ...(held === undefined ? {} : { lock: lockOf(held) as NonNullable<PageNode['lock']> }),
  }
}

/** With format 4 an instance of a part has a place for what it fills the slots of that with. */
function withFills(node: OlderNode): OlderNode {
  const isInstance = node.kind === 'linked-blocks' || node.kind === 'linked-sections'
  return isInstance && isObject(node.slots) ? { ...node, slots: { fills: [], ...node.slots } } : node
}

/** Returns the value of `lock` for a value of `held` in format 2. */
export function lockOf(held: unknown): unknown {
  return held === 'words' ? 'text' : held
}

/** Returns nodes that were written on their own with format 2 or 3, as an edit holds them, as ones of today's format. */
export function migrateNodes(nodes: Page['nodes']): Page['nodes'] {
  return stepNodes({ format: 2, root: '', nodes }, (node) => withFills(renameInNode(node)))
}

function isObject(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
