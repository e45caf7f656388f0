import { quoted, told, type GullyRule } from '../define-rule.ts'
import { isInScrolled, NOTHING, parentOf, rightOf, seenOf } from '../geometry.ts'

const TOLERANCE = 1

/** Something that stands partly outside of what it is in, though it would fit, and words that run out of their block. */
export const outside: GullyRule = {
  rule: 'outside',
  title: 'Runs out of its block',
  severity: 'error',
  source: 'common practice, no source',
  find: ({ band }) =>
    band.elements.flatMap((element, index) => {
      if (isInScrolled(band, index)) return []
      const { id, box, text, clips, isAbsolute } = element
      const lines = (clips === 'none' ? (text?.lines ?? []) : []).flatMap(
        (line) => seenOf(band, index, line) ?? [],
      )
      const ink = Math.max(0, ...lines.map((line) => Math.max(rightOf(line) - rightOf(box), box.x - line.x)))
      if (ink > TOLERANCE && !lines.some((line) => rightOf(line) > band.width + NOTHING || line.x < -NOTHING))
        return [{ id, amount: ink, why: `${quoted(text!.words)} runs ${told(ink)} out of its block` }]
      const around = parentOf(band, element)
      if (
        !around ||
        isAbsolute ||
        element.isOutdented ||
        around.isScrolled ||
        around.clips !== 'none' ||
        around.box.width === 0
      )
        return []
      const past = Math.max(rightOf(box) - rightOf(around.box), around.box.x - box.x)
      const isWider = box.width > around.content.right - around.content.left + TOLERANCE
      if (past <= TOLERANCE || isWider || rightOf(box) > band.width + NOTHING || box.x < -NOTHING) return []
      return [{ id, amount: past, why: `Stands ${told(past)} outside of what it is in` }]
    }),
}
