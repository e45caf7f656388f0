import { getKind, type Registry } from '../blocks/registry.ts'
import type { ArrangedRules } from '../blocks/define-block.ts'
import type { JsonObject } from '../page/json.ts'
import type { PageNode, SizeKey } from '../page/page.ts'
import { cascade, SIZE_KEYS } from '../sizes/cascade.ts'
import { breakout, type BandWidth } from './band.ts'
import { declarationsThatDiffer, type CssRule, type Declarations } from './css-rules.ts'
import { shortHash } from './hash.ts'

/** A class and the rules behind it. Nodes that are arranged alike share both. */
export interface ArrangedClass {
  readonly className: string | undefined
  readonly rules: readonly CssRule[]
}

const HIDDEN: Declarations = { display: 'none' }

/** Arrangements by what they depend on: a page has many nodes and few ways to arrange them. */
const known = new WeakMap<Registry, Map<string, ArrangedClass>>()
/** More than any page uses; what is beyond is made again when it is needed. */
const MOST_KNOWN = 2_000

/** The rules for how one node is arranged at each size: all of them at the widest, and at narrower ones what differs. Nodes arranged alike get the same object. */
export function arrangeNode(registry: Registry, node: PageNode): ArrangedClass {
  let all = known.get(registry)
  if (!all || all.size > MOST_KNOWN) known.set(registry, (all = new Map<string, ArrangedClass>()))
  const { arrangedBy = NOTHING } = getKind(registry, node.kind)
  const content = arrangedBy.length === 0 ? EMPTY : pick(node.content, arrangedBy)
  const key = `${node.kind} ${keyOf(node.sizes.base)} ${keyOf(node.sizes.medium)} ${keyOf(node.sizes.narrow)} ${keyOf(node.look)} ${keyOf(content)}`
  let arranged = all.get(key)
  if (!arranged) all.set(key, (arranged = makeArranged(registry, { ...node, content })))
  return arranged
}

/** Whether two states of a node are certainly arranged alike, told without arranging either. */
export function isArrangedAlike(registry: Registry, a: PageNode, b: PageNode): boolean {
  const { arrangedBy = NOTHING } = getKind(registry, a.kind)
  return (
    a.kind === b.kind &&
    a.sizes === b.sizes &&
    a.look === b.look &&
    arrangedBy.every((key) => a.content[key] === b.content[key])
  )
}

const NOTHING: readonly string[] = []
const EMPTY: JsonObject = {}

function pick(content: JsonObject, keys: readonly string[]): JsonObject {
  return Object.fromEntries(keys.map((key) => [key, content[key]!]))
}

/** Most nodes set nothing, and for those nothing is written. */
function keyOf(values: JsonObject | undefined): string {
  for (const _key in values) return JSON.stringify(values)
  return values === undefined ? '-' : ''
}

function makeArranged(registry: Registry, node: PageNode): ArrangedClass {
  const found = differences(arrangeBySize(registry, node))
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

/** What a kind declares at each size, from the widest down; a size that sets nothing of its own shares the wider one's. */
function arrangeBySize(registry: Registry, node: PageNode): readonly ArrangedRules[] {
  const definition = getKind(registry, node.kind)
  const bySize: ArrangedRules[] = []
  for (const size of SIZE_KEYS) {
    const wider = bySize.at(-1)
    if (wider && !node.sizes[size]) {
      bySize.push(wider)
      continue
    }
    const values = cascade(node, definition.arrangement, size)
    const arranged = definition.arrange?.({ values, content: node.content, look: node.look }) ?? {}
    const placed = {
      ...breakout((values.band ?? 'content') as BandWidth),
      ...(values.shown === false ? HIDDEN : {}),
    }
    const isPlaced = Object.keys(placed).length > 0
    bySize.push(isPlaced ? { ...arranged, '': { ...arranged[''], ...placed } } : arranged)
  }
  return bySize
}

interface Difference {
  readonly suffix: string
  readonly size: SizeKey
  readonly declarations: Declarations
}

/** All of the widest size's declarations, and of each narrower one those that the wider one does not make. */
function differences(bySize: readonly ArrangedRules[]): readonly Difference[] {
  const suffixes = [...new Set(bySize.flatMap((rules) => Object.keys(rules)))]
  return SIZE_KEYS.flatMap((size, at) => {
    if (at > 0 && bySize[at] === bySize[at - 1]) return []
    return suffixes.flatMap((suffix): Difference[] => {
      const wider = at === 0 ? {} : (bySize[at - 1]![suffix] ?? {})
      const declarations = declarationsThatDiffer(wider, bySize[at]![suffix] ?? {})
      return Object.keys(declarations).length > 0 ? [{ suffix, size, declarations }] : []
    })
  })
}
