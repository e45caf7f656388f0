/** What the shelf offers: every block kind, and a few ready arrangements of them. Placing one makes an independent copy. */
import type { JsonObject } from '../page/json.ts'
import type { PageNode } from '../page/page.ts'
import type { Fragment, NewId } from '../edits/compose.ts'
import {
  ask,
  button,
  buildSketch,
  card,
  column,
  heading,
  panel,
  slide,
  stack,
  text,
  voice,
  type Sketch,
} from './sketch.ts'
import type { Registry } from './registry.ts'

export interface Starter {
  /** Unique among starters. */
  readonly id: string
  readonly title: string
  readonly about: string
  readonly type: 'block' | 'pattern'
  readonly kind: string
  /** Makes a fresh copy with new ids. */
  build(newId: NewId): Fragment
}

/** What a container holds when it is taken from the shelf, so that it is not an empty hole. */
const INSIDE: Readonly<Record<string, readonly Sketch[]>> = {
  section: [heading(ask('New section'), 2), text(ask('Write here.'))],
  row: [
    stack(heading(ask('First'), 3), text(ask('Write here.'))),
    stack(heading(ask('Second'), 3), text(ask('Write here.'))),
  ],
  stack: [heading(ask('New heading'), 3), text(ask('Write here.'))],
  columns: [
    column(heading(ask('First'), 3), text(ask('Write here.'))),
    column(heading(ask('Second'), 3), text(ask('Write here.'))),
  ],
  group: [heading(ask('New heading'), 3), text(ask('Write here.'))],
  hero: [heading(ask('What this page is about'), 1), text(ask('One line that makes people stay.'), 'lead')],
  'button-group': [
    button(ask('First choice')),
    { ...button(ask('Second choice')), look: { variant: 'line' } },
  ],
  panels: [
    panel(ask('First question'), text(ask('Its answer.'))),
    panel(ask('Second question'), text(ask('Its answer.'))),
    panel(ask('Third question'), text(ask('Its answer.'))),
  ],
  slides: [slide(ask('First picture')), slide(ask('Second picture'))],
  voices: [
    voice(ask('What one of them said.'), ask('Name')),
    voice(ask('What another said.'), ask('Name')),
    voice(ask('And a third.'), ask('Name')),
  ],
  gallery: [{ kind: 'picture' }, { kind: 'picture' }, { kind: 'picture' }],
}

/** Values a container has when it is taken from the shelf, so that it is right on a narrow screen, too. */
const SIZES: Readonly<Record<string, PageNode['sizes']>> = {
  row: { base: {}, narrow: { direction: 'down' } },
  columns: { base: {}, narrow: { direction: 'down' } },
  voices: { base: {}, narrow: { shows: '1' } },
  gallery: { base: {}, narrow: { columns: '2' } },
}
const LOOKS: Readonly<Record<string, JsonObject>> = { hero: { surface: 'night' } }

const PATTERNS: readonly (Pick<Starter, 'id' | 'title' | 'about'> & { readonly sketch: Sketch })[] = [
  {
    id: 'words-beside-picture',
    title: 'Words beside a picture',
    about: 'A heading, text and a button next to a picture',
    sketch: {
      kind: 'section',
      inside: [
        {
          kind: 'row',
          sizes: { base: { align: 'center' }, narrow: { direction: 'down' } },
          inside: [
            stack(
              heading(ask('What this is about'), 2),
              text(ask('Say in two or three lines why it is worth a visit.')),
              button(ask('Read more')),
            ),
            { kind: 'picture', sizes: { base: { ratio: '4/3' } } },
          ],
        },
      ],
    },
  },
  {
    id: 'three-cards',
    title: 'Three cards',
    about: 'A heading and three panels side by side',
    sketch: {
      kind: 'section',
      inside: [
        heading(ask('Three things to know'), 2),
        {
          kind: 'row',
          sizes: { base: { gap: 'm' }, narrow: { direction: 'down' } },
          inside: ['First thing', 'Second thing', 'Third thing'].map((title) => card(ask(title))),
        },
      ],
    },
  },
  {
    id: 'strong-sentence',
    title: 'One strong sentence',
    about: 'A sentence on its own, with who said it',
    sketch: {
      kind: 'section',
      look: { surface: 'tint' },
      sizes: { base: { width: 'reading' } },
      inside: [
        {
          ...text(ask('One sentence that stays with the reader.'), 'lead'),
          sizes: { base: { align: 'center' } },
        },
        { ...text(ask('Who said it'), 'note'), sizes: { base: { align: 'center' } } },
      ],
    },
  },
  {
    id: 'next-step',
    title: 'One next step',
    about: 'A dark band with a question and a button',
    sketch: {
      kind: 'section',
      look: { surface: 'night' },
      sizes: { base: { above: 'l', below: 'l' } },
      inside: [
        {
          kind: 'row',
          sizes: {
            base: { share: 'own', justify: 'space-between', align: 'center' },
            narrow: { direction: 'down', align: 'start' },
          },
          inside: [heading(ask('Ready for the next step?'), 2, 'title'), button(ask('Get in touch'))],
        },
      ],
    },
  },
]

/** Everything that can be placed, patterns first. */
export function createStarters(registry: Registry): readonly Starter[] {
  const patterns = PATTERNS.map(({ sketch, ...words }): Starter => ({
    ...words,
    type: 'pattern',
    kind: sketch.kind,
    build: (newId) => buildSketch(sketch, registry, newId),
  }))
  const blocks = [...registry.kinds.values()]
    .filter((definition) => definition.group !== 'root' && definition.group !== 'item')
    .map(({ kind, title, about }): Starter => ({
      id: kind,
      title,
      about,
      type: 'block',
      kind,
      build: (newId) => {
        const [sizes, look] = [SIZES[kind], LOOKS[kind]]
        const sketch = {
          kind,
          inside: INSIDE[kind] ?? [],
          ...(sizes ? { sizes } : {}),
          ...(look ? { look } : {}),
        }
        return buildSketch(sketch, registry, newId)
      },
    }))
  return [...patterns, ...blocks]
}
