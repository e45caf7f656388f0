import type { Check, Found } from './define-check.ts'

/** Headings go down one level at a time; they may come up by any number. */
export const headingLevels: Check = {
  rule: 'heading-levels',
  severity: 'warning',
  source: 'WCAG 2.2, 1.3.1 Info and Relationships; technique G141',
  isOfPage: true,
  find({ nodes }) {
    const found: Found[] = []
    let last: number | undefined
    for (const { id, facts } of nodes) {
      if (!facts.heading) continue
      const { level } = facts.heading
      if (last !== undefined && level > last + 1) {
        found.push({
          nodeId: id,
          message: `A heading of level ${level} follows one of level ${last}: level ${last + 1} is skipped`,
        })
      }
      last = level
    }
    return found
  },
}
