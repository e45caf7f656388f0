import { firstWords } from '../blocks/define-block.ts'
import { openPrompts } from '../blocks/prompts.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { cutShort } from '../page/cut-short.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import type { Target } from './placing.ts'

const LONGEST = 40

/** What to call a node in a list: the name it was given, else its own first words or what is asked for there, else its kind; a section goes by its first heading. */
export function nodeLabel(page: Pick<Page, 'nodes'>, id: NodeId, registry: Registry): string {
  const node = getNode(page, id)
  if (node.name !== undefined) return node.name
  const { group, title, isCalledByHeading } = getKind(registry, node.kind)
  // A header is called a header, whatever it says.
  if (group === 'root') return title
  const words = isCalledByHeading === true ? firstHeading(page, id, registry) : wordsOrPrompt(node, registry)
  return words === '' ? getKind(registry, node.kind).title : shorten(words)
}

/** A node in a sentence: `heading “Opening hours”`. */
export function describeNode(page: Pick<Page, 'nodes'>, id: NodeId, registry: Registry): string {
  const title = getKind(registry, getNode(page, id).kind).title.toLowerCase()
  const label = nodeLabel(page, id, registry)
  return label.toLowerCase() === title ? title : `${title} “${label}”`
}

/** A place in a sentence: `to the end of section “Visit us”`. `leaving` is a node on its way there, which no longer counts. */
export function describePlace(page: Page, target: Target, registry: Registry, leaving?: NodeId): string {
  if (!findNode(page, target.parentId)) return ''
  const parent = describeNode(page, target.parentId, registry)
  const siblings = (getNode(page, target.parentId).slots[target.slot] ?? []).filter((id) => id !== leaving)
  const where = target.parentId === page.root ? 'the page' : parent
  if (target.index >= siblings.length) return `to the end of ${where}`
  if (target.index === 0) return `to the beginning of ${where}`
  return `after ${describeNode(page, siblings[target.index - 1]!, registry)}`
}

/** The words of the first heading inside, in reading order. Goes no further than it has to: lists ask this of every section, at every letter. */
function firstHeading(page: Pick<Page, 'nodes'>, id: NodeId, registry: Registry): string {
  const node = getNode(page, id)
  if (getKind(registry, node.kind).turning?.isLine === true) return wordsOrPrompt(node, registry)
  for (const slot in node.slots) {
    for (const child of node.slots[slot]!) {
      const words = firstHeading(page, child, registry)
      if (words !== '') return words
    }
  }
  return ''
}

/** What a node says, or else what is asked for in it. */
function wordsOrPrompt(node: PageNode, registry: Registry): string {
  const kind = getKind(registry, node.kind)
  return firstWords(kind, node) || (openPrompts(kind, node)[0]?.prompt ?? '')
}

function shorten(words: string): string {
  if (words.length <= LONGEST) return words
  const cut = words.lastIndexOf(' ', LONGEST)
  return `${cutShort(words, cut > LONGEST / 2 ? cut : LONGEST)}…`
}
