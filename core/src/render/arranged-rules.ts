import { getKind, type Registry } from '../blocks/registry.ts'
import type { ArrangedRules } from '../blocks/define-block.ts'
import type { JsonObject } from '../page/json.ts'
import type { GridChild } from '../grid/arrangement.ts'
import type { Page, PageNode, SizeKey } from '../page/page.ts'
import { changedIds } from '../page/with-nodes.ts'
import { shownSlots } from '../resolve/shown.ts'
import { cascade } from '../sizes/cascade.ts'
import { lastUpTo, sizesSet } from '../sizes/size-keys.ts'
import { breakout, type BandWidth } from '../kit/band.ts'
import { declarationsThatDiffer, type CssRule, type Declarations } from '../kit/css-rules.ts'
import { shortHash } from './hash.ts'

/** A class and the rules behind it. Nodes that are arranged alike share both. */
export interface ArrangedClass {
  readonly className: string | undefined
  readonly rules: readonly CssRule[]
}

const HIDDEN: Declarations = { display: 'none' }

/** Arrangements of one registry by kind, and then by what they depend on: a page has many nodes and few ways to arrange them. */
const known = new WeakMap<Registry, Map<string, Map<string, ArrangedClass>>>()
/** More ways to arrange one kind than any page uses; what is beyond is made again when it is needed. */
const MOST_KNOWN = 1_000

/** The rules for how one node is arranged at each size: all of them at the widest, and at narrower ones what differs. Nodes arranged alike get the same object. */
export function arrangeNode(
  registry: Registry,
  node: PageNode,
  children?: readonly GridChild[],
): ArrangedClass {
  const ofKind = knownOfKind(registry, node.kind)
  const { arrangedBy = NOTHING } = getKind(registry, node.kind)
  const key = arrangementKey(node, arrangedBy) + (children ? ` ${JSON.stringify(children)}` : '')
  let arranged = ofKind.get(key)
  if (!arranged) {
    if (ofKind.size >= MOST_KNOWN) ofKind.clear()
    ofKind.set(
      key,
      (arranged = makeArranged(registry, { ...node, content: pick(node.content, arrangedBy) }, children)),
    )
  }
  return arranged
}

function knownOfKind(registry: Registry, kind: string): Map<string, ArrangedClass> {
  let kinds = known.get(registry)
  if (!kinds) known.set(registry, (kinds = new Map<string, Map<string, ArrangedClass>>()))
  let ofKind = kinds.get(kind)
  if (!ofKind) kinds.set(kind, (ofKind = new Map<string, ArrangedClass>()))
  return ofKind
}

/** Equal for nodes of a kind that are arranged alike. Most set nothing, and of those nothing is written. */
function arrangementKey({ sizes, look, content }: PageNode, arrangedBy: readonly string[]): string {
  const own = keyOf(look)
  let said = ''
  for (const key of arrangedBy) said += `${JSON.stringify(content[key])} `
  const set = sizesSet({ sizes })
  if (set.length === 1 && own === '' && isEmpty(sizes.base)) return said
  return `${set.map((size) => `${size}${keyOf(sizes[size])}`).join(' ')} ${own} ${said}`
}

/** Whether two states of a page certainly have one stylesheet, told without arranging a node of either. */
export function hasSameStylesheet(registry: Registry, before: Page, after: Page): boolean {
  return changedIds(before.nodes, after.nodes).every((id) => {
    const [a, b] = [before.nodes[id], after.nodes[id]]
    return a !== undefined && b !== undefined && isArrangedAlike(registry, a, b)
  })
}

function isArrangedAlike(registry: Registry, a: PageNode, b: PageNode): boolean {
  const { arrangedBy = NOTHING } = getKind(registry, a.kind)
  return (
    a.kind === b.kind &&
    a.sizes === b.sizes &&
    a.look === b.look &&
    a.values === b.values &&
    // What stands in a grid section is placed by all that stands there, in its order.
    a.slots === b.slots &&
    // Each layout shows some slots of a page and leaves out the others: rules exist for blocks that are shown.
    shownSlots(a, registry).join() === shownSlots(b, registry).join() &&
    arrangedBy.every((key) => a.content[key] === b.content[key])
  )
}

const NOTHING: readonly string[] = []

function pick(content: JsonObject, keys: readonly string[]): JsonObject {
  return Object.fromEntries(keys.map((key) => [key, content[key]!]))
}

function keyOf(values: JsonObject | undefined): string {
  if (values === undefined) return '-'
  return isEmpty(values) ? '' : JSON.stringify(values)
}

function isEmpty(values: JsonObject): boolean {
  for (const _key in values) return false
  return true
}

function makeArranged(
  registry: Registry,
  node: PageNode,
  children: readonly GridChild[] | undefined,
): ArrangedClass {
  const found = differences(withPlaces(registry, node, arrangeBySize(registry, node), children))
  if (found.length === 0) return { className: undefined, rules: [] }
  const className = `${node.kind}-${shortHash(JSON.stringify(found))}`
  return {
    className,
    rules: found.map(({ suffix, size, declarations }) => ({
      selector: `.${className}${suffix}`,
      size,
      declarations,
    })),
  }
}

/** What is declared from a size on. */
type RulesFrom = readonly [SizeKey, ArrangedRules]

/** What a kind declares at each size at which something is set, from the widest down. */
function arrangeBySize(registry: Registry, node: PageNode): readonly RulesFrom[] {
  const definition = getKind(registry, node.kind)
  return sizesSet(node).map((size): RulesFrom => {
    const values = cascade(node, definition.arrangement, size)
    const arranged = definition.arrange?.({ values, content: node.content, look: node.look }) ?? {}
    const placed = {
      ...breakout((values.band ?? 'content') as BandWidth),
      ...(values.shown === false ? HIDDEN : {}),
    }
    const isPlaced = Object.keys(placed).length > 0
    return [size, isPlaced ? { ...arranged, '': { ...arranged[''], ...placed } } : arranged]
  })
}

/** What a kind declares at each size, with the places of its children. */
function withPlaces(
  registry: Registry,
  node: PageNode,
  bySize: readonly RulesFrom[],
  children: readonly GridChild[] | undefined,
): readonly RulesFrom[] {
  const places = children && getKind(registry, node.kind).placeChildren?.(children, node)
  if (!places) return bySize
  const arranged = new Map(bySize)
  return Object.keys(places)
    .sort()
    .map((size): RulesFrom => {
      const rules = arranged.get(lastUpTo([...arranged.keys()], size)!)!
      const own = places[size]!
      const all = { ...rules, ...own }
      for (const suffix of Object.keys(own)) all[suffix] = { ...rules[suffix], ...own[suffix] }
      return [size, all]
    })
}

interface Difference {
  readonly suffix: string
  readonly size: SizeKey
  readonly declarations: Declarations
}

/** All of the widest size's declarations, and of each narrower one those that the wider one does not make. */
function differences(bySize: readonly RulesFrom[]): readonly Difference[] {
  const suffixes = [...new Set(bySize.flatMap(([, rules]) => Object.keys(rules)))]
  return bySize.flatMap(([size, rules], at) =>
    suffixes.flatMap((suffix): Difference[] => {
      const wider = at === 0 ? {} : (bySize[at - 1]![1][suffix] ?? {})
      const declarations = declarationsThatDiffer(wider, rules[suffix] ?? {})
      return Object.keys(declarations).length > 0 ? [{ suffix, size, declarations }] : []
    }),
  )
}
