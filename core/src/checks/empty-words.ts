import type { Check } from './define-check.ts'

/** A heading, link, button, text or list item without words, and a picture block without a picture. */
export const emptyWords: Check = {
  rule: 'empty-words',
  severity: 'error',
  source: 'WCAG 2.2, 2.4.6 Headings and Labels, 2.4.4 Link Purpose and 4.1.2 Name, Role, Value',
  find: ({ nodes }) =>
    nodes.flatMap(({ id, facts }) => [
      ...(facts.empty ?? []).map((what) => ({ nodeId: id, message: `This ${what} is empty` })),
      ...(facts.links ?? [])
        .filter(({ words }) => words.trim() === '' && !facts.empty)
        .map(() => ({ nodeId: id, message: 'A link here has no words' })),
    ]),
}
