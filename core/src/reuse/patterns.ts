/** Patterns that people save: made of blocks that are selected, placed as independent copies. */
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Starter } from '../blocks/starters.ts'
import { copyFragment, type NewId } from '../edits/compose.ts'
import { PART_PURPOSES, type PartPurpose } from './part-facts.ts'
import { getNode, PAGE_FORMAT, type NodeId, type Page, type PageNode } from '../page/page.ts'

/** Why these blocks can't be saved as a pattern, as a sentence; undefined when they can. */
export function patternRefusal(page: Page, ids: readonly NodeId[], registry: Registry): string | undefined {
  if (ids.length === 0) return 'Select the blocks or sections of the pattern first'
  const groups = ids.map((id) => getKind(registry, getNode(page, id).kind).group)
  if (groups.includes('root')) return 'A header or a footer can’t be saved as a pattern'
  if (groups.includes('item')) return 'Select the whole block: an item alone can’t be saved as a pattern'
  return new Set(groups).size > 1 ? 'Select blocks or sections, not both' : undefined
}

/** A pattern with a copy of some blocks of a page, in the order given, with ids of its own. They stay as they are. */
export function patternOf(page: Page, ids: readonly NodeId[], registry: Registry, newId: NewId): Page {
  const copies = ids.map((id) => copyFragment(page, id, newId))
  const nodes = Object.assign({}, ...copies.map((one) => one.nodes)) as Record<NodeId, PageNode>
  const root = newId()
  const blocks = copies.map(({ rootId }) => rootId)
  nodes[root] = newNode(getKind(registry, 'pattern'), { slots: { blocks } })
  return { format: PAGE_FORMAT, root, nodes }
}

interface SavedPattern {
  readonly id: string
  readonly name: string
  readonly about: string
  readonly purpose: PartPurpose
  readonly document: Page
  /** All text in it. */
  readonly words: string
}

/** What the shelf offers of a saved pattern. */
export function patternStarter({ id, name, about, purpose, document, words }: SavedPattern): Starter {
  const [first, ...rest] = getNode(document, document.root).slots.blocks ?? []
  return {
    id: `pattern ${id}`,
    title: name,
    about: about || `${PART_PURPOSES[purpose]}, saved on this site`,
    synonyms: [PART_PURPOSES[purpose]],
    words,
    isSaved: true,
    type: purpose === 'pages' ? 'page-body' : 'pattern',
    purpose: purpose === 'pages' ? 'pages' : 'sections',
    kind: getNode(document, first!).kind,
    build: (newId) => copyFragment(document, first!, newId),
    buildRest: (newId) => rest.map((one) => copyFragment(document, one, newId)),
  }
}
