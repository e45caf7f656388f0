import { defineBlock } from '../define-block.ts'
import { fields } from '../../kit/fields.ts'
import type { TreePage } from '../../kit/site-context.ts'
import { el } from '../../kit/element.ts'
import { typeStyle } from '../../kit/token-css.ts'

/** The way from the first page to this one. */
export const breadcrumb = defineBlock({
  kind: 'breadcrumb',
  version: 1,
  title: 'Breadcrumb',
  about: 'The way from the first page to this one',
  synonyms: ['breadcrumbs', 'path', 'trail'],
  group: 'flow',
  purpose: 'links',
  isDerived: true,
  content: fields({}),
  look: fields({}),
  rules: [
    {
      selector: '.breadcrumb ol',
      declarations: {
        ...typeStyle('note'),
        display: 'flex',
        'flex-wrap': 'wrap',
        gap: '.2em .5em',
        padding: '0',
        'list-style': 'none',
        color: 'var(--quiet)',
      },
    },
    { selector: '.breadcrumb li+li::before', declarations: { content: '"/"', 'margin-right': '.5em' } },
    { selector: '.breadcrumb a', declarations: { color: 'var(--link)' } },
  ],
  render(_node, { page, tree, site }) {
    const way: TreePage[] = []
    const seen = new Set([page.id])
    let at = tree.find(page.id)?.parentId
    while (at && !seen.has(at)) {
      seen.add(at)
      const parent = tree.find(at)
      if (parent) way.unshift(parent)
      at = parent?.parentId
    }
    const isHome = tree.find(page.id)?.path === site.home
    const home =
      way.some((one) => one.path === site.home) || isHome ? [] : [{ title: site.name, path: site.home }]
    return el(
      'nav',
      { className: ['breadcrumb'], ariaLabel: 'Breadcrumb' },
      el(
        'ol',
        {},
        [...home, ...way].map(({ title, path }) => el('li', {}, el('a', { href: path }, title))),
        el('li', {}, el('span', { ariaCurrent: 'page' }, page.title)),
      ),
    )
  },
  words: () => [],
})
