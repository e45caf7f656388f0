/** Texts that go on from one block to the next: started by Enter, joined by Backspace. */
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Json } from '../page/json.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import type { RichText } from '../page/rich-text.ts'
import { findPlace } from '../page/walk.ts'
import type { NewId } from './compose.ts'
import type { Edit } from './edit-shapes.ts'

/** What a text block says; undefined for a block of any other kind. */
export function textOfBlock({ kind, content }: PageNode, registry: Registry): RichText | undefined {
  const { turning } = getKind(registry, kind)
  return turning?.isText === true ? turning.toText(content) : undefined
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

/** A text of one paragraph. */
export function paragraph(text: string): RichText {
  return [{ type: 'paragraph', runs: text === '' ? [] : [{ text }] }]
}

/** The edit that gives a text block these words. */
export function setWords(nodeId: NodeId, words: RichText): Edit {
  return { edit: 'set', nodeId, at: ['content', 'words'], value: words as unknown as Json }
}
