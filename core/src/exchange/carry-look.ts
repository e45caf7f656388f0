/** Carrying documents from one look to another: names that the other look has not stand for what comes nearest there. */
import { partSchema } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { FieldSchema } from '../kit/fields.ts'
import type { Look, Surface } from '../look/look.ts'
import { nearestStep, nearestSurface } from '../look/nearest.ts'
import { isOwnColour, isOwnMeasure } from '../look/own-values.ts'
import type { JsonObject } from '../page/json.ts'
import type { NodeId, Page, PageNode } from '../page/page.ts'
import { SIZE_KEYS } from '../sizes/cascade.ts'

/** A name of a colour, or a custom one, that documents use, with what it is in their look and what it is to be here. */
export interface CarriedSurface {
  readonly name: string
  /** As it is called to people; a custom colour is its own name. */
  readonly title: string
  readonly background: string
  /** The name of the look here that stands for it. */
  readonly here: string
}

/** The colours that documents use which are not the very same ones here, and by what each is to be replaced. */
export function carriedSurfaces(
  documents: readonly Page[],
  from: Look,
  to: Look,
  registry: Registry,
): readonly CarriedSurface[] {
  const names = new Set<string>()
  for (const document of documents)
    for (const node of Object.values(document.nodes))
      withValues(node, registry, ({ control }, value) => {
        if (control === 'surface') names.add(value)
        return value
      })
  return [...names].sort().flatMap((name): CarriedSurface[] => {
    const isOwn = isOwnColour(name)
    const surface = isOwn ? { title: name, background: name } : own(from.surfaces, name)
    if (!surface) return []
    const { title, background } = surface
    if (isOwn && to.ownValues === true) return []
    const there = isOwn ? undefined : own(to.surfaces, name)
    if (there && sameSurface(there, surface as Surface)) return []
    // A name that both looks have says what it is for, whatever its colour.
    const here = there ? name : nearestSurface(to, surface)
    return [{ name, title, background, here }]
  })
}

function own<T>(record: Readonly<Record<string, T>>, key: string): T | undefined {
  return Object.hasOwn(record, key) ? record[key] : undefined
}

function sameSurface(one: Surface, other: Surface): boolean {
  return (Object.keys(one) as (keyof Surface)[]).every((key) => key === 'title' || one[key] === other[key])
}

/**
 * A document in another look: colours by the names given, and custom measures by the nearest steps where the look does not
 * allow them. Unchanged nodes are the same objects.
 */
export function inLook(
  document: Page,
  to: Look,
  surfaces: Readonly<Record<string, string>>,
  registry: Registry,
): Page {
  const nodes: Record<NodeId, PageNode> = {}
  for (const [id, node] of Object.entries(document.nodes))
    nodes[id] = withValues(node, registry, ({ control, scale }, value) => {
      if (control === 'surface') return own(surfaces, value) ?? value
      if (control === 'step' && scale && isOwnMeasure(value) && to.ownValues !== true)
        return nearestStep(to, scale, Number.parseInt(value, 10))
      return value
    })
  return { ...document, nodes }
}

/** A node with what `change` gives for each word of its look and its arrangement. */
function withValues(
  node: PageNode,
  registry: Registry,
  change: (field: FieldSchema, value: string) => string,
): PageNode {
  const kind = getKind(registry, node.kind)
  const changed = (values: JsonObject, properties: Readonly<Record<string, FieldSchema>>): JsonObject => {
    let isSame = true
    const entries = Object.entries(values).map(([key, value]) => {
      const field = properties[key]
      const next = field && typeof value === 'string' ? change(field, value) : value
      isSame &&= next === value
      return [key, next] as const
    })
    return isSame ? values : Object.fromEntries(entries)
  }
  const look = changed(node.look, partSchema(kind, 'look').properties)
  let sizes = node.sizes
  for (const size of SIZE_KEYS) {
    const values = sizes[size]
    const next = values && changed(values, kind.arrangement.properties)
    if (next !== values) sizes = { ...sizes, [size]: next }
  }
  return look === node.look && sizes === node.sizes ? node : { ...node, look, sizes }
}
