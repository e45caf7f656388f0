import { CONTENT_ID } from '../kit/ids.ts'
import type { Check, Found } from './define-check.ts'

/** Two places with one name: a link can only lead to the first. */
export const sameAnchor: Check = {
  rule: 'same-anchor',
  severity: 'error',
  source: 'HTML standard, "The id attribute": must be unique amongst all the IDs in the element\'s tree',
  find({ nodes }) {
    const seen = new Set([CONTENT_ID])
    const found: Found[] = []
    for (const { id, facts } of nodes) {
      if (facts.anchor === undefined) continue
      if (seen.has(facts.anchor))
        found.push({ nodeId: id, message: `Another place is already called “${facts.anchor}”` })
      seen.add(facts.anchor)
    }
    return found
  },
}
