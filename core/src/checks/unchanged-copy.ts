import { getKind } from '../blocks/registry.ts'
import type { Json } from '../page/json.ts'
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
        const said = new Set<string>()
        for (const id of children) {
          const kind = getKind(registry, getNode(page, id).kind)
          if (kind.group !== 'item' || !kind.isEmpty) continue
          const all = allOf(page, id)
          if (said.has(all)) {
            const message = `This ${kind.title.toLowerCase()} says the same as another one here`
            found.push({ nodeId: id, message })
          }
          said.add(all)
        }
        return found
      }),
    ),
}

/** All that a block and those in it say, as one string: equal for two that say the same. */
function allOf(page: Page, id: NodeId): string {
  const { kind, content, slots } = getNode(page, id)
  return JSON.stringify([
    kind,
    JSON.stringify(content, sorted),
    ...Object.values(slots)
      .flat()
      .map((child) => allOf(page, child)),
  ])
}

/** The order of an object's keys says nothing. */
function sorted(_key: string, value: Json): Json {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value
  return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
}
