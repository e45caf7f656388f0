/** Acts that make one kind of block of another, or put two beside each other, with all that they say kept. */
import { newNode, partSchema } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode, type SizeKey } from '../page/page.ts'
import type { Paragraph, RichText } from '../page/rich-text.ts'
import { findPlace } from '../page/walk.ts'
import { SIZE_KEYS } from '../sizes/cascade.ts'
import type { Fragment, NewId } from './compose.ts'
import type { Edit } from './edit-shapes.ts'

interface Turned {
  readonly edits: readonly Edit[]
  /** The block that was made. */
  readonly madeId: NodeId
}

/**
 * Makes a block of another kind of one paragraph of a text block, counted from 0, with its marks and links: what stands
 * before and after it stays text. Undefined where there is no such paragraph, or nothing for that kind to say.
 */
export function paragraphIntoEdits(
  kind: string,
  ...[page, id, at, registry, newId]: OfParagraph
): Turned | undefined {
  const into = getKind(registry, kind)
  const words = paragraphAt(page, id, at, registry)
  const content = words && into.turning?.ofParagraph?.(words, levelAt(page, id, registry))
  return content && takeOutEdits(newNode(into, { content }), page, id, at, registry, newId)
}

/**
 * Makes a block of another kind of a paragraph that holds nothing but the mark for one, as plain text has it: "## " or
 * "> ". Undefined for any other paragraph.
 */
export function markedParagraphEdits(...[page, id, at, registry, newId]: OfParagraph): Turned | undefined {
  const words = paragraphAt(page, id, at, registry)
  const [, mark] = /^(\S+) $/.exec(words?.runs.map(({ text }) => text).join('') ?? '') ?? []
  if (mark === undefined) return undefined
  for (const kind of registry.kinds.values()) {
    const content = kind.turning?.ofMark?.(mark)
    if (content) return takeOutEdits(newNode(kind, { content }), page, id, at, registry, newId)
  }
  return undefined
}

/** Typed alone in a paragraph, it asks for a block by its name. Two dots: no sentence begins with them, and every keyboard has them. */
const NAME_MARK = '..'

/**
 * Edits that take the mark out again by which a block was asked for in a paragraph: the whole block where it says nothing
 * else. Undefined where the paragraph holds anything but the mark.
 */
export function takeNameMarkEdits(
  page: Page,
  id: NodeId,
  at: number,
  registry: Registry,
): readonly Edit[] | undefined {
  const block = findNode(page, id) && paragraphAt(page, id, at, registry)
  if (block?.runs.map(({ text }) => text).join('') !== NAME_MARK) return undefined
  const left = textOfBlock(getNode(page, id), registry)!.filter((_one, i) => i !== at)
  return [left.length === 0 ? { edit: 'remove', nodeId: id } : setWords(id, left)]
}

type OfParagraph = [page: Page, id: NodeId, at: number, registry: Registry, newId: NewId]

function paragraphAt(page: Page, id: NodeId, at: number, registry: Registry): Paragraph | undefined {
  const block = textOfBlock(getNode(page, id), registry)?.[at]
  return block?.type === 'paragraph' ? block : undefined
}

/** What a text block says; undefined for a block of any other kind. */
function textOfBlock({ kind, content }: PageNode, registry: Registry): RichText | undefined {
  const { turning } = getKind(registry, kind)
  return turning?.isText === true ? turning.toText(content) : undefined
}

/** Puts a block where one paragraph of a text block stands; what is before and after it stays text. */
function takeOutEdits(made: PageNode, ...[page, id, at, registry, newId]: OfParagraph): Turned | undefined {
  const node = getNode(page, id)
  const place = findPlace(page, id)
  const words = textOfBlock(node, registry)
  if (!place || !words) return undefined
  const [before, after] = [words.slice(0, at), words.slice(at + 1)]
  const madeId = newId()
  const insert = (rootId: NodeId, block: PageNode, index: number): Edit => ({
    edit: 'insert',
    parentId: place.parentId,
    slot: place.slot,
    index,
    rootId,
    nodes: { [rootId]: block },
  })
  const edits: Edit[] = []
  let { index } = place
  if (before.length > 0) {
    edits.push(setWords(id, before))
    index++
  }
  edits.push(insert(madeId, made, index))
  if (after.length > 0 && before.length > 0) {
    const rest = { ...node, content: { ...node.content, words: after as unknown as Json } }
    edits.push(insert(newId(), rest, index + 1))
  } else if (after.length > 0) edits.push(setWords(id, after))
  else if (before.length === 0) edits.push({ edit: 'remove', nodeId: id })
  return { edits, madeId }
}

/** Makes a text block of a block of another kind that says running text. */
export function toTextEdits(page: Page, id: NodeId, registry: Registry, newId: NewId): Turned | undefined {
  const place = findPlace(page, id)
  const { kind, content } = getNode(page, id)
  const { turning } = getKind(registry, kind)
  const words = turning?.isText === true ? undefined : turning?.toText(content)
  if (!place || !words) return undefined
  const madeId = newId()
  const text = newNode(getKind(registry, 'text'), { content: { words: words as unknown as Json } })
  return {
    edits: [
      { edit: 'remove', nodeId: id },
      { edit: 'insert', ...place, rootId: madeId, nodes: { [madeId]: text } },
    ],
    madeId,
  }
}

/** The level of a heading that goes where a node stands: that of the heading before it, or 2. */
function levelAt(page: Page, id: NodeId, registry: Registry): number {
  const place = findPlace(page, id)
  if (!place) return 2
  const siblings = getNode(page, place.parentId).slots[place.slot]!.slice(0, place.index)
  const levels = siblings.flatMap((one) => {
    const { kind, content } = getNode(page, one)
    return getKind(registry, kind).facts?.(content).heading?.level ?? []
  })
  return Math.max(2, levels.at(-1) ?? 2)
}

/** An empty paragraph in a text block of its own after a block: what Enter at the end of one starts. */
export function startParagraphEdits(
  page: Page,
  id: NodeId,
  registry: Registry,
  newId: NewId,
): { readonly edits: readonly Edit[]; readonly textId: NodeId } | undefined {
  const place = findPlace(page, id)
  if (!place) return undefined
  const textId = newId()
  const text = newNode(getKind(registry, 'text'), { content: { words: paragraph('') as unknown as Json } })
  const insert = { ...place, index: place.index + 1, rootId: textId, nodes: { [textId]: text } }
  return { edits: [{ edit: 'insert', ...insert }], textId }
}

/**
 * Joins a text block to the block before it, as more of what that says. Undefined where none stands there that can say
 * it. What Backspace at the beginning does.
 */
export function joinBackEdits(
  page: Page,
  id: NodeId,
  registry: Registry,
): { readonly edits: readonly Edit[]; readonly intoId: NodeId; readonly field: string } | undefined {
  const place = findPlace(page, id)
  const words = textOfBlock(getNode(page, id), registry)
  const intoId = place && getNode(page, place.parentId).slots[place.slot]![place.index - 1]
  if (intoId === undefined || !words) return undefined
  const { kind, content } = getNode(page, intoId)
  const { turning } = getKind(registry, kind)
  const value = turning?.joined?.(content, words)
  if (!turning || value === undefined) return undefined
  const { field } = turning
  const set: Edit = { edit: 'set', nodeId: intoId, at: ['content', field], value }
  return { edits: [set, { edit: 'remove', nodeId: id }], intoId, field }
}

function paragraph(text: string): RichText {
  return [{ type: 'paragraph', runs: text === '' ? [] : [{ text }] }]
}

function setWords(nodeId: NodeId, words: RichText): Edit {
  return { edit: 'set', nodeId, at: ['content', 'words'], value: words as unknown as Json }
}

/** Gives a block the look and the arrangement of another, as far as its kind has them; what it says stays. */
export function copyLookEdits(page: Page, from: PageNode, toId: NodeId, registry: Registry): Edit[] {
  const node = getNode(page, toId)
  const kind = getKind(registry, node.kind)
  const has = (part: 'look' | 'sizes', key: string) => Object.hasOwn(partSchema(kind, part).properties, key)
  const isAllowed = (part: 'look' | 'sizes', values: JsonObject) =>
    registry.check(node.kind, part, values).length === 0
  const edits: Edit[] = []
  for (const key of new Set([...Object.keys(from.look), ...Object.keys(node.look)])) {
    const value = from.look[key]
    if (!has('look', key) || (value !== undefined && !isAllowed('look', { [key]: value }))) continue
    if (value !== node.look[key]) edits.push(setAt(toId, ['look', key], value))
  }
  for (const size of SIZE_KEYS) {
    const [own, theirs] = [node.sizes[size] ?? {}, from.sizes[size] ?? {}]
    for (const key of new Set([...Object.keys(theirs), ...Object.keys(own)])) {
      const value = theirs[key]
      // Whether something is shown at a size, and how wide a column is, is about this block and not about looks.
      if (key === 'shown' || key === 'share' || !has('sizes', key)) continue
      if (value !== undefined && !isAllowed('sizes', { [key]: value })) continue
      if (value !== own[key]) edits.push(setAt(toId, ['sizes', size, key], value))
    }
  }
  return edits
}

function setAt(
  nodeId: NodeId,
  at: readonly ['look', string] | readonly ['sizes', SizeKey, string],
  value: Json | undefined,
): Edit {
  return { edit: 'set', nodeId, at, ...(value === undefined ? {} : { value }) }
}

/**
 * Puts a block, one of the page or a new one, beside another: both become columns where the other stands. Where the
 * other stands alone in a column already, a column is added beside that one. Undefined for what can't stand in a column.
 */
export function besideEdits(
  page: Page,
  otherId: NodeId,
  side: 'before' | 'after',
  what: { readonly moveId: NodeId } | { readonly fragment: Fragment },
  registry: Registry,
  newId: NewId,
): readonly Edit[] | undefined {
  const place = findPlace(page, otherId)
  const kind =
    'moveId' in what ? getNode(page, what.moveId).kind : what.fragment.nodes[what.fragment.rootId]!.kind
  const isFlow = (one: string) => getKind(registry, one).group === 'flow'
  if (!place || !isFlow(kind) || !isFlow(getNode(page, otherId).kind)) return undefined
  if ('moveId' in what && what.moveId === otherId) return undefined
  const mine = newId()
  const column = (share: number): PageNode =>
    newNode(getKind(registry, 'column'), { sizes: { base: { share } } })
  const fill = (columnId: NodeId): Edit =>
    'moveId' in what
      ? { edit: 'move', nodeId: what.moveId, toParentId: columnId, toSlot: 'blocks', toIndex: 0 }
      : { edit: 'insert', parentId: columnId, slot: 'blocks', index: 0, ...what.fragment }
  const holder = getNode(page, place.parentId)
  const outer = findPlace(page, place.parentId)
  const isBeside = outer && getKind(registry, getNode(page, outer.parentId).kind).isShared === true
  if (isBeside && holder.slots.blocks!.length === 1) {
    const index = outer.index + (side === 'after' ? 1 : 0)
    return [
      {
        edit: 'insert',
        parentId: outer.parentId,
        slot: outer.slot,
        index,
        rootId: mine,
        nodes: { [mine]: column(50) },
      },
      fill(mine),
    ]
  }
  const [columnsId, theirs] = [newId(), newId()]
  const order = side === 'before' ? [mine, theirs] : [theirs, mine]
  const columns = newNode(getKind(registry, 'columns'), {
    sizes: { base: {}, narrow: { direction: 'down' } },
    slots: { columns: order },
  })
  const nodes = { [columnsId]: columns, [mine]: column(50), [theirs]: column(50) }
  return [
    { edit: 'insert', ...place, rootId: columnsId, nodes },
    { edit: 'move', nodeId: otherId, toParentId: theirs, toSlot: 'blocks', toIndex: 0 },
    fill(mine),
  ]
}
