/** What the shelf offers: every block kind, and a few ready arrangements of them. Placing one makes an independent copy. */
import type { JsonObject } from '../page/json.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { ancestry } from '../page/walk.ts'
import { slotAt, type Fragment, type NewId } from '../edits/compose.ts'
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
  type PatternSketch,
  type Sketch,
} from './sketch.ts'
import { MORE_PATTERNS } from './more-patterns.ts'
import type { BlockDefinition } from './define-block.ts'
import type { Registry } from './registry.ts'

export interface Starter {
  /** Unique among starters. */
  readonly id: string
  readonly title: string
  readonly about: string
  readonly type: 'block' | 'pattern' | 'page-body' | 'shared'
  readonly purpose: Purpose
  /** Other everyday names that people search for. */
  readonly synonyms: readonly string[]
  /** Whether people saved it on this site. */
  readonly isSaved?: boolean
  /** Text in it that people search for, too. */
  readonly words?: string
  readonly kind: string
  /** The part that what is placed is an instance of, and whether that has fields. */
  readonly part?: string
  readonly isComponent?: boolean
  /** Makes a fresh copy with new ids; of several blocks or sections, the first one. */
  build(newId: NewId): Fragment
  /** What follows the first block or section, each with new ids. */
  buildRest(newId: NewId): readonly Fragment[]
}

/** What people come to the shelf for. */
export const PURPOSES = {
  text: 'Text',
  pictures: 'Pictures',
  layout: 'Layout',
  lists: 'Lists and tables',
  links: 'Links',
  sections: 'Sections',
  pages: 'Whole pages',
} as const
export type Purpose = keyof typeof PURPOSES

/** A block at a place of a grid. */
function placed(sketch: Sketch, place: JsonObject): Sketch {
  const { base, ...others } = sketch.sizes ?? { base: {} }
  return { ...sketch, sizes: { ...others, base: { ...base, ...place } } }
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
  grid: [
    placed({ kind: 'picture' }, { gridColumn: 1, gridRow: 1, gridColumns: 7, gridRows: 4 }),
    placed(heading(ask('New section'), 2), {
      gridColumn: 6,
      gridRow: 2,
      gridColumns: 7,
      gridRows: 1,
      layer: 1,
    }),
    placed(text(ask('Write here.')), { gridColumn: 8, gridRow: 3, gridColumns: 5, gridRows: 2 }),
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

type Written = Pick<Starter, 'id' | 'title' | 'about' | 'synonyms'>

const PATTERNS: readonly PatternSketch[] = [
  {
    id: 'words-beside-picture',
    title: 'Text and picture',
    about: 'A heading, text and a button next to a picture',
    synonyms: ['image and text', 'media object', 'split', 'introduction'],
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
    about: 'A heading and three cards side by side',
    synonyms: ['features', 'teasers', 'tiles', 'services', 'boxes'],
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
    title: 'Statement',
    about: 'One sentence on its own, with its author',
    synonyms: ['quote', 'claim', 'slogan', 'mission'],
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
    title: 'Call to action',
    about: 'A dark band with a question and a button',
    synonyms: ['CTA', 'banner', 'sign up', 'next step', 'button'],
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

const opening = (prompt: string, line: string): Sketch => ({
  kind: 'section',
  inside: [heading(ask(prompt), 2, 'headline'), text(ask(line), 'lead')],
})
const reading = (...inside: Sketch[]): Sketch => ({
  kind: 'section',
  sizes: { base: { width: 'reading' } },
  inside,
})
const callToAction = PATTERNS.at(-1)!.sketch
const detail = (icon: string, title: string): Sketch => ({
  kind: 'feature',
  content: { icon, heading: title, level: 3 },
})

/** Whole page bodies, section by section: placed at once on a page that has its heading already, or will get one. */
const PAGE_BODIES: readonly (Written & { readonly sections: readonly Sketch[] })[] = [
  {
    id: 'about-body',
    title: 'About page',
    about: 'Introduction, history, picture, testimonials, call to action',
    synonyms: ['about us', 'team', 'company', 'history', 'who we are'],
    sections: [
      opening('Who you are', 'One or two lines that say what you do, and for whom.'),
      PATTERNS[0]!.sketch,
      reading(heading(ask('How it began'), 2), text(ask('Tell it as you would to a visitor.'))),
      { kind: 'section', look: { surface: 'tint' }, inside: [{ kind: 'voices', inside: INSIDE.voices! }] },
      callToAction,
    ],
  },
  {
    id: 'event-body',
    title: 'Event page',
    about: 'What it is, when, where, what it costs, programme',
    synonyms: ['events', 'conference', 'workshop', 'concert', 'meeting'],
    sections: [
      opening('What happens', 'One line on what people will see.'),
      {
        kind: 'section',
        inside: [
          {
            kind: 'columns',
            sizes: { base: { gap: 'l' }, narrow: { direction: 'down' } },
            inside: [
              column(detail('calendar', 'When')),
              column(detail('place', 'Where')),
              column(detail('ticket', 'What it costs')),
            ],
          },
        ],
      },
      reading(heading(ask('What to expect'), 2), text(ask('Write here.'))),
      reading(heading(ask('Programme'), 2), { kind: 'list', look: { variant: 'lines' } }),
      callToAction,
    ],
  },
  {
    id: 'questions-body',
    title: 'Questions page',
    about: 'An accordion of questions, and what to do if yours is not there',
    synonyms: ['FAQ', 'help', 'support', 'answers', 'accordion'],
    sections: [
      opening('Questions people ask', 'If yours is not here, ask us.'),
      reading({ kind: 'panels', inside: INSIDE.panels! }),
      callToAction,
    ],
  },
  {
    id: 'visit-body',
    title: 'Visit page',
    about: 'Opening hours, getting there, what to bring',
    synonyms: ['opening hours', 'directions', 'getting here', 'location', 'contact'],
    sections: [
      opening('Come and visit', 'What people should know before they come.'),
      reading(heading(ask('Opening hours'), 2), {
        kind: 'table',
        content: {
          rows: [
            ['Day', 'Open'],
            ['', ''],
            ['', ''],
          ],
        },
        prompts: { caption: 'When you are open' },
      }),
      reading(heading(ask('Getting here'), 2), text(ask('By bus, by car, on foot.'))),
      reading(heading(ask('What to bring'), 2), { kind: 'list', look: { variant: 'ticks' } }),
    ],
  },
  {
    id: 'landing-body',
    title: 'Landing page',
    about: 'A banner, three reasons, a statement and a call to action',
    synonyms: ['campaign', 'product', 'home page', 'start page', 'hero'],
    sections: [
      { kind: 'hero', look: LOOKS.hero!, inside: INSIDE.hero! },
      PATTERNS[1]!.sketch,
      PATTERNS[2]!.sketch,
      callToAction,
    ],
  },
]

const NO_REST = (): readonly Fragment[] => []

/** Everything that can be placed: patterns, whole page bodies, then blocks. */
export function createStarters(registry: Registry): readonly Starter[] {
  const patterns = [...PATTERNS, ...MORE_PATTERNS].map(({ sketch, ...words }): Starter => ({
    ...words,
    type: 'pattern',
    purpose: 'sections',
    kind: sketch.kind,
    build: (newId) => buildSketch(sketch, registry, newId),
    buildRest: NO_REST,
  }))
  const bodies = PAGE_BODIES.map(({ sections: [first, ...rest], ...words }): Starter => ({
    ...words,
    type: 'page-body',
    purpose: 'pages',
    kind: first!.kind,
    build: (newId) => buildSketch(first!, registry, newId),
    buildRest: (newId) => rest.map((sketch) => buildSketch(sketch, registry, newId)),
  }))
  const blocks = [...registry.kinds.values()]
    .filter(({ group, linksTo }) => group !== 'root' && group !== 'item' && !linksTo)
    .map((definition) => blockStarter(definition, registry))
  return [...patterns, ...bodies, ...blocks]
}

/** Items that go with what is selected: another of its kind, or one of the kinds that the nearest block around it repeats. */
export function itemStarters(page: Page, selectedId: NodeId, registry: Registry): readonly Starter[] {
  for (const id of ancestry(page, selectedId)) {
    const slots = Object.keys(getNode(page, id).slots).map((slot) =>
      slotAt(page, { parentId: id, slot }, registry),
    )
    const kinds = slots
      .flatMap((slot) => slot?.allow ?? [])
      .flatMap((name) => registry.kinds.get(name) ?? [])
      .filter(({ group, fillsSlot }) => group === 'item' && !fillsSlot)
    if (kinds.length > 0) return kinds.map((definition) => blockStarter(definition, registry))
  }
  return []
}

function blockStarter(definition: BlockDefinition, registry: Registry): Starter {
  const { kind, title, about, purpose = 'text', synonyms = [] } = definition
  return {
    id: kind,
    title,
    about,
    synonyms,
    type: 'block',
    purpose,
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
    buildRest: NO_REST,
  }
}
