import { defineBlock } from '../define-block.ts'
import { fields, line, surface } from '../../kit/fields.ts'
import { bandRules, bandWidth } from '../../kit/band.ts'
import { el } from '../../kit/element.ts'
import { menuElement, menuRules } from '../../kit/menu.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly brand: string
}

/** The head of every page: the site's name and its navigation. Belongs to the site, not to a page. */
export const siteHeader = defineBlock<Content>({
  kind: 'site-header',
  version: 1,
  title: 'Header',
  about: "The site's name and its navigation, on every page",
  group: 'root',
  content: fields({ brand: line('Site name', 'New site') }, ['brand']),
  look: fields({ surface: surface('Background') }),
  rules: [
    ...bandRules('site-header'),
    { selector: '.site-header', declarations: { ...bandWidth('broad'), 'padding-block': '1rem' } },
    {
      selector: '.site-header>div',
      declarations: {
        display: 'flex',
        'flex-wrap': 'wrap',
        gap: '.25rem 2rem',
        'align-items': 'center',
        'justify-content': 'space-between',
      },
    },
    {
      selector: '.site-header .brand',
      declarations: { ...typeStyle('minor'), color: 'var(--title)', 'text-decoration': 'none' },
    },
    ...menuRules('.site-menu'),
  ],
  usesSpot: ['bare'],
  render: (node, context) =>
    el(
      'header',
      { className: ['site-header'] },
      el(
        'div',
        {},
        el(
          'a',
          { className: ['brand'], href: context.site.home, ...context.wordsOf('brand') },
          node.content.brand,
        ),
        context.navigation.length > 0 &&
          menuElement(
            context.navigation.flatMap((entry) => [entry, ...entry.inside]),
            { className: 'site-menu', id: 'site-menu', label: 'Site', depth: 1 },
          ),
      ),
    ),
  words: (content) => [content.brand],
})
