import { gridReports } from '../resolve/grid-report.ts'
import { describeNode } from '../edits/describe.ts'
import { sizeWord } from '../sizes/site-sizes.ts'
import type { Check } from './define-check.ts'

/** Blocks of a grid that are read aloud, and tabbed through, in another order than the one in which eyes read them. */
export const readingOrder: Check = {
  rule: 'reading-order',
  severity: 'warning',
  source: 'WCAG 2.2, 1.3.2 Meaningful Sequence and 2.4.3 Focus Order',
  find: ({ page, registry, site: { look } }) =>
    gridReports(page, registry, look).flatMap(({ written, sizes }) => {
      for (const [size, { order }] of Object.entries(sizes)) {
        const shown = written.filter((id) => order.includes(id))
        const at = shown.findIndex((id, i) => id !== order[i])
        if (at < 0) continue
        const what = describeNode(page, order[at]!, registry)
        const before = describeNode(page, shown[at]!, registry)
        return [
          {
            nodeId: order[at]!,
            message: `On ${sizeWord(size, look)} screens ${what} is seen before ${before}, and read aloud after it: move it before that in the spine`,
          },
        ]
      }
      return []
    }),
}
