/** The sample site's pages around its first four: open nights, instruments, news, friends. */
import {
  bold,
  block,
  button,
  document,
  heading,
  label,
  linked,
  list,
  para,
  picture,
  section,
  text,
  type Sketch,
} from './sketch.ts'
import { FILE_IDS, PAGE_IDS, to, type DemoPage } from './page-parts.ts'

const hero = (
  title: string,
  media: { id: string; focus?: { x: number; y: number } },
  alt: string,
  ...more: Sketch[]
): Sketch =>
  block(
    'hero',
    { media, alt },
    { name: 'Welcome', look: { surface: 'night', shade: 'side' }, base: { height: 'half', room: 'l' } },
    ...more.slice(0, 1),
    heading(1, title),
    ...more.slice(1),
  )
const columns = (...inside: readonly (readonly [share: number, ...blocks: Sketch[]])[]): Sketch =>
  block(
    'columns',
    {},
    { base: { gap: 'm' }, narrow: { direction: 'down' } },
    ...inside.map(([share, ...blocks]) => block('column', {}, { base: { share } }, ...blocks)),
  )
const feature = (icon: string, title: string, words: string, level = 3): Sketch =>
  block('feature', { icon, heading: title, level, words: [para(words)] }, { look: { variant: 'disc' } })
const panel = (title: string, ...inside: Sketch[]): Sketch => block('panel', { label: title }, {}, ...inside)
const voice = (said: string, who: string, role: string): Sketch =>
  block('voice', { said, who, role }, { look: { surface: 'tint' } })

const openNights = document('n', {
  kind: 'page',
  inside: [
    hero(
      'Open nights and talks',
      { id: 'tmnight', focus: { x: 50, y: 85 } },
      'Visitors standing on the ridge under the Milky Way',
      label('October to March, every clear Friday'),
      text('Come for an hour or stay until we close. There is always somebody to ask.', {
        look: { variant: 'lead' },
      }),
      block(
        'button-group',
        {},
        {},
        button('See the dates', { href: '#the-next-nights' }),
        button('How to get here', to('visit', 'getting-here'), { look: { variant: 'line' } }),
      ),
    ),
    section(
      { name: 'Dates' },
      heading(2, 'The next nights'),
      block(
        'table',
        {
          caption: 'Doors open half an hour earlier',
          heads: 'row',
          rows: [
            ['Night', 'What you will see', 'Begins', 'Seats'],
            ['27 November', 'The Moon at first quarter', '18:30', '14 left'],
            ['4 December', 'Saturn and its shadow', '18:00', 'Sold out'],
            ['11 December', 'Winter clusters', '18:00', '22 left'],
            ['18 December', 'Talk: how stars are weighed', '19:00', '31 left'],
          ],
        },
        { look: { variant: 'stripes' } },
      ),
      button(
        'Put them in your calendar (ICS file)',
        { file: FILE_IDS.nights },
        { look: { variant: 'line' } },
      ),
    ),
    section(
      { name: 'How a night goes', look: { surface: 'tint' } },
      heading(2, 'How a night goes'),
      columns(
        [
          34,
          feature('torch', 'Six o’clock', 'You are met at the gate, and given a red torch and a cup of tea.'),
        ],
        [
          33,
          feature(
            'telescope',
            'Half past six',
            'Three or four things are shown in the big telescope, one after another.',
          ),
        ],
        [33, feature('talk', 'Until ten', 'You look again at what you liked, and ask what you wondered.')],
      ),
    ),
    section(
      { name: 'What people say' },
      heading(2, 'From the visitors’ book'),
      block(
        'voices',
        { label: 'From the visitors’ book' },
        { base: { shows: '3' }, medium: { shows: '2' }, narrow: { shows: '1' } },
        voice('I had seen the rings in books. I had not seen them move.', 'Orla', 'came with her school'),
        voice('My father is ninety, and he said it was worth the wait.', 'Bram', 'came by the lit path'),
        voice('We stayed for the tea and forgot the cold.', 'Ilse and Tom', 'come every year'),
      ),
    ),
    section(
      { name: 'Before you come', look: { surface: 'night' } },
      block(
        'group',
        { label: 'Before you come' },
        { base: { gap: 's' } },
        heading(2, 'Before you come'),
        block(
          'list',
          {
            words: [
              list('Two pairs of socks and a hat', 'No white light after the gate', 'Dogs stay at home', [
                linked('Ask us anything', to('questions')),
              ]),
            ],
          },
          { look: { variant: 'ticks' }, base: { columns: '2' }, narrow: { columns: '1' } },
        ),
      ),
    ),
  ],
})

const instruments = document('i', {
  kind: 'page',
  inside: [
    section(
      { name: 'Instruments', base: { above: 'm', below: 's' } },
      block('breadcrumb', {}),
      heading(1, 'Instruments'),
      text('What we look with, and what each of them is good for.', { look: { variant: 'lead' } }),
      block(
        'sub-pages',
        {},
        { look: { variant: 'tiles' }, base: { columns: '2' }, narrow: { columns: '1' } },
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
        picture('tmpath', 'A row of small lamps leading over the moor to a lit dome'),
        picture('tmdusk', 'The dome on the moor as the last light goes'),
      ),
    ),
  ],
})

const bigTelescope = document('b', {
  kind: 'page',
  content: { frame: 'side' },
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

const radio = document('r', {
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
  ],
})

const news = document('w', {
  kind: 'page',
  inside: [
    section(
      { name: 'News', base: { above: 'm' } },
      block('breadcrumb', {}),
      heading(1, 'News'),
      text('What happened on the ridge, newest first.', { look: { variant: 'lead' } }),
      block('sub-pages', {}),
    ),
  ],
})

const comet = document('c', {
  kind: 'page',
  content: {
    frame: 'article',
    title: 'A comet over the moor',
    author: 'Ines',
    date: '2026-11-20',
    summary: 'It is faint, it is green, and it will not be back for eight hundred years.',
  },
  slots: {
    main: [
      picture('tmdusk', 'The dome on the moor as the last light goes', {
        look: { radius: 'm' },
        base: { ratio: '16/9' },
        caption: 'The western sky on the evening it was first seen from here.',
      }),
      text([
        para(
          'On Thursday, a little after five, four of us saw it from the car park without any help at all: a small soft light above the ridge, with a tail no longer than a thumb.',
        ),
        para(
          'You need no telescope. Come before six, let your eyes rest for ten minutes, and look to the left of the bright star over the gate.',
        ),
      ]),
      block('quote', {
        words: [para('I thought it was breath on my glasses.')],
        who: 'Tarn',
        source: 'first to see it',
      }),
      text([
        para(
          'We stay open for it until the end of the month. ',
          linked('See the nights', to('openNights')),
          '.',
        ),
      ]),
    ],
    sections: [
      section(
        { name: 'Next step', look: { surface: 'lamp' }, base: { above: 'm', below: 'm' } },
        heading(2, 'See it with us', { base: { step: 'title' } }),
        button('Plan your visit', to('visit')),
      ),
    ],
  },
})

const friend = document('k', {
  kind: 'page',
  content: { frame: 'landing' },
  inside: [
    hero(
      'Keep the dome turning',
      { id: 'tmpath', focus: { x: 60, y: 60 } },
      'A row of small lamps leading over the moor to a lit dome',
      label('Become a friend'),
      text('From 20 a year, with a seat kept for you on every open night.', { look: { variant: 'lead' } }),
      block('button-group', {}, {}, button('Write to us', { href: 'mailto:door@tarrowmoor.example' })),
    ),
    section(
      { name: 'What friends get', look: { surface: 'tint' } },
      heading(2, 'What friends get'),
      columns(
        [34, feature('ticket', 'A seat', 'On every open night, kept until half past six.')],
        [33, feature('book', 'The almanac', 'Twelve pages each winter, with the sky of every month.')],
        [33, feature('cup', 'The hut', 'Mince pies in December, and soup when it is cold.')],
      ),
    ),
    section(
      { name: 'A friend', base: { width: 'reading' } },
      block(
        'quote',
        {
          words: [para('It costs less than a pair of boots, and lasts longer.')],
          who: 'A friend since 1988',
        },
        { look: { variant: 'plain' }, base: { align: 'center' } },
      ),
    ),
  ],
})

export const morePages: readonly DemoPage[] = [
  {
    id: PAGE_IDS.openNights,
    title: 'Open nights',
    slug: 'open-nights',
    description: 'When the dome is open, what you will see, and what to bring.',
    document: openNights,
  },
  {
    id: PAGE_IDS.instruments,
    title: 'Instruments',
    slug: 'instruments',
    description: 'What Tarrowmoor looks with, and what each instrument is good for.',
    document: instruments,
  },
  {
    id: PAGE_IDS.bigTelescope,
    parentId: PAGE_IDS.instruments,
    inNavigation: false,
    title: 'The big telescope',
    slug: 'big-telescope',
    description: 'A mirror of sixty centimetres, ground in a village hall.',
    document: bigTelescope,
  },
  {
    id: PAGE_IDS.radio,
    parentId: PAGE_IDS.instruments,
    inNavigation: false,
    title: 'The radio dish',
    slug: 'radio-dish',
    description: 'Three metres of wire mesh that hears the Sun.',
    document: radio,
  },
  {
    id: PAGE_IDS.news,
    title: 'News',
    slug: 'news',
    description: 'What happened on the ridge, newest first.',
    document: news,
    more: { theme: 'moss' },
  },
  {
    id: PAGE_IDS.comet,
    parentId: PAGE_IDS.news,
    inNavigation: false,
    title: 'A comet over the moor',
    slug: 'comet',
    description: 'It is faint, it is green, and it will not be back for eight hundred years.',
    document: comet,
    more: { theme: 'moss', sharePicture: 'tmdusk' },
  },
  {
    id: PAGE_IDS.friend,
    inNavigation: false,
    title: 'Become a friend',
    slug: 'friend',
    description: 'Friends pay for mirrors, heaters and mince pies.',
    document: friend,
    more: { isListed: true },
  },
]
