import { told, type GullyRule } from '../define-rule.ts'
import { isInScrolled, NOTHING, parentOf, rightOf } from '../geometry.ts'

/** Half a px of rounding on each side. */
const TOLERANCE = 1

/** A block that is wider than the place it stands in. */
export const fixedWidth: GullyRule = {
  rule: 'fixed-width',
  title: 'Wider than its place',
  severity: 'error',
  source: 'WCAG 2.2, 1.4.10 Reflow',
  find: ({ band }) =>
    band.elements.flatMap((element, index) => {
      const around = parentOf(band, element)
      if (
        !around ||
        element.isAbsolute ||
        element.isOutdented ||
        around.isScrolled ||
        around.clips !== 'none'
      )
        return []
      if (isInScrolled(band, index)) return []
      const room = around.content.right - around.content.left
      const past = element.box.width - room
      const isOut = rightOf(element.box) > band.width + NOTHING || element.box.x < -NOTHING
      // What is wider than the screen as well is told by the rule for that.
      if (past <= TOLERANCE || room <= 0 || isOut) return []
      const why = `Is ${told(element.box.width)} wide, in a place of ${told(room)}`
      return [{ id: element.id, amount: past, why }]
    }),
}
