import { defineBlock, type ArrangedRules } from '../define-block.ts'
import { asked, fields, line, media, surface } from '../../kit/fields.ts'
import { croppedShare, filledBox, type Focused } from '../../kit/crop.ts'
import { el } from '../../kit/element.ts'
import { pictureElement } from '../../kit/picture-element.ts'
import { typeStyle } from '../../kit/token-css.ts'

interface Content {
  readonly said: string
  readonly who?: string
  readonly role?: string
  readonly media?: Focused
}

/** What one person said. */
export const voice = defineBlock<Content>({
  kind: 'voice',
  version: 1,
  title: 'Testimonial',
  about: 'What one person said, with name, role and photo',
  synonyms: ['review', 'quote', 'customer', 'reference'],
  group: 'item',
  purpose: 'text',
  content: fields(
    {
      said: asked('What they said.', line('Quote')),
      who: line('Name'),
      role: line('Role'),
      media: media('Photo'),
    },
    ['said'],
  ),
  look: fields({ surface: surface('Background') }),
  rules: [
    {
      selector: '.voice',
      declarations: { 'border-radius': 'var(--radius-m)', padding: 'var(--space-m)', 'min-width': '0' },
    },
    // Names stand on one line across a row, however long what was said is.
    {
      selector: '.voice figure',
      declarations: { display: 'grid', gap: '1em', height: '100%', 'grid-template-rows': '1fr auto' },
    },
    {
      selector: '.voice blockquote',
      declarations: { ...typeStyle('lead'), margin: '0', 'text-wrap': 'pretty' },
    },
    {
      selector: '.voice figcaption',
      declarations: {
        ...typeStyle('note'),
        display: 'grid',
        'grid-auto-columns': 'minmax(0,1fr)',
        'column-gap': '.8em',
        'align-items': 'center',
        color: 'var(--quiet)',
      },
    },
    { selector: '.voice picture', declarations: { 'grid-row': '1/span 2', width: '3rem', height: '3rem' } },
    {
      selector: '.voice img',
      declarations: { width: '3rem', height: '3rem', 'border-radius': '50%', 'object-fit': 'cover' },
    },
    { selector: '.voice strong', declarations: { color: 'var(--title)' } },
    { selector: '.voice picture~*', declarations: { 'grid-column': '2' } },
    { selector: '.voice figcaption:has(picture)', declarations: { 'grid-template-columns': 'auto 1fr' } },
  ],
  arrangedBy: ['media'],
  arrange({ content, look }): ArrangedRules {
    const { box, picture } = filledBox(content.media ?? {}, 1, '50%')
    return {
      '': 'surface' in look ? {} : { border: '1px solid var(--line)' },
      ' picture': box,
      ' img': picture,
    }
  },
  render({ content }, context) {
    const { said, who, role, media: reference } = content
    const face = reference && context.picture(reference.id)
    return el(
      'li',
      { className: ['voice'] },
      el(
        'figure',
        {},
        el('blockquote', {}, el('p', context.wordsOf('said'), said)),
        (context.hasPlace('who') || context.hasPlace('role') || face) &&
          el(
            'figcaption',
            {},
            // Beside the name, a face says nothing more.
            face &&
              pictureElement(face, {
                alt: '',
                sizes: `${Math.round(48 * croppedShare(reference, 1))}px`,
                early: false,
              }),
            context.hasPlace('who') && el('strong', context.wordsOf('who'), who),
            context.hasPlace('role') && el('span', context.wordsOf('role'), role),
          ),
      ),
    )
  },
  words: ({ said, who, role }) => [said, ...(who ? [who] : []), ...(role ? [role] : [])],
  isEmpty: (content) => content.said.trim() === '',
})
