import { defineBlock } from '../define-block.ts'
import { fields, surface } from '../fields.ts'
import { bandRules, bandWidth } from '../../render/band.ts'
import { el } from '../../render/element.ts'

/** The foot of every page. Belongs to the site, not to a page. */
export const siteFooter = defineBlock({
  kind: 'site-footer',
  version: 1,
  title: 'Footer',
  about: 'At the bottom of every page',
  group: 'root',
  content: fields({}),
  look: fields({ surface: surface('Background') }),
  slots: { blocks: { title: 'Blocks', allow: ['flow'] } },
  rules: [
    ...bandRules('site-footer'),
    {
      selector: '.site-footer',
      declarations: { ...bandWidth('broad'), 'padding-block': 'var(--space-l)', 'row-gap': 'var(--space-m)' },
    },
  ],
  childWidth: ({ width }) => `min(${width} - 2*var(--gutter),var(--width-broad))`,
  render: (_node, context) => el('footer', { className: ['site-footer'] }, context.slot('blocks')),
  words: () => [],
})
