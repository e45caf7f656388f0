/**
 * The slots of a component: containers inside a part that each instance fills with blocks of its own. A slot points at one
 * slot of one block, and takes what the kind of that block takes. An instance that has no blocks there shows those of the part.
 */
import type { FieldSchema } from '../kit/fields.ts'
import type { NodeId, Nodes, PageNode } from '../page/page.ts'
import { ID, hiddenList, LONGEST_FIELD_HELP, LONGEST_FIELD_NAME, words } from './component-fields.ts'
import { slotAllows, type SlotDefinition } from './define-block.ts'
import { getKind, type Registry } from './registry.ts'

export interface ComponentSlot {
  /** It stays when the slot is called otherwise. */
  readonly id: string
  readonly name: string
  /** Says to those who fill it what belongs there. */
  readonly help?: string
  /** The block that it is a slot of, and which one. */
  readonly node: NodeId
  readonly slot: string
  /** The kinds that it takes of those that the block takes there; all of those where this is left out. */
  readonly takes?: readonly string[]
}

export const MOST_COMPONENT_SLOTS = 20

/** Where the root of a part has its slots. */
export const SLOTS_KEY = 'slots'
/** Where an instance has what it fills slots with: one node for each. */
export const FILLS_SLOT = 'fills'
/** Where such a node has its blocks. */
export const FILL_BLOCKS = 'blocks'

const KIND_NAME = '^[a-z][a-z-]{0,31}$'

/** The schema of the list of slots. */
export const COMPONENT_SLOTS: FieldSchema = hiddenList(
  'Slots',
  MOST_COMPONENT_SLOTS,
  {
    id: ID,
    name: words(LONGEST_FIELD_NAME),
    node: ID,
    slot: { type: 'string', pattern: '^[a-z][a-zA-Z]{0,31}$' },
  },
  {
    help: words(LONGEST_FIELD_HELP),
    takes: { type: 'array', minItems: 1, maxItems: 40, items: { type: 'string', pattern: KIND_NAME } },
  },
)

/** The slots of a part, by its root. */
export function slotsOf(root: Pick<PageNode, 'content'>): readonly ComponentSlot[] {
  return (root.content[SLOTS_KEY] ?? []) as unknown as readonly ComponentSlot[]
}

/** The id of the slot that a node fills; undefined for all that are no fill. */
export function filledSlot(node: PageNode, registry: Registry): string | undefined {
  return getKind(registry, node.kind).fillsSlot?.(node.content)
}

/** What a slot takes; undefined where its part has no block with that slot any more. */
export function slotTaking(
  { node, slot, takes }: ComponentSlot,
  nodes: Nodes,
  registry: Registry,
): SlotDefinition | undefined {
  const holder = Object.hasOwn(nodes, node) ? nodes[node] : undefined
  const slots = holder && getKind(registry, holder.kind).slots
  const definition = slots && Object.hasOwn(slots, slot) ? slots[slot] : undefined
  if (!definition || !takes) return definition
  const kinds = takes.filter((kind) => {
    const what = registry.kinds.get(kind)
    return what !== undefined && slotAllows(definition, what)
  })
  return { ...definition, allow: kinds }
}

/** What an instance has for a slot of its part. */
export interface SlotFill {
  /** The node that holds it: the first, where two people gave the instance one each. */
  readonly id: NodeId
  /** All blocks in such nodes, in their order. */
  readonly blocks: readonly NodeId[]
}

/** Returns what an instance fills slots with, by the ids of the slots. */
export function fillsOf(instance: PageNode, nodes: Nodes, registry: Registry): ReadonlyMap<string, SlotFill> {
  const fills = new Map<string, SlotFill>()
  for (const id of instance.slots[FILLS_SLOT] ?? []) {
    const slot = filledSlot(nodes[id]!, registry)
    if (slot === undefined) continue
    const known = fills.get(slot)
    const blocks = nodes[id]!.slots[FILL_BLOCKS] ?? []
    fills.set(slot, known ? { ...known, blocks: [...known.blocks, ...blocks] } : { id, blocks })
  }
  return fills
}

/** Returns those of an instance's blocks that a slot takes. Where there are none, the blocks of the part are shown. */
export function shownInSlot(
  { blocks }: Pick<SlotFill, 'blocks'>,
  slot: ComponentSlot,
  {
    nodes,
    partNodes,
    registry,
  }: { readonly nodes: Nodes; readonly partNodes: Nodes; readonly registry: Registry },
): readonly NodeId[] {
  const taking = slotTaking(slot, partNodes, registry)
  if (!taking) return []
  const taken = blocks.filter((id) => slotAllows(taking, getKind(registry, nodes[id]!.kind)))
  return taking.max === undefined ? taken : taken.slice(0, taking.max)
}
