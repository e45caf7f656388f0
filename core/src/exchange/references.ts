/** What documents refer to by ids, read off as data: for carrying them to where the same things have other ids. */
import type { Registry } from '../blocks/registry.ts'
import { FIELDS_KEY, VARIANTS_KEY, variantsOf } from '../blocks/component-fields.ts'
import { SLOTS_KEY } from '../blocks/component-slots.ts'
import type { Json, JsonObject } from '../page/json.ts'
import type { NodeId, Page, PageNode } from '../page/page.ts'
import { linkedPart } from '../resolve/expand.ts'
import { IGNORED_FIELDS } from '../site/ignored-gullies.ts'
import { TEMPLATE_FIELDS } from '../site/template-rules.ts'

export type ReferredThing = 'page' | 'picture' | 'file' | 'part'

/** Gives the id by which a thing is known elsewhere; the same id where it is known by no other. */
export type Renamed = (thing: ReferredThing, id: string) => string

/**
 * A document with the ids of all that it refers to renamed. Links and pictures are told by their shapes, which are the
 * same wherever they stand: in formatted text, and in what instances fill in. Which template a page was made from is left out. Unchanged nodes are the same objects.
 */
export function withRenamed(document: Page, registry: Registry, rename: Renamed): Page {
  const nodes: Record<NodeId, PageNode> = {}
  for (const [id, node] of Object.entries(document.nodes)) nodes[id] = renamedNode(node, registry, rename)
  return { ...document, nodes }
}

function renamedNode(node: PageNode, registry: Registry, rename: Renamed): PageNode {
  const part = linkedPart(node, registry)
  const found = renamedContent(node, rename)
  const other = part === undefined ? part : rename('part', part)
  const content = other === part || other === undefined ? found : { ...found, part: other }
  const look = renamedFields(node.look, rename)
  const values = node.values && renamedFields(node.values, rename)
  if (content === node.content && look === node.look && values === node.values) return node
  return { ...node, content, look, ...(values ? { values } : {}) }
}

/** What a node says. The fields, slots and variants of a component have ids of their own, which name no pictures. */
function renamedContent({ content: given }: PageNode, rename: Renamed): JsonObject {
  const content = withoutMadeFrom(given)
  const declared = DECLARED.filter((key) => content[key] !== undefined)
  if (declared.length === 0) return renamedFields(content, rename)
  const said = Object.fromEntries(Object.entries(content).filter(([key]) => !declared.includes(key)))
  const before = variantsOf({ content })
  const after = before.map((one) => {
    const values = renamedFields(one.values, rename)
    return values === one.values ? one : { ...one, values }
  })
  const next = renamedFields(said, rename)
  if (next === said && after.every((one, i) => one === before[i])) return content
  const kept = declared.map((key) => [key, key === VARIANTS_KEY ? (after as unknown as Json) : content[key]!])
  return { ...next, ...(Object.fromEntries(kept) as JsonObject) }
}

/** Each site counts the versions of its templates for itself, so that which one a page was made from stays behind; its rules are carried. */
function withoutMadeFrom(content: JsonObject): JsonObject {
  if (content.madeFrom === undefined) return content
  const { madeFrom: _madeFrom, ...rest } = content
  return rest
}

/** What the root of a component declares, and that of a template. */
const DECLARED: readonly string[] = [
  FIELDS_KEY,
  SLOTS_KEY,
  VARIANTS_KEY,
  ...Object.keys(TEMPLATE_FIELDS),
  ...Object.keys(IGNORED_FIELDS),
]

function renamedFields(fields: JsonObject, rename: Renamed): JsonObject {
  let isSame = true
  const entries = Object.entries(fields).map(([key, value]) => {
    const next = renamedValue(value, rename)
    isSame &&= next === value
    return [key, next] as const
  })
  return isSame ? fields : Object.fromEntries(entries)
}

function renamedValue(value: Json, rename: Renamed): Json {
  if (typeof value !== 'object' || value === null) return value
  if (isList(value)) {
    const next = value.map((one) => renamedValue(one, rename))
    return next.every((one, i) => one === value[i]) ? value : next
  }
  const key = REFERENCES.find(([name]) => typeof value[name] === 'string')
  if (!key) return renamedFields(value, rename)
  const [name, thing] = key
  const id = value[name] as string
  const next = rename(thing, id)
  return next === id ? value : { ...value, [name]: next }
}

/** The keys by which links and pictures name what they are of; see `SHARED_SCHEMA`. */
const REFERENCES = [
  ['page', 'page'],
  ['file', 'file'],
  ['id', 'picture'],
] as const satisfies readonly (readonly [string, ReferredThing])[]

function isList(value: Json): value is readonly Json[] {
  return Array.isArray(value)
}

/** Everything that a document refers to, each once. */
export function referencesOf(
  document: Page,
  registry: Registry,
): Readonly<Record<ReferredThing, ReadonlySet<string>>> {
  const found = {
    page: new Set<string>(),
    picture: new Set<string>(),
    file: new Set<string>(),
    part: new Set<string>(),
  }
  withRenamed(document, registry, (thing, id) => {
    found[thing].add(id)
    return id
  })
  return found
}
