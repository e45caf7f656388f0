/** Patterns that people save: made of blocks that are selected, placed as independent copies. */
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Starter } from '../blocks/starters.ts'
import { copyFragment, type Fragment, type NewId } from '../edits/compose.ts'
import { isComponent } from './component-values.ts'
import { instanceFragment } from './shared-parts.ts'
import { PART_PURPOSES, type PartPurpose, type PartType } from './part-facts.ts'
import { getNode, PAGE_FORMAT, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { childIds } from '../page/walk.ts'

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

interface SavedArrangement {
  readonly id: string
  readonly name: string
  readonly about: string
  readonly purpose: PartPurpose
  readonly document: Page
  /** All text in it. */
  readonly words: string
}

/** What the shelf offers of a saved pattern. */
function patternStarter(saved: SavedArrangement): Starter {
  const { document, purpose } = saved
  const [first, ...rest] = childIds(getNode(document, document.root))
  return {
    ...saidOf(saved),
    type: purpose === 'pages' ? 'page-body' : 'pattern',
    purpose: purpose === 'pages' ? 'pages' : 'sections',
    kind: getNode(document, first!).kind,
    build: (newId) => copyFragment(document, first!, newId),
    buildRest: (newId) => rest.map((one) => copyFragment(document, one, newId)),
  }
}

/** What the shelf offers of a shared section: an instance of it. */
function sharedStarter(saved: SavedArrangement, registry: Registry): Starter {
  const { id, document } = saved
  const build = (newId: NewId): Fragment => instanceFragment(id, document, registry, newId)
  const { rootId, nodes } = build(() => 'instance')
  return {
    ...saidOf(saved),
    type: 'shared',
    purpose: 'sections',
    kind: getNode({ nodes }, rootId).kind,
    part: id,
    isComponent: isComponent(document),
    build,
    buildRest: () => [],
  }
}

/** What the shelf offers of a part: a copy of a pattern, an instance of a shared section. */
export function savedStarter(
  saved: SavedArrangement & { readonly type: Exclude<PartType, 'template'> },
  registry: Registry,
): Starter {
  return saved.type === 'shared' ? sharedStarter(saved, registry) : patternStarter(saved)
}

function saidOf({ id, name, about, purpose, words }: SavedArrangement) {
  return {
    id: `part ${id}`,
    title: name,
    about: about || `${PART_PURPOSES[purpose]}, saved on this site`,
    synonyms: [PART_PURPOSES[purpose]],
    words,
    isSaved: true,
  }
}
