/** Carrying documents from one look to another: names that the other look has not stand for what comes nearest there. */
import { fieldsOf, schemaOf, VARIANTS_KEY, variantsOf } from '../blocks/component-fields.ts'
import { partSchema } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { FieldSchema } from '../kit/fields.ts'
import type { Look, Surface } from '../look/look.ts'
import { nearestStep, nearestSurface } from '../look/nearest.ts'
import { isOwnColour, isOwnMeasure } from '../look/own-values.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { linkedPart } from '../resolve/expand.ts'
import { sizesSet } from '../sizes/size-keys.ts'

/** A colour that documents use, and the one that stands for it in the look here. */
export interface CarriedSurface {
  /** The name in their look; a custom colour is its own name. */
  readonly name: string
  /** As people call it. */
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
  partOf: PartOf = NO_PARTS,
): readonly CarriedSurface[] {
  const names = new Set<string>()
  for (const document of documents)
    for (const node of Object.values(document.nodes))
      withValues(node, { registry, document, partOf }, ({ control }, value) => {
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
  partOf: PartOf = NO_PARTS,
): Page {
  const nodes: Record<NodeId, PageNode> = {}
  for (const [id, node] of Object.entries(document.nodes))
    nodes[id] = withValues(node, { registry, document, partOf }, ({ control, scale }, value) => {
      if (control === 'surface') return own(surfaces, value) ?? value
      if (control === 'step' && scale && isOwnMeasure(value) && to.ownValues !== true)
        return nearestStep(to, scale, Number.parseInt(value, 10))
      return value
    })
  return { ...document, nodes }
}

/** Gives the parts whose instances documents hold: what those fill in, the fields of the part say. */
export type PartOf = (id: string) => Page | undefined
const NO_PARTS: PartOf = () => undefined

interface Held {
  readonly registry: Registry
  /** The document that a node is of. */
  readonly document: Page
  readonly partOf: PartOf
}

type Change = (field: FieldSchema, value: string) => string

/** A node with what `change` gives for each word of its look and its arrangement, and of the looks that it fills in. */
function withValues(node: PageNode, held: Held, change: Change): PageNode {
  const { registry } = held
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
  for (const size of sizesSet(node)) {
    const values = sizes[size]!
    const next = changed(values, kind.arrangement.properties)
    if (next !== values) sizes = { ...sizes, [size]: next }
  }
  const part = linkedPart(node, registry)
  const document = part === undefined ? undefined : held.partOf(part)
  const values = node.values && document ? filledLooks(node.values, document, registry, changed) : node.values
  const content = withVariants(node, (one) => filledLooks(one, held.document, registry, changed))
  const isSame =
    look === node.look && sizes === node.sizes && values === node.values && content === node.content
  return isSame ? node : { ...node, content, look, sizes, ...(values ? { values } : {}) }
}

/** What is filled in for fields of a part, with the words of its looks changed. */
function filledLooks(
  values: JsonObject,
  part: Page,
  registry: Registry,
  changed: (values: JsonObject, fields: Readonly<Record<string, FieldSchema>>) => JsonObject,
): JsonObject {
  const schemas: Record<string, FieldSchema> = {}
  for (const field of fieldsOf(getNode(part, part.root))) {
    const source = field.of === 'look' ? findNode(part, field.node) : undefined
    const schema = source && schemaOf(field, source, registry)
    if (schema) schemas[field.id] = schema
  }
  return changed(values, schemas)
}

/** What a node says, with the values of its variants changed where it is the root of a component. */
function withVariants({ content }: PageNode, change: (values: JsonObject) => JsonObject): JsonObject {
  const before = variantsOf({ content })
  const after = before.map((one) => {
    const values = change(one.values)
    return values === one.values ? one : { ...one, values }
  })
  const isSame = after.every((one, i) => one === before[i])
  return isSame ? content : { ...content, [VARIANTS_KEY]: after as unknown as Json }
}
