/** Valid pages over all kinds, and edits for a page: mostly ones that fit, some that do not. */
import fc from 'fast-check'
import { defaultRegistry as registry } from '../../src/blocks/default-registry.ts'
import { partSchema, slotAllows, type BlockDefinition } from '../../src/blocks/define-block.ts'
import { fieldsOfWords } from '../../src/blocks/prompts.ts'
import { NODE_PARTS } from '../../src/blocks/registry.ts'
import { duplicateEdit, stepMoveEdit } from '../../src/edits/compose.ts'
import type { Edit, ValueAddress } from '../../src/edits/edit-shapes.ts'
import { idFrom } from '../../src/page/id.ts'
import type { NodeId, Page, PageNode } from '../../src/page/page.ts'
import { subtreeIds } from '../../src/page/walk.ts'
import { fieldAndValue, PLAIN, valuesFor } from './value.ts'

/** A node with what is inside it, before it has an id. */
interface Sketch {
  readonly node: Omit<PageNode, 'slots'>
  readonly slots: Readonly<Record<string, readonly Sketch[]>>
}

const known = new Map<string, fc.Arbitrary<Sketch>>()

/** Made once for each kind and depth: building an arbitrary costs more than drawing from it. */
function sketch(definition: BlockDefinition, depth: number): fc.Arbitrary<Sketch> {
  const key = `${definition.kind} ${depth}`
  const made = known.get(key) ?? makeSketch(definition, depth)
  known.set(key, made)
  return made
}

function makeSketch(definition: BlockDefinition, depth: number): fc.Arbitrary<Sketch> {
  const sizes = fc.record(
    {
      base: valuesFor(definition.arrangement),
      medium: valuesFor(definition.arrangement).filter(notEmpty),
      narrow: valuesFor(definition.arrangement).filter(notEmpty),
    },
    { ...PLAIN, requiredKeys: ['base'] },
  )
  const arrangement =
    Object.keys(definition.arrangement.properties).length > 0 ? sizes : fc.constant({ base: {} })
  const node = fc.record(
    {
      kind: fc.constant(definition.kind),
      content: valuesFor(definition.content),
      look: valuesFor(definition.look),
      sizes: arrangement,
      name: fc.constantFrom('Opening hours', 'A name'),
      lock: fc.constantFrom('all' as const, 'text' as const),
      prompts: promptsFor(definition),
    },
    { ...PLAIN, requiredKeys: ['kind', 'content', 'look', 'sizes'] },
  ) as fc.Arbitrary<Sketch['node']>
  const slots = Object.fromEntries(
    Object.entries(definition.slots).map(([slot, { allow }], at) => {
      // The first slot of a kind holds most; what stands in others is kept small, or every page would be huge.
      const below = at === 0 ? depth : Math.min(depth, 1)
      const kinds = [...registry.kinds.values()].filter(
        (kind) => slotAllows({ allow }, kind) && (below > 0 || Object.keys(kind.slots).length === 0),
      )
      const child = kinds.length > 0 ? fc.oneof(...kinds.map((kind) => sketch(kind, below - 1))) : undefined
      return [slot, child ? fc.array(child, { maxLength: at === 0 ? 2 : 1 }) : fc.constant([])]
    }),
  )
  return fc.record({ node, slots: fc.record(slots, PLAIN) }, PLAIN)
}

function promptsFor(definition: BlockDefinition): fc.Arbitrary<NonNullable<PageNode['prompts']>> {
  const fields = fc.subarray(fieldsOfWords(definition))
  return fields.map((some) => Object.fromEntries(some.map((field) => [field, `Say ${field} here`])))
}

function notEmpty(value: object): boolean {
  return Object.keys(value).length > 0
}

/** Counted ids, so that a page made from one seed is always the same. */
export function countingIds(prefix = 'n'): () => NodeId {
  let count = 0
  return () => `${prefix}${(count++).toString(36)}`
}

function build(root: Sketch): { rootId: NodeId; nodes: Record<NodeId, PageNode> } {
  const newId = countingIds()
  const nodes: Record<NodeId, PageNode> = {}
  const add = ({ node, slots }: Sketch): NodeId => {
    const id = newId()
    const children = Object.entries(slots).map(([slot, list]) => [slot, list.map(add)])
    nodes[id] = { ...node, slots: Object.fromEntries(children) as PageNode['slots'] }
    return id
  }
  return { rootId: add(root), nodes }
}

/** Any valid page, up to four levels deep. */
export const anyPage: fc.Arbitrary<Page> = sketch(registry.kinds.get('page')!, 3).map((root) => {
  const { rootId, nodes } = build(root)
  return { format: 4, root: rootId, nodes }
})

/** A page that holds at least one block of the kind. */
export function pageWith(definition: BlockDefinition): fc.Arbitrary<Page> {
  const inner = sketch(definition, 1)
  const section = registry.kinds.get('section')!
  const holder = [...registry.kinds.values()].find(
    (kind) =>
      // What fills a slot of a part stands in instances alone.
      !kind.fillsSlot && Object.values(kind.slots).some((slot) => slot.allow.includes(definition.kind)),
  )
  const lock =
    definition.group === 'item' && holder
      ? fc
          .record({ outer: sketch(holder, 0), inner })
          .map(({ outer, inner: item }): Sketch => ({ ...outer, slots: { [slotOf(holder)]: [item] } }))
      : inner
  const wrapped =
    definition.group === 'section'
      ? inner
      : fc
          .record({ outer: sketch(section, 0), inner: lock })
          .map(({ outer, inner: block }): Sketch => ({ ...outer, slots: { blocks: [block] } }))
  const page = registry.kinds.get('page')!
  if (definition.group === 'root') return definition.kind === 'page' ? anyPage : rootOnly(inner)
  return fc.record({ root: sketch(page, 0), child: wrapped }).map(({ root, child }) => {
    const { rootId, nodes } = build({ ...root, slots: { ...root.slots, sections: [child] } })
    return { format: 4, root: rootId, nodes }
  })
}

function slotOf(definition: BlockDefinition): string {
  return Object.keys(definition.slots)[0]!
}

function rootOnly(root: fc.Arbitrary<Sketch>): fc.Arbitrary<Page> {
  return root.map((one) => {
    const { rootId, nodes } = build(one)
    return { format: 4, root: rootId, nodes }
  })
}

/** `branch` starts the ids of what is added, so that two branches never make the same. Any edit for this page: of every name there is, mostly fitting, some aimed at nothing, at the wrong place or at itself. */
export function editFor(page: Page, branch = ''): fc.Arbitrary<Edit> {
  const ids = subtreeIds(page, page.root)
  const anyId = fc.oneof(
    { weight: 12, arbitrary: fc.constantFrom(...ids) },
    { weight: 1, arbitrary: fc.constantFrom('nosuch', 'constructor') },
  )
  const index = fc.integer({ min: -1, max: 5 })
  const slot = fc.constantFrom('blocks', 'sections', 'none', 'panels', 'columns', 'pictures', 'main', 'aside')
  const steps = ids.flatMap((id) => stepMoveEdit(page, id, 'up') ?? [])
  return fc.oneof(
    setFor(page),
    fc.record({ edit: fc.constant('remove' as const), nodeId: anyId }),
    fc.record({
      edit: fc.constant('move' as const),
      nodeId: anyId,
      toParentId: anyId,
      toSlot: slot,
      toIndex: index,
    }),
    steps.length > 0 ? fc.constantFrom(...steps) : setFor(page),
    insertFor(anyId, slot, index, branch),
    fc
      .record({ id: fc.constantFrom(...ids), salt: fc.uint8Array({ minLength: 10, maxLength: 10 }) })
      .map(({ id, salt }): Edit => {
        const make = countingIds(`${branch}${idFrom(salt)}x`)
        return duplicateEdit(page, id, make) ?? { edit: 'remove', nodeId: id }
      }),
  )
}

function setFor(page: Page): fc.Arbitrary<Edit> {
  return fc
    .record({
      nodeId: fc.constantFrom(...Object.keys(page.nodes)),
      part: fc.constantFrom(...NODE_PARTS, 'name' as const, 'lock' as const),
      // Also one between two that the site has, as it may have had before.
      size: fc.constantFrom('base', 'g', 'medium', 'narrow'),
    })
    .chain(({ nodeId, part, size }): fc.Arbitrary<Edit> => {
      if (part === 'name')
        return fc
          .constantFrom('Named', '')
          .map((value): Edit => ({ edit: 'set', nodeId, at: ['name'], ...(value ? { value } : {}) }))
      if (part === 'lock')
        return fc
          .constantFrom('all', 'text', 'never', '')
          .map((value): Edit => ({ edit: 'set', nodeId, at: ['lock'], ...(value ? { value } : {}) }))
      const definition = registry.kinds.get(page.nodes[nodeId]!.kind)!
      return fieldAndValue(partSchema(definition, part)).map(({ key, ...rest }): Edit => {
        const at: ValueAddress = part === 'sizes' ? ['sizes', size, key] : [part, key]
        return { edit: 'set', nodeId, at, ...rest }
      })
    })
}

function insertFor(
  parentId: fc.Arbitrary<NodeId>,
  slot: fc.Arbitrary<string>,
  index: fc.Arbitrary<number>,
  branch: string,
): fc.Arbitrary<Edit> {
  const kinds = [...registry.kinds.values()]
  return fc
    .record({
      root: fc.oneof(...kinds.map((kind) => sketch(kind, 1))),
      parentId,
      slot,
      index,
      salt: fc.uint8Array({ minLength: 10, maxLength: 10 }),
    })
    .map(({ root, salt, ...target }): Edit => {
      const built = build(root)
      const prefix = `${branch}${idFrom(salt)}y`
      const rename = (id: NodeId) => prefix + id
      const nodes = Object.fromEntries(
        Object.entries(built.nodes).map(([id, node]) => [
          rename(id),
          {
            ...node,
            slots: Object.fromEntries(
              Object.entries(node.slots).map(([name, children]) => [name, children.map(rename)]),
            ),
          },
        ]),
      )
      return { edit: 'insert', ...target, rootId: rename(built.rootId), nodes }
    })
}
