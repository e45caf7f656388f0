import { defineBlock } from '../define-block.ts'
import { fields, line, surface } from '../fields.ts'
import { bandRules, bandWidth } from '../../render/band.ts'
import { el } from '../../render/element.ts'
import { typeStyle } from '../../render/token-css.ts'

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
        'align-items': 'baseline',
        'justify-content': 'space-between',
      },
    },
    {
      selector: '.site-header .brand',
      declarations: { ...typeStyle('minor'), color: 'var(--title)', 'text-decoration': 'none' },
    },
    {
      selector: '.site-header ul',
      declarations: {
        ...typeStyle('body'),
        display: 'flex',
        'flex-wrap': 'wrap',
        gap: '0 1.5rem',
        padding: '0',
        'list-style': 'none',
      },
    },
    {
      selector: '.site-header li a',
      declarations: {
        display: 'block',
        'padding-block': '.3rem',
        color: 'var(--ink)',
        'text-decoration': 'none',
      },
    },
    {
      selector: '.site-header li a:hover',
      declarations: { 'text-decoration': 'underline', 'text-underline-offset': '.3em' },
    },
    {
      selector: '.site-header li a[aria-current]',
      declarations: { color: 'var(--accent)', 'box-shadow': '0 2px 0 -1px var(--accent)' },
    },
  ],
  render: (node, context) =>
    el(
      'header',
      { className: ['site-header'] },
      el(
        'div',
        {},
        el('a', { className: ['brand'], href: context.site.home }, node.content.brand),
        context.navigation.length > 0 &&
          el(
            'nav',
            { ariaLabel: 'Site' },
            el(
              'ul',
              {},
              context.navigation
                .flatMap((entry) => [entry, ...entry.inside])
                .map((entry) =>
                  el(
                    'li',
                    {},
                    el(
                      'a',
                      { href: entry.path, ...(entry.current ? { ariaCurrent: 'page' } : {}) },
                      entry.label,
                    ),
                  ),
                ),
            ),
          ),
      ),
    ),
  words: (content) => [content.brand],
})
