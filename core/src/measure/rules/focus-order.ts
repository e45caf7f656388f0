import type { GullyRule } from '../define-rule.ts'
import { isAbove, isLeftOf, seenOf } from '../geometry.ts'

/** The Tab key goes back to something that is seen earlier. Going through columns one by one is in order. */
export const focusOrder: GullyRule = {
  rule: 'focus-order',
  title: 'Tab order differs',
  severity: 'warning',
  source: 'WCAG 2.2, 2.4.3 Focus Order',
  find: ({ band }) => {
    const targets = band.elements.flatMap(({ id, target, box }, index) => {
      const seen = target && seenOf(band, index, box)
      return seen ? [{ id, name: target.name, box: seen }] : []
    })
    return targets.slice(1).flatMap(({ id, name, box }, i) => {
      const before = targets[i]!
      const isOver = isAbove(box, before.box)
      if (!isOver && !isLeftOf(box, before.box)) return []
      const where = isOver ? 'above' : 'left of'
      return [
        {
          id,
          amount: Math.max(before.box.y - box.y, before.box.x - box.x),
          why: `“${name}” stands ${where} “${before.name}”, and keys come to it afterwards`,
        },
      ]
    })
  },
}
