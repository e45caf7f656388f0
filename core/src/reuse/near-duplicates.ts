/**
 * Sections that are nearly alike: the same blocks, arranged alike, that differ only in values which can be fields of a
 * component. Made one component, each of them shows what it showed.
 *
 * The shape of a section is everything in it that can't be a field; two sections are compared only where their shapes are
 * equal, so finding those of thousands costs one pass over their blocks.
 */
import { MOST_COMPONENT_FIELDS, type ComponentField } from '../blocks/component-fields.ts'
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { NewId } from '../edits/compose.ts'
import { sameJson, type Json, type JsonObject } from '../page/json.ts'
import { getNode, PAGE_FORMAT, type NodeId, type Nodes, type Page, type PageNode } from '../page/page.ts'
import { childIds, subtreeIds } from '../page/walk.ts'
import { shortHash } from '../render/hash.ts'
import { fillable, newField, withFields } from './make-component.ts'

/** A section that says less than this is like many others by chance. */
const LEAST_BLOCKS = 3
/** Of the values of two sections, this share is the same at least. Chosen by us: below it they are alike in their frame alone. */
const LEAST_ALIKE = 0.5
/** A shape with more groups than this is a template, whose pages are meant to say different things. Chosen by us. */
const MOST_GROUPS_OF_SHAPE = 50
/** So many sections become one part at most, in one act. */
export const MOST_JOINED = 200

/** One value of a section that can be a field, by the place of its block in reading order. */
interface ShapedValue {
  readonly at: string
  readonly value: string
}

/** A section as it is compared with others: strings of JSON. */
export interface SectionShape {
  readonly shape: string
  readonly values: readonly ShapedValue[]
}

/**
 * Returns the sections right on a page that can be compared: not those that show a part, not those with hardly anything in
 * them, and none that is locked or has something locked in it, since those may not be changed.
 */
export function comparableSections(page: Page, registry: Registry): readonly NodeId[] {
  const isLocked = (id: NodeId): boolean => getNode(page, id).lock !== undefined
  if (isLocked(page.root)) return []
  return childIds(getNode(page, page.root)).filter((id) => {
    const { group, linksTo } = getKind(registry, getNode(page, id).kind)
    if (group !== 'section' || linksTo) return false
    const ids = subtreeIds(page, id)
    return ids.length >= LEAST_BLOCKS && !ids.some(isLocked)
  })
}

export function sectionShape(page: Page, id: NodeId, registry: Registry): SectionShape {
  const values: ShapedValue[] = []
  const shapes = subtreeIds(page, id).map((one, i) => {
    const { kind, content, look, sizes, slots, prompts, values: filled } = getNode(page, one)
    const fixed = { content: { ...content }, look: { ...look } } as Record<
      'content' | 'look',
      Record<string, Json>
    >
    for (const { key, of = 'content' } of fillable(getKind(registry, kind))) {
      const value = fixed[of][key]
      if (value !== undefined) values.push({ at: `${i}.${of}.${key}`, value: sortedJson(value) })
      delete fixed[of][key]
    }
    const lengths = Object.entries(slots).map(([slot, children]) => [slot, children.length])
    return sortedJson([kind, fixed, sizes, Object.fromEntries(lengths), prompts ?? '', filled ?? ''] as never)
  })
  return { shape: shapes.join(''), values }
}

/** JSON that is the same for equal values, whatever the order of their keys. */
function sortedJson(value: Json): string {
  return JSON.stringify(value, (_key, one: unknown) =>
    typeof one === 'object' && one !== null && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)))
      : one,
  )
}

/** A group that is being found: the section it began with, and those that are nearly like that. */
interface Growing {
  readonly values: ReadonlyMap<string, string>
  readonly members: number[]
  /** The shares of same values of all members but the first, summed. */
  alike: number
}

/**
 * Groups sections that are nearly alike as they are added, one after another.
 *
 * Each section is in one group at most: that of the first section of its shape that it is nearly like. A section is compared
 * with the first sections of its shape's groups alone, and a shape has a bounded number of those, so adding one costs the same
 * however many there are.
 */
export class AlikeFinder {
  readonly #byShape = new Map<string, Growing[]>()
  #count = 0

  add({ shape, values }: SectionShape): void {
    const index = this.#count++
    // Long strings are not kept. Where two shapes had one hash, `joinSections` would tell them apart.
    const key = shortHash(shape)
    const groups = this.#byShape.get(key) ?? []
    this.#byShape.set(key, groups)
    for (const group of groups) {
      const share = shareOfSame(group.values, values)
      if (share < LEAST_ALIKE) continue
      group.members.push(index)
      group.alike += share
      return
    }
    if (groups.length < MOST_GROUPS_OF_SHAPE)
      groups.push({ values: new Map(values.map(({ at, value }) => [at, value])), members: [index], alike: 0 })
  }

  /** Returns the groups of two and more, as numbers of the sections in the order they were added; those with most in common first. */
  groups(): readonly (readonly number[])[] {
    const found = [...this.#byShape.values()].flat().filter(({ members }) => members.length > 1)
    const common = ({ members, alike }: Growing): number => (members.length * alike) / (members.length - 1)
    return found
      .sort((a, b) => common(b) - common(a) || a.members[0]! - b.members[0]!)
      .map(({ members }) => members)
  }
}

/** Of the values that either has, the share that both have the same. */
function shareOfSame(values: ReadonlyMap<string, string>, others: readonly ShapedValue[]): number {
  const same = others.filter(({ at, value }) => values.get(at) === value).length
  const shared = others.filter(({ at }) => values.has(at)).length
  const all = values.size + others.length - shared
  return all === 0 ? 1 : same / all
}

/** A section of a page. */
export interface SectionOf {
  readonly page: Page
  readonly id: NodeId
}

/** A value in which sections differ, and what each has; undefined where it has none. */
export interface SectionDifference {
  readonly name: string
  readonly values: readonly (Json | undefined)[]
}

/** What sections of one shape are made into. */
export interface JoinedSections {
  /** A component with a field for each value in which they differ; the same wherever it is shown where they differ in none. */
  readonly part: Page
  /** What an instance in the place of each fills in. */
  readonly values: readonly JsonObject[]
  readonly differences: readonly SectionDifference[]
}

/**
 * Makes one part of sections of one shape. Undefined where their shapes are not equal, or where they differ in more values than
 * a component has fields.
 */
export function joinSections(
  sections: readonly SectionOf[],
  registry: Registry,
  newId: NewId,
): JoinedSections | undefined {
  const [first] = sections
  if (!first) return undefined
  const { shape } = sectionShape(first.page, first.id, registry)
  if (sections.some(({ page, id }) => sectionShape(page, id, registry).shape !== shape)) return undefined
  const lists = sections.map(({ page, id }) => subtreeIds(page, id))
  const ids = lists[0]!.map(() => newId())
  const rank = new Map(lists[0]!.map((id, i) => [id, ids[i]!]))
  const nodes: Record<NodeId, PageNode> = {}
  const fields: ComponentField[] = []
  const differences: SectionDifference[] = []
  lists[0]!.forEach((own, i) => {
    const all = sections.map(({ page }, n) => getNode(page, lists[n]![i]!))
    const node = copyOf(getNode(first.page, own), rank)
    const kind = getKind(registry, node.kind)
    const kept = { content: { ...node.content }, look: { ...node.look } } as Record<
      'content' | 'look',
      Record<string, Json>
    >
    for (const { key, of } of fillable(kind)) {
      const part = of ?? 'content'
      const values = all.map((one) => one[part][key])
      if (values.every((value) => sameJson(value, values[0]))) continue
      const field = newField(fields, { node: ids[i]!, key, ...(of ? { of } : {}) }, kind, newId)
      fields.push(field)
      differences.push({ name: field.name, values })
      // An instance can't say that it has none: so the part has none.
      if (values.includes(undefined)) delete kept[part][key]
    }
    nodes[ids[i]!] = { ...node, ...kept }
  })
  if (fields.length > MOST_COMPONENT_FIELDS) return undefined
  const root = newId()
  nodes[root] = newNode(getKind(registry, 'shared-sections'), { slots: { blocks: [ids[0]!] } })
  const document: Page = { format: PAGE_FORMAT, root, nodes }
  return {
    part: fields.length === 0 ? document : withFields(document, fields),
    values: sections.map((_one, n) => filledBy(fields, differences, n)),
    differences,
  }
}

function copyOf(node: PageNode, rank: ReadonlyMap<NodeId, NodeId>): PageNode {
  const slots = Object.entries(node.slots).map(([slot, children]) => [
    slot,
    children.map((id) => rank.get(id)!),
  ])
  return { ...node, slots: Object.fromEntries(slots) as PageNode['slots'] }
}

function filledBy(
  fields: readonly ComponentField[],
  differences: readonly SectionDifference[],
  n: number,
): JsonObject {
  const said = fields.flatMap(({ id }, i) => {
    const value = differences[i]!.values[n]
    return value === undefined ? [] : [[id, value] as const]
  })
  return Object.fromEntries(said)
}

/** A page with an instance of a part in the place of a section. */
export function withInstanceAt(
  page: Page,
  id: NodeId,
  { part, values }: { readonly part: string; readonly values: JsonObject },
  registry: Registry,
): Page {
  const gone = new Set(subtreeIds(page, id))
  const kept = Object.fromEntries(Object.entries(page.nodes).filter(([one]) => !gone.has(one))) as Nodes
  const instance = newNode(getKind(registry, 'linked-sections'), { content: { part } })
  const filled = Object.keys(values).length > 0 ? { ...instance, values } : instance
  // It stands where the section did, under the same id: links to a place on the page are by names.
  return { ...page, nodes: { ...kept, [id]: filled } }
}
