import { sameJson } from '../page/json.ts'
import { getNode, type NodeId, type Page } from '../page/page.ts'
import type { Check, Found } from './define-check.ts'

/** Two items beside each other that say the same: most likely a duplicate that somebody meant to change. */
export const unchangedCopy: Check = {
  rule: 'unchanged-copy',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ page, nodes, registry }) =>
    nodes.flatMap(({ node }) =>
      Object.values(node.slots).flatMap((children) => {
        const found: Found[] = []
        children.forEach((id, i) => {
          const kind = registry.kinds.get(getNode(page, id).kind)
          const isCopy = children.slice(0, i).some((other) => saysTheSame(page, other, id))
          if (kind?.group === 'item' && kind.isEmpty && isCopy) {
            const message = `This ${kind.title.toLowerCase()} says the same as another one here`
            found.push({ nodeId: id, message })
          }
        })
        return found
      }),
    ),
}

function saysTheSame(page: Page, a: NodeId, b: NodeId): boolean {
  const [one, two] = [getNode(page, a), getNode(page, b)]
  if (one.kind !== two.kind || !sameJson(one.content, two.content)) return false
  const [inOne, inTwo] = [Object.values(one.slots).flat(), Object.values(two.slots).flat()]
  return inOne.length === inTwo.length && inOne.every((id, i) => saysTheSame(page, id, inTwo[i]!))
}
