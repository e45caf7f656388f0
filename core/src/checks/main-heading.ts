import type { Check } from './define-check.ts'

/** A page has one heading of level 1, which says what it is about, and begins with it or with one below it. */
export const mainHeading: Check = {
  rule: 'main-heading',
  severity: 'warning',
  source:
    'WCAG 2.2, 2.4.6 Headings and Labels; technique H42; axe rules page-has-heading-one and heading-order',
  isOfPage: true,
  find({ nodes, registry }) {
    const headings = nodes.flatMap(({ id, facts }) => (facts.heading ? [{ id, ...facts.heading }] : []))
    const main = headings.filter(({ level }) => level === 1)
    const [first] = headings
    // An empty page lacks everything, and nobody needs to be told so.
    const hasText = nodes.some(({ node }) =>
      registry.kinds
        .get(node.kind)
        ?.words(node.content)
        .some((one) => one.trim() !== ''),
    )
    return [
      ...(main.length === 0 && hasText ? [{ message: 'The page has no main heading (level 1)' }] : []),
      ...main.slice(1).map(({ id, text }) => ({
        nodeId: id,
        message: `“${text.trim()}” is a second main heading (level 1): a page has one`,
      })),
      ...(first && first.level > 2
        ? [
            {
              nodeId: first.id,
              message: `The page begins with a heading of level ${first.level}: levels before it are skipped`,
            },
          ]
        : []),
    ]
  },
}
