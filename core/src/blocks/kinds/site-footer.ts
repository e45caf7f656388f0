import { defineBlock } from '../define-block.ts'
import { fields, surface } from '../../kit/fields.ts'
import { bandRules, bandWidth, childOfBand } from '../../kit/band.ts'
import { el } from '../../kit/element.ts'

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
    // At the foot of a page there is room: the links stand there, and the one menu button is the header’s.
    { selector: '.site-footer .menu>button', size: 'narrow', declarations: { display: 'none' } },
    {
      selector: '.site-footer .menu>div:not(:popover-open)',
      size: 'narrow',
      declarations: { display: 'block' },
    },
    { selector: '.site-footer .menu ul', size: 'narrow', declarations: { 'flex-direction': 'row' } },
  ],
  isBand: () => true,
  childWidth: ({ width, childValues, childIndex }) =>
    childOfBand(width, `min(${width} - 2*var(--gutter),var(--width-broad))`, childValues()[childIndex]),
  render: (_node, context) => el('footer', { className: ['site-footer'] }, context.slot('blocks')),
  words: () => [],
})
