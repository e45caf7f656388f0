import type { Facts } from '../blocks/define-block.ts'
import type { Check } from './define-check.ts'

const DECORATED_LINK =
  'This picture is a link, but it is marked as decorative, so the link has no name: give it alternative text'

/** A heading, link, button, text or list item without words, and a picture block without a picture. */
export const emptyWords: Check = {
  rule: 'empty-words',
  severity: 'error',
  source: 'WCAG 2.2, 2.4.6 Headings and Labels, 2.4.4 Link Purpose and 4.1.2 Name, Role, Value',
  find: ({ nodes }) =>
    nodes.flatMap(({ id, facts }) => [
      ...(facts.empty ?? []).map((what) => ({ nodeId: id, message: `This ${what} is empty` })),
      ...(facts.links ?? [])
        .filter(({ words, isPicture }) => words.trim() === '' && !isPicture && !facts.empty)
        .map(() => ({ nodeId: id, message: 'A link here has no words' })),
      ...(isDecoratedLink(facts) ? [{ nodeId: id, message: DECORATED_LINK }] : []),
    ]),
}

function isDecoratedLink({ links = [], pictures = [] }: Facts): boolean {
  return links.some(({ isPicture }) => isPicture) && pictures.some(({ decoration }) => decoration)
}
