/** What a new page starts from: a layout, and blocks that are already there. */
import { ask, button, buildSketch, heading, panel, text, type Sketch } from '../blocks/sketch.ts'
import type { Registry } from '../blocks/registry.ts'
import type { NewId } from '../edits/compose.ts'
import type { JsonObject } from '../page/json.ts'
import { PAGE_FORMAT, type Page } from '../page/page.ts'
import type { LayoutName } from './layouts.ts'

export interface Template {
  readonly id: string
  readonly title: string
  readonly about: string
  readonly layout: LayoutName
  /** A page of it, with fresh ids. `title` is that of the page; `date` that of the day, as 2026-11-27. */
  readonly build: (
    registry: Registry,
    newId: NewId,
    page: { readonly title: string; readonly date: string },
  ) => Page
}

interface Written {
  readonly id: string
  readonly title: string
  readonly about: string
  readonly layout: LayoutName
  readonly fields?: (page: { readonly title: string; readonly date: string }) => JsonObject
  /** What is asked for in fields of the page itself. */
  readonly prompts?: Sketch['prompts']
  readonly slots: (title: string) => Readonly<Record<string, readonly Sketch[]>>
}

const section = (...inside: Sketch[]): Sketch => ({ kind: 'section', inside })
const reading = (...inside: Sketch[]): Sketch => ({
  kind: 'section',
  sizes: { base: { width: 'reading' } },
  inside,
})
const opening = (title: string, line: string): Sketch => section(heading(title, 1), text(ask(line), 'lead'))
const nextStep = (question: string, words: string): Sketch => ({
  kind: 'section',
  look: { surface: 'night' },
  sizes: { base: { above: 'l', below: 'l' } },
  inside: [heading(ask(question), 2, 'title'), linkHome(words)],
})
/** A button that already leads somewhere, so that a page made from a template can go live as it is. */
const linkHome = (words: string): Sketch => ({
  ...button(ask(words)),
  content: { link: { href: '/' } },
})

const WRITTEN: readonly Written[] = [
  {
    id: 'blank',
    title: 'Blank',
    about: 'The header and footer of the site, and nothing else',
    layout: 'plain',
    slots: () => ({}),
  },
  {
    id: 'plain',
    title: 'Plain',
    about: 'A title, an introduction and a first section',
    layout: 'plain',
    slots: (title) => ({
      sections: [
        opening(title, 'One or two lines on what this page is for.'),
        reading(heading(ask('First part'), 2), text(ask('Write here.'))),
      ],
    }),
  },
  {
    id: 'side',
    title: 'With a side column',
    about: 'A main column, and a table of contents beside it',
    layout: 'side',
    slots: (title) => ({
      sections: [opening(title, 'One or two lines on what this page is for.')],
      main: [
        heading(ask('First part'), 2),
        text(ask('Write here.')),
        heading(ask('Second part'), 2),
        text(ask('Write here.')),
      ],
      side: [{ kind: 'jump-list' }],
    }),
  },
  {
    id: 'landing',
    title: 'Landing',
    about: 'One message and one thing to do, without navigation',
    layout: 'landing',
    slots: (title) => ({
      sections: [
        {
          kind: 'section',
          look: { surface: 'night' },
          sizes: { base: { height: 'half', place: 'center' } },
          inside: [
            heading(title, 1),
            text(ask('One line that makes people stay.'), 'lead'),
            linkHome('Do it now'),
          ],
        },
        section({
          kind: 'columns',
          sizes: { base: {}, narrow: { direction: 'down' } },
          inside: ['star', 'clock', 'heart'].map((icon, i) => ({
            kind: 'column',
            inside: [
              {
                kind: 'feature',
                content: { icon, level: 2 },
                prompts: { heading: ['First reason', 'Second reason', 'Third reason'][i]! },
                look: { variant: 'above' },
              },
            ],
          })),
        }),
      ],
    }),
  },
  {
    id: 'article',
    title: 'Article',
    about: 'Heading, author, date, summary and body',
    layout: 'article',
    fields: ({ title, date }) => ({ title, date }),
    prompts: { author: 'Who wrote it', summary: 'One or two lines on what this is about.' },
    slots: () => ({ main: [text(ask('Write here.'))] }),
  },
  {
    id: 'about',
    title: 'About us',
    about: 'Introduction, history, testimonials and a call to action',
    layout: 'plain',
    slots: (title) => ({
      sections: [
        opening(title, 'Who you are, in one line.'),
        reading(heading('How it began', 2), text(ask('Tell it as you would to a visitor.'))),
        {
          kind: 'section',
          look: { surface: 'tint' },
          inside: [
            {
              kind: 'quote',
              look: { variant: 'large' },
              sizes: { base: { align: 'center' } },
            },
          ],
        },
        nextStep('Would you like to join in?', 'Find out how'),
      ],
    }),
  },
  {
    id: 'questions',
    title: 'Questions',
    about: 'An accordion of questions, and a call to action',
    layout: 'plain',
    slots: (title) => ({
      sections: [
        opening(title, 'If yours is not here, ask us.'),
        reading({
          kind: 'panels',
          inside: [
            panel(ask('First question'), text(ask('Its answer.'))),
            panel(ask('Second question'), text(ask('Another answer.'))),
            panel(ask('Third question'), text(ask('One more answer.'))),
          ],
        }),
        nextStep('Still wondering?', 'Ask us'),
      ],
    }),
  },
  {
    id: 'event',
    title: 'Event',
    about: 'What it is, when, where, and what it costs',
    layout: 'side',
    slots: (title) => ({
      sections: [opening(title, 'What happens, in one line.')],
      main: [heading('What to expect', 2), text(ask('Write here.'))],
      side: [
        {
          kind: 'group',
          look: { surface: 'tint', radius: 'm' },
          sizes: { base: { inset: 'm', gap: 'm' } },
          inside: [
            { kind: 'feature', content: { icon: 'calendar', heading: 'When', level: 2 } },
            { kind: 'feature', content: { icon: 'place', heading: 'Where', level: 2 } },
            { kind: 'feature', content: { icon: 'ticket', heading: 'What it costs', level: 2 } },
          ],
        },
      ],
    }),
  },
  {
    id: 'visit',
    title: 'Visit',
    about: 'Opening hours, getting there, and what to bring',
    layout: 'plain',
    slots: (title) => ({
      sections: [
        opening(title, 'What people should know before they come.'),
        reading(heading('Opening hours', 2), {
          kind: 'table',
          content: {
            rows: [
              ['Day', 'Open'],
              ['', ''],
              ['', ''],
            ],
          },
          prompts: { caption: 'When we are open' },
        }),
        reading(heading('Getting here', 2), text(ask('By bus, by car, on foot.'))),
        reading(heading('What to bring', 2), { kind: 'list', look: { variant: 'ticks' } }),
      ],
    }),
  },
]

/** The page that visitors get where there is none, until somebody writes another. It asks for nothing, since it goes live at once. */
const NOT_FOUND: Written = {
  id: 'not-found',
  title: 'Page not found',
  about: 'For visitors who follow a link that leads nowhere',
  layout: 'plain',
  slots: (title) => ({
    sections: [
      reading(heading(title, 1), text('The page may have moved, or there may be a slip in the address.'), {
        kind: 'button',
        content: { text: 'Go to the home page', link: { href: '/' } },
      }),
    ],
  }),
}

function templateFrom({ fields, prompts, slots, ...words }: Written): Template {
  return {
    ...words,
    build(registry, newId, page) {
      const content = { ...(words.layout === 'plain' ? {} : { layout: words.layout }), ...fields?.(page) }
      const { rootId, nodes } = buildSketch(
        { kind: 'page', content, ...(prompts ? { prompts } : {}), slots: slots(page.title) },
        registry,
        newId,
      )
      return { format: PAGE_FORMAT, root: rootId, nodes }
    },
  }
}

/** Every template that a new page can start from. */
export const TEMPLATES: readonly Template[] = WRITTEN.map(templateFrom)

/** What the page for addresses that do not exist starts from. */
export const NOT_FOUND_TEMPLATE: Template = templateFrom(NOT_FOUND)
