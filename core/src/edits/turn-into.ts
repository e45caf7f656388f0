/** Acts that make one kind of block of another, or put two beside each other, with all that they say kept. */
import { newNode, partSchema } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { getNode, type NodeId, type Page, type PageNode, type SizeKey } from '../page/page.ts'
import { lineRuns, lineWords, toLine, trimLine, type Line } from '../page/line.ts'
import { richTextWords, type Paragraph, type RichText } from '../page/rich-text.ts'
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
 * Makes a heading of one paragraph of a text block, counted from 0, with its marks and links: what stands before and
 * after it stays text. Undefined where there is no such paragraph or it has no words.
 */
export function paragraphToHeadingEdits(...[page, id, at, registry, newId]: OfParagraph): Turned | undefined {
  const words = paragraphWords(page, id, at)
  const text = words && trimLine(toLine(words.runs))
  if (!text || lineWords(text) === '') return undefined
  const content = { text: text as unknown as Json, level: levelAt(page, id) }
  const heading = newNode(getKind(registry, 'heading'), { content })
  return takeOutEdits(page, id, at, heading, newId)
}

/** Makes a quote of one paragraph of a text block; otherwise as `paragraphToHeadingEdits`. */
export function paragraphToQuoteEdits(...[page, id, at, registry, newId]: OfParagraph): Turned | undefined {
  const words = paragraphWords(page, id, at)
  if (!words || richTextWords([words]).join('').trim() === '') return undefined
  const quote = newNode(getKind(registry, 'quote'), { content: { words: [words] as unknown as Json } })
  return takeOutEdits(page, id, at, quote, newId)
}

/**
 * Makes a heading or a quote of a paragraph that holds nothing but the mark for one, as plain text has it: "## " or "> "
 * (CommonMark 0.31.2, "ATX headings" and "Block quotes"). Undefined for any other paragraph.
 */
export function markedParagraphEdits(...[page, id, at, registry, newId]: OfParagraph): Turned | undefined {
  const words = paragraphWords(page, id, at)
  const [, mark] = /^(#{1,6}|>) $/.exec(words?.runs.map(({ text }) => text).join('') ?? '') ?? []
  if (mark === undefined) return undefined
  const made =
    mark === '>'
      ? newNode(getKind(registry, 'quote'))
      : newNode(getKind(registry, 'heading'), { content: { level: mark.length } })
  return takeOutEdits(page, id, at, made, newId)
}

type OfParagraph = [page: Page, id: NodeId, at: number, registry: Registry, newId: NewId]

function paragraphWords(page: Page, id: NodeId, at: number): Paragraph | undefined {
  const node = getNode(page, id)
  const block = node.kind === 'text' ? (node.content.words as unknown as RichText)[at] : undefined
  return block?.type === 'paragraph' ? block : undefined
}

/** Puts a block where one paragraph of a text block stands; what is before and after it stays text. */
function takeOutEdits(page: Page, id: NodeId, at: number, made: PageNode, newId: NewId): Turned | undefined {
  const node = getNode(page, id)
  const place = findPlace(page, id)
  if (!place) return undefined
  const words = node.content.words as unknown as RichText
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

/** Makes a text block of a heading or a quote. Who said it, and where, is a paragraph of its own. */
export function toTextEdits(page: Page, id: NodeId, registry: Registry, newId: NewId): Turned | undefined {
  const place = findPlace(page, id)
  const words = wordsAsText(getNode(page, id))
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

function wordsAsText({ kind, content }: PageNode): RichText | undefined {
  if (kind === 'heading') return [{ type: 'paragraph', runs: lineRuns(content.text as unknown as Line) }]
  if (kind !== 'quote') return undefined
  const said = [content.who, content.source].filter(
    (one): one is string => typeof one === 'string' && one.trim() !== '',
  )
  const by = said.length > 0 ? paragraph(said.join(', ')) : []
  return [...(content.words as unknown as RichText), ...by]
}

/** The level of a heading that goes where a node stands: that of the heading before it, or 2. */
function levelAt(page: Page, id: NodeId): number {
  const place = findPlace(page, id)!
  const siblings = getNode(page, place.parentId).slots[place.slot]!.slice(0, place.index)
  const before = siblings.map((one) => getNode(page, one)).findLast((one) => one.kind === 'heading')
  return Math.max(2, Number(before?.content.level ?? 2))
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
 * Joins a text block to the block before it: to a text block as more of it, to a heading as more of its words where
 * it is one paragraph. Undefined where neither stands there. What Backspace at the beginning does.
 */
export function joinBackEdits(
  page: Page,
  id: NodeId,
): { readonly edits: readonly Edit[]; readonly intoId: NodeId } | undefined {
  const place = findPlace(page, id)
  const node = getNode(page, id)
  const intoId = place && getNode(page, place.parentId).slots[place.slot]![place.index - 1]
  if (intoId === undefined || node.kind !== 'text') return undefined
  const into = getNode(page, intoId)
  const words = node.content.words as unknown as RichText
  const remove: Edit = { edit: 'remove', nodeId: id }
  if (into.kind === 'text') {
    const before = into.content.words as unknown as RichText
    return { edits: [setWords(intoId, joined(before, words)), remove], intoId }
  }
  if (into.kind !== 'heading' || words.length > 1 || words[0]?.type === 'list') return undefined
  const runs = [...lineRuns(into.content.text as unknown as Line), { text: ' ' }, ...(words[0]?.runs ?? [])]
  const value = trimLine(toLine(runs)) as unknown as Json
  return { edits: [{ edit: 'set', nodeId: intoId, at: ['content', 'text'], value }, remove], intoId }
}

/** Two texts as one: the first paragraph of the second goes on in the last one of the first. */
function joined(first: RichText, second: RichText): RichText {
  const [last, next] = [first.at(-1), second[0]]
  if (last?.type !== 'paragraph' || next?.type !== 'paragraph') return [...first, ...second]
  const both: Paragraph = { type: 'paragraph', runs: [...last.runs, ...next.runs] }
  return [...first.slice(0, -1), both, ...second.slice(1)]
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
  const outer = holder.kind === 'column' ? findPlace(page, place.parentId) : undefined
  if (outer && holder.slots.blocks!.length === 1) {
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
