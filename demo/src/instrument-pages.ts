/** What Tarrowmoor looks with. */
import { heroBlock, panel, shared, to } from './page-parts.ts'
import { instrumentCard } from './shared-parts.ts'
import {
  block,
  bold,
  document,
  heading,
  label,
  linked,
  list,
  para,
  picture,
  row,
  section,
  text,
} from './sketch.ts'

export const instruments = document('i', {
  kind: 'page',
  inside: [
    heroBlock(
      'Instruments',
      { id: 'tmdome', focus: { x: 62, y: 70 } },
      'The dome with its slit open under the Milky Way',
      label('What we look with'),
      text('Two that we built, a dozen that you may borrow, and your own two eyes.', {
        look: { variant: 'lead' },
      }),
    ),
    section(
      { name: 'Two that we built', base: { above: 'l', below: 'l' } },
      heading(2, 'Two that we built'),
      block(
        'sub-pages',
        {},
        { look: { variant: 'tiles' }, base: { columns: '2' }, narrow: { columns: '1' } },
      ),
    ),
    section(
      { name: 'To borrow' },
      heading(2, 'Two that you may borrow'),
      row(
        { base: { gap: 'm', align: 'start' }, narrow: { direction: 'down' } },
        shared(
          instrumentCard,
          {
            Picture: { id: 'tmcluster' },
            'Picture: alternative text': 'Eleven bright stars wrapped in blue haze',
            Heading: 'Field glasses',
            Text: [para('Seven times larger, and enough light for every cluster in the sky.')],
          },
          {
            'What can be done': [
              block(
                'list',
                { words: [list('Lent at the gate', 'Back by ten')] },
                { look: { variant: 'ticks' } },
              ),
            ],
          },
        ),
        shared(instrumentCard, {
          Picture: { id: 'tmmoon' },
          'Picture: alternative text': 'The Moon half lit, with craters along the line of shadow',
          Heading: 'The small telescope',
          Text: [para('Sixty times larger. It fits in a rucksack, and comes with a map of the Moon.')],
        }),
      ),
    ),
    section(
      { name: 'In pictures', look: { surface: 'night' } },
      heading(2, 'Seen through them'),
      block(
        'slides',
        { label: 'Seen through our instruments' },
        { look: { canPlay: true }, base: { shows: '2' }, narrow: { shows: '1' } },
        block('slide', {
          media: { id: 'tmmoon' },
          alt: 'The Moon half lit, with craters along the line of shadow',
          title: 'The Moon',
          caption: 'Sixty times larger, on a night in March',
        }),
        block('slide', {
          media: { id: 'tmsaturn' },
          alt: 'A banded planet with wide bright rings',
          title: 'Saturn',
          caption: 'The big telescope, two hundred times larger',
        }),
        block('slide', {
          media: { id: 'tmcluster' },
          alt: 'Eleven bright stars wrapped in blue haze',
          title: 'A winter cluster',
          caption: 'Twenty minutes of light, gathered by the small camera',
        }),
      ),
    ),
    section(
      { name: 'Which for what' },
      heading(2, 'Which for what'),
      block(
        'panels',
        {},
        { look: { display: 'across' } },
        panel(
          'With your eyes',
          text([
            para(
              'Nothing beats a dark sky and twenty minutes of patience. We teach you six constellations, and they stay with you.',
            ),
          ]),
        ),
        panel(
          'With field glasses',
          text([para('The best for ', bold('star clusters'), ' and the Moon. We lend them at the gate.')]),
        ),
        panel(
          'With a telescope',
          text([para('For planets, double stars and everything faint. Queues are short after nine.')]),
          block(
            'button',
            { text: 'About the big one', link: to('bigTelescope') },
            { look: { variant: 'quiet' } },
          ),
        ),
      ),
    ),
    section(
      { name: 'Gallery', look: { surface: 'tint' } },
      heading(2, 'Around the dome'),
      block(
        'gallery',
        { label: 'Pictures from around the dome' },
        { look: { radius: 'm' }, base: { columns: '3' }, narrow: { columns: '2' } },
        picture('tmdome', 'The dome with its slit open under the Milky Way'),
        picture('tmpath', 'A row of small lamps leading over the moor to a lit dome', {
          crop: { x: 8, y: 32.4, width: 76, height: 67.6, shape: 1.333 },
        }),
        picture('tmdusk', 'The dome on the moor as the last light goes'),
      ),
    ),
  ],
})

export const bigTelescope = document('b', {
  kind: 'page',
  content: { layout: 'side' },
  slots: {
    sections: [
      section(
        { name: 'The big telescope', base: { above: 'm', below: 'none' } },
        block('breadcrumb', {}),
        heading(1, 'The big telescope'),
        text('A mirror of sixty centimetres, ground in a village hall.', { look: { variant: 'lead' } }),
      ),
    ],
    main: [
      picture('tmdome', 'The dome with its slit open under the Milky Way', {
        look: { radius: 'm' },
        base: { ratio: '16/9' },
      }),
      heading(2, 'How it was made'),
      text([
        para(
          'The glass came as a ship’s window. Nine people ground it for two winters, and tested it with a knife’s edge and a lamp.',
        ),
        para('It was silvered in 1973 and has been silvered again every ten years since.'),
      ]),
      heading(2, 'What it shows'),
      text([
        para(
          'Rings and moons, the shadows of those moons, galaxies as soft stains, and the colours of double stars.',
        ),
      ]),
      heading(2, 'How to reach the eyepiece'),
      text([
        para('By four steps, or by the lift. ', linked('More on access', to('questions', 'access')), '.'),
      ]),
    ],
    side: [
      block('jump-list', { label: 'On this page' }),
      block(
        'group',
        { label: 'In numbers' },
        { look: { surface: 'tint', radius: 'm' }, base: { inset: 'm', gap: 's' } },
        heading(2, 'In numbers', { base: { step: 'minor' } }),
        block('table', {
          rows: [
            ['Mirror', '60 cm'],
            ['Length', '2.7 m'],
            ['Weight', '410 kg'],
            ['First light', '1974'],
          ],
          heads: 'column',
          caption: 'The big telescope',
        }),
      ),
    ],
  },
})

export const radio = document('r', {
  kind: 'page',
  inside: [
    section(
      { name: 'The radio dish', base: { above: 'm' } },
      block('breadcrumb', {}),
      heading(1, 'The radio dish'),
      text('Three metres of wire mesh that hears the Sun, by day and through clouds.', {
        look: { variant: 'lead' },
      }),
      block(
        'panels',
        {},
        { look: { display: 'fold', firstOpen: true } },
        panel('What does it hear?', text('The Sun, Jupiter’s storms, and hydrogen all along the Milky Way.')),
        panel('May I use it?', text('Yes, on Saturdays. It takes ten minutes to learn.')),
      ),
    ),
    // Left with three gullies on purpose, for those who try the program: a broken word, a picture alone in its row, a long line.
    section(
      { name: 'A week of listening', look: { surface: 'tint' } },
      heading(2, 'A week of listening'),
      row({ base: { gap: 'm' } }, heading(3, 'Thunderstorms'), heading(3, 'Rain'), heading(3, 'The Sun')),
      block('list', {
        words: [
          list(
            'Each crackle below was thunder somewhere over the sea, up to nine hundred kilometres away, and none of it was heard by anybody on the moor.',
          ),
        ],
      }),
      block(
        'gallery',
        { label: 'The dish through a week' },
        { look: { radius: 'm' }, base: { columns: '3' }, narrow: { columns: '2' } },
        picture('tmdusk', 'The dish’s hill as the last light goes'),
        picture('tmdome', 'The Milky Way over the hill of the dish'),
        picture('tmsaturn', 'Saturn with its rings, on the quietest night'),
        picture('tmpath', 'The lamps along the path to the dish'),
      ),
    ),
  ],
})
