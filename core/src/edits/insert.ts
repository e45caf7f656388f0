import { validateNodes, validateSlots } from '../blocks/validate-page.ts'
import type { Registry } from '../blocks/registry.ts'
import { findTreeFault } from '../page/assert-page.ts'
import { findNode, getNode } from '../page/page.ts'
import { withNodes } from '../page/with-nodes.ts'
import { listChild } from './children.ts'
import { defineEdit, ID, INDEX, NAME } from './define-edit.ts'
import { describeNode, describePlace } from './describe.ts'
import type { Insert } from './edit-shapes.ts'
import { placingRefusal } from './placing.ts'
import { refuse } from './result.ts'

export const insert = defineEdit<Insert>({
  fields: { parentId: ID, slot: NAME, index: INDEX, rootId: ID, nodes: { type: 'object' } },
  apply(page, edit, registry) {
    const taken = Object.keys(edit.nodes).find((id) => findNode(page, id))
    if (taken !== undefined) return refuse('id-taken', `The page already has a block "${taken}"`, taken)
    const fault = fragmentFault(edit, registry)
    if (fault !== undefined) return refuse('not-valid', fault)
    const refusal = placingRefusal(page, edit, edit.nodes[edit.rootId]!.kind, registry)
    if (refusal) return refusal
    const parent = listChild(getNode(page, edit.parentId), edit.slot, edit.index, edit.rootId)
    const nodes = withNodes(page.nodes, { ...edit.nodes, [edit.parentId]: parent })
    return { ok: true, page: { ...page, nodes }, inverse: { edit: 'remove', nodeId: edit.rootId } }
  },
  sentence(before, edit, registry) {
    return `Added ${describeNode(edit, edit.rootId, registry)} ${describePlace(before, edit, registry)}`
  },
})

/** Why nodes are no valid tree under their root, as a sentence; undefined when they are. Takes anything, never throws. */
export function fragmentFault(
  { rootId, nodes }: Pick<Insert, 'rootId' | 'nodes'>,
  registry: Registry,
): string | undefined {
  if (typeof nodes !== 'object' || nodes === null) return 'What is to be added has no blocks'
  const [problem] = validateNodes(nodes, registry)
  if (problem) return `What is to be added is not valid: ${problem.pointer} ${problem.message}`
  const fault = findTreeFault(nodes, rootId)
  if (fault) return `What is to be added is not one tree: ${fault}`
  return validateSlots(nodes, registry)[0]?.message
}
