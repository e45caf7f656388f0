import { defineBlock } from '../define-block.ts'
import { choice, fields, line } from '../../kit/fields.ts'
import { menuElement, menuRules } from '../../kit/menu.ts'

interface Content {
  readonly label: string
}
interface LookValues {
  readonly depth?: '1' | '2'
}

/** The site's navigation as a block: a line of links on a wide screen, behind a button on a narrow one. */
export const menu = defineBlock<Content, LookValues>({
  kind: 'menu',
  version: 1,
  title: 'Navigation menu',
  about: 'The navigation of the site; a menu button on narrow screens',
  synonyms: ['navigation', 'nav', 'links'],
  group: 'flow',
  purpose: 'links',
  isDerived: true,
  content: fields({ label: line('Accessible name', 'Menu') }, ['label']),
  look: fields({ depth: choice('Levels', '1', { 1: 'One', 2: 'Two' }) }),
  rules: menuRules('.menu'),
  arrange: () => ({}),
  usesSpot: ['bare'],
  render: ({ id, content, look }, context) =>
    menuElement(context.navigation, {
      className: 'menu',
      id: `menu-${id}`,
      label: content.label || 'Menu',
      depth: look.depth === '2' ? 2 : 1,
    }),
  words: () => [],
})
