import { childIds } from '../page/walk.ts'
import type { Check } from './define-check.ts'

/** An item with nothing in it: it is never published, and its editor should know. */
export const emptyItem: Check = {
  rule: 'empty-item',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ nodes, registry }) =>
    nodes.flatMap(({ id, node }) => {
      const kind = registry.kinds.get(node.kind)
      return kind?.isEmpty?.(node.content, childIds(node).length > 0)
        ? [{ nodeId: id, message: `This ${kind.title.toLowerCase()} is empty and will not be published` }]
        : []
    }),
}
