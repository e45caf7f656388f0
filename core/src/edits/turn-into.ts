/** Acts that make one kind of block of another, with all that they say kept. */
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Json } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import type { Paragraph } from '../page/rich-text.ts'
import { findPlace } from '../page/walk.ts'
import type { NewId } from './compose.ts'
import type { Edit } from './edit-shapes.ts'
import { setWords, textOfBlock } from './text-flow.ts'

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
