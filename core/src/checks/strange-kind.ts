import { findPlace } from '../page/walk.ts'
import { layoutRefusal } from '../site/layouts.ts'
import { takesRefusal } from '../site/template-rules.ts'
import type { Check } from './define-check.ts'

/** A block that the page's template has no room for. */
export const strangeKind: Check = {
  rule: 'strange-kind',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ page, nodes, registry }) =>
    nodes.flatMap(({ id, node }) => {
      if (id === page.root) return []
      const place = findPlace(page, id)
      const message =
        layoutRefusal(page, node.kind, registry) ?? (place && takesRefusal(page, place, node.kind, registry))
      return message ? [{ nodeId: id, message }] : []
    }),
}
