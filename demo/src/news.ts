/** What happened on the ridge. */
import type { Json, Page } from '@gullyline/core'
import { to } from './page-parts.ts'
import {
  block,
  button,
  document,
  heading,
  linked,
  para,
  picture,
  row,
  section,
  stack,
  text,
  type Sketch,
} from './sketch.ts'

export const news = document('w', {
  kind: 'page',
  inside: [
    section(
      { name: 'News', base: { above: 'm', below: 'l' } },
      block('breadcrumb', {}),
      heading(1, 'News'),
      text('What happened on the ridge, newest first.', { look: { variant: 'lead' } }),
      row(
        { base: { share: 'first', gap: 'l', align: 'center' }, narrow: { direction: 'down', gap: 'm' } },
        picture('tmdusk', 'The comet: the western sky over the dome as the last light goes', {
          look: { radius: 'm' },
          base: { ratio: '16/9' },
          link: to('comet'),
        }),
        stack(
          { base: { gap: 's' } },
          heading(2, 'A comet over the moor', { base: { step: 'title' } }),
          text(
            'It is faint, it is green, and it will not be back for eight hundred years. Come before six, and look to the left of the bright star over the gate.',
          ),
          button('Read about the comet', to('comet'), { look: { variant: 'quiet' } }),
        ),
      ),
    ),
    section(
      { name: 'All news', look: { surface: 'tint' }, base: { above: 'l', below: 'xl' } },
      heading(2, 'Everything so far'),
      block(
        'sub-pages',
        {},
        { look: { variant: 'tiles' }, base: { columns: '2' }, narrow: { columns: '1' } },
      ),
    ),
  ],
})

interface Article {
  readonly title: string
  readonly author: string
  readonly date: string
  readonly summary: string
  readonly main: readonly Sketch[]
  readonly next: readonly Sketch[]
}

const article = (prefix: string, { main, next, ...content }: Article): Page =>
  document(prefix, {
    kind: 'page',
    content: { layout: 'article', ...content },
    slots: {
      main,
      sections: [
        section({ name: 'Next step', look: { surface: 'lamp' }, base: { above: 'm', below: 'm' } }, ...next),
      ],
    },
  })

const paragraphs = (...all: readonly Json[]): Sketch => text(all)
const opening = (id: string, alt: string, caption: string): Sketch =>
  picture(id, alt, { look: { radius: 'm' }, base: { ratio: '16/9', band: 'wide' }, caption })

export const comet = article('c', {
  title: 'A comet over the moor',
  author: 'Ines',
  date: '2026-11-20',
  summary: 'It is faint, it is green, and it will not be back for eight hundred years.',
  main: [
    opening(
      'tmdusk',
      'The dome on the moor as the last light goes',
      'The western sky on the evening it was first seen from here.',
    ),
    paragraphs(
      para(
        'On Thursday, a little after five, four of us saw it from the car park without any help at all: a small soft light above the ridge, with a tail no longer than a thumb.',
      ),
      para(
        'You need no telescope. Come before six, let your eyes rest for ten minutes, and look to the left of the bright star over the gate.',
      ),
    ),
    block('quote', {
      words: [para('I thought it was breath on my glasses.')],
      who: 'Tarn',
      source: 'first to see it',
    }),
    paragraphs(
      para(
        'We stay open for it until the end of the month. ',
        linked('See the nights', to('openNights')),
        '.',
      ),
    ),
  ],
  next: [heading(2, 'See it with us', { base: { step: 'title' } }), button('Plan your visit', to('visit'))],
})

export const mirror = article('m', {
  title: 'The mirror shines again',
  author: 'Bram',
  date: '2026-10-02',
  summary: 'Two days in a tank, nine people holding their breath, and a coat of silver for ten years.',
  main: [
    opening(
      'tmdome',
      'The dome with its slit open under the Milky Way',
      'First light after the new coat, on the last night of September.',
    ),
    paragraphs(
      para(
        'Silver goes dull, even up here. Every ten years the big mirror comes out of its tube, down the stairs on a sledge, and into a bath that nobody else may use that week.',
      ),
      para(
        'This time it took two days. The old coat came off on Monday; the new one went on before breakfast on Wednesday, and stuck at the first try.',
      ),
    ),
    heading(2, 'What has changed'),
    paragraphs(
      para(
        'Faint things are brighter by about a third. The two small moons of Saturn that we used to promise, and seldom showed, are now there for everyone who looks.',
      ),
    ),
    block('quote', {
      words: [para('It weighs as much as a horse, and is a good deal more nervous.')],
      who: 'Ilse',
      source: 'at the front of the sledge',
    }),
  ],
  next: [
    heading(2, 'Look through it', { base: { step: 'title' } }),
    button('About the big telescope', to('bigTelescope')),
  ],
})

export const lamps = article('p', {
  title: 'The valley turns its lamps down',
  author: 'Tarn',
  date: '2026-09-12',
  summary: 'From this autumn the lamps along the valley road go down to a third at ten.',
  main: [
    opening(
      'tmnight',
      'Visitors standing on the ridge under the Milky Way',
      'The ridge on the first dark evening. Nobody had asked for torches.',
    ),
    paragraphs(
      para(
        'It took four years, two petitions and a walk with the whole parish council after midnight. Since the first of September the lamps along the valley road go down to a third of their light at ten, and point at the road instead of at the clouds.',
      ),
      para(
        'The school measured it with a meter of its own: the sky over the ridge is darker by half. On the second evening the Milky Way threw shadows.',
      ),
    ),
    heading(2, 'What you can do'),
    paragraphs(
      para(
        'Turn your porch lamp off when nobody is coming home. If it must be on, hang it low, point it down, and choose a warm one.',
      ),
    ),
  ],
  next: [
    heading(2, 'Come and see the dark', { base: { step: 'title' } }),
    button('What is up tonight', to('tonight')),
  ],
})

export const buggy = article('g', {
  title: 'A buggy for the lit path',
  author: 'Ines',
  date: '2026-08-22',
  summary: 'Twenty minutes on foot are now four minutes on wheels, for everyone who asks.',
  main: [
    opening(
      'tmpath',
      'A row of small lamps leading over the moor to a lit dome',
      'The path, with its lamps at the height of a knee.',
    ),
    paragraphs(
      para(
        'The path from the gate is firm and level, and it is also long. Since August a small electric buggy waits at the gate on every open night. It takes two people and a folded wheelchair, and it has no headlamps: the driver knows the way.',
      ),
      para(
        'Friends of the observatory paid for it in one winter. ',
        linked('Tell us before you come', to('questions', 'access')),
        ', and it will be there when you are.',
      ),
    ),
  ],
  next: [
    heading(2, 'Getting here', { base: { step: 'title' } }),
    button('How to find us', to('visit', 'getting-here')),
  ],
})
