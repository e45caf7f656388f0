import { describeNode } from '../edits/describe.ts'
import { layoutOf } from '../site/layouts.ts'
import { openFields } from '../site/open-fields.ts'
import { getNode } from '../page/page.ts'
import type { Check } from './define-check.ts'

/** A field that the page's template asks for and that is empty. */
export const missingField: Check = {
  rule: 'missing-field',
  severity: 'error',
  source: 'common practice, no source',
  find: ({ page, written, registry }) => {
    const { content } = getNode(page, page.root)
    const ofLayout = layoutOf(content).fields.flatMap(({ key, title, required }) => {
      const value = content[key]
      const isEmpty = typeof value !== 'string' || value.trim() === ''
      return required && isEmpty
        ? [{ nodeId: page.root, message: `The page’s field “${title}” is empty` }]
        : []
    })
    const ofTemplate = openFields(written, registry).map(({ node, title }) => ({
      nodeId: node,
      message:
        node === page.root
          ? `The page’s template asks for “${title}”, which is empty`
          : `The page’s template asks for words here: ${describeNode(written, node, registry)} is empty`,
    }))
    return [...ofLayout, ...ofTemplate]
  },
}
