import { layoutOf } from '../site/layouts.ts'
import { getNode } from '../page/page.ts'
import type { Check } from './define-check.ts'

/** A field that the page's template asks for and that is empty. */
export const missingField: Check = {
  rule: 'missing-field',
  severity: 'error',
  source: 'common practice, no source',
  find: ({ page }) => {
    const { content } = getNode(page, page.root)
    return layoutOf(content).fields.flatMap(({ key, title, required }) => {
      const value = content[key]
      const isEmpty = typeof value !== 'string' || value.trim() === ''
      return required && isEmpty
        ? [{ nodeId: page.root, message: `The page’s field “${title}” is empty` }]
        : []
    })
  },
}
