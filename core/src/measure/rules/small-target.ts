import { told, type GullyRule } from '../define-rule.ts'
import { seenOf } from '../geometry.ts'
import type { Box } from '../measured-page.ts'

const LEAST = 24
/** Browsers lay out in 64ths of a px: half of one is no difference. */
const NEARLY = 1 / 128

interface Target {
  readonly id: string
  readonly name: string
  readonly box: Box
  readonly isSmall: boolean
}

/** Something to press that is too small, and so near to another that the wrong one is pressed. */
export const smallTarget: GullyRule = {
  rule: 'small-target',
  title: 'Small target',
  severity: 'error',
  source: 'WCAG 2.2, 2.5.8 Target Size (Minimum)',
  find: ({ band }) => {
    const targets = band.elements.flatMap(({ id, target, box }, index): Target[] => {
      const seen = target && !target.isInline ? seenOf(band, index, box) : undefined
      if (!target || !seen) return []
      const isSmall = Math.min(seen.width, seen.height) < LEAST - NEARLY
      return [{ id, name: target.name, box: seen, isSmall }]
    })
    return targets
      .filter(({ isSmall }) => isSmall)
      .flatMap((one) => {
        const near = targets.find((other) => other !== one && isTooNear(one, other))
        if (!near) return []
        const { width, height } = one.box
        const what = one.name === '' ? 'The target' : `“${one.name}”`
        return [
          {
            id: one.id,
            amount: LEAST - Math.min(width, height),
            why: `${what} is ${told(width)} wide and ${told(height)} high, and another target is close to it`,
          },
        ]
      })
  },
}

/** Whether a circle of 24 px on a small target meets another target, or the circle of another small one. */
function isTooNear(one: Target, other: Target): boolean {
  const middle = middleOf(one.box)
  const there = middleOf(other.box)
  if (other.isSmall && Math.hypot(middle.x - there.x, middle.y - there.y) < LEAST - NEARLY) return true
  // Also of a small one: what is low may be long.
  const { x, y, width, height } = other.box
  const dx = Math.max(x - middle.x, 0, middle.x - (x + width))
  const dy = Math.max(y - middle.y, 0, middle.y - (y + height))
  return Math.hypot(dx, dy) < LEAST / 2 - NEARLY
}

function middleOf({ x, y, width, height }: Box) {
  return { x: x + width / 2, y: y + height / 2 }
}
