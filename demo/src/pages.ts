/** The words and arrangement of the sample site's pages. */
import type { Page } from '@gullyline/core'
import { morePages } from './more-pages.ts'
import { PAGE_IDS, pressed, to, type DemoPage } from './page-parts.ts'
import {
  block,
  bold,
  button,
  document,
  heading,
  label,
  linked,
  list,
  para,
  picture,
  row,
  section,
  stack,
  text,
  type Sketch,
} from './sketch.ts'

const page = (prefix: string, ...sections: Sketch[]): Page =>
  document(prefix, { kind: 'page', inside: sections })

const hero = (
  title: string,
  backdrop: { id: string; focus?: { x: number; y: number } },
  base: Record<string, string>,
  ...more: Sketch[]
): Sketch =>
  section(
    { name: 'Welcome', look: { surface: 'night', shade: 'side' }, backdrop, base: { gap: 's', ...base } },
    ...more.slice(0, 1),
    heading(1, title),
    ...more.slice(1),
  )

const card = (id: string, alt: string, title: string, words: string, more: Sketch): Sketch =>
  stack(
    { name: title, look: { surface: 'tint', radius: 'm' }, base: { gap: 's', inset: 's' } },
    picture(id, alt, { look: { radius: 's' }, base: { ratio: '3/2' } }),
    heading(3, title),
    text(words),
    more,
  )

const friend = section(
  { name: 'Become a friend', look: { surface: 'lamp' }, base: { above: 'l', below: 'l' } },
  row(
    {
      base: { share: 'own', justify: 'space-between', align: 'center', gap: 'm' },
      narrow: { direction: 'down', align: 'start' },
    },
    stack(
      { base: { gap: 'xs' } },
      heading(2, 'Keep the dome turning', { base: { step: 'title' } }),
      text(
        'Friends pay for mirrors, heaters and mince pies. From 20 a year, with a seat kept on every open night.',
      ),
    ),
    button('Become a friend', to('about', 'friends')),
  ),
)

const home = page(
  'h',
  hero(
    'Come and look through the big one',
    { id: 'tmdome', focus: { x: 60, y: 70 } },
    { height: 'tall', place: 'end', below: 'xl' },
    label('Every clear Friday, October to March'),
    text('A public observatory on a dark moor, run by people who would be up at night anyway.', {
      look: { variant: 'lead' },
    }),
    row(
      { base: { share: 'own', gap: 's', wrap: true } },
      button('Plan your visit', to('visit')),
      button('What you will see', { href: '#tonight' }, { look: { variant: 'line' } }),
    ),
  ),
  section(
    { name: 'What happens', base: { above: 'xl', below: 'm' } },
    row(
      { base: { gap: 'l' }, narrow: { direction: 'down', gap: 's' } },
      heading(2, 'What happens on an open night'),
      text([
        para(
          'We open the dome at dusk. A volunteer shows you three or four things worth seeing that week, and stays for questions.',
        ),
        para(
          'There is tea in the hut, a red torch for everyone, and no such thing as a silly question. ',
          linked('Read what people ask', to('questions')),
          '.',
        ),
      ]),
    ),
  ),
  section(
    { name: 'Next open nights', anchor: 'tonight', base: { above: 'm' } },
    row(
      { base: { gap: 'm' }, narrow: { direction: 'down' } },
      card(
        'tmmoon',
        'The Moon half lit, with craters along the line of shadow',
        'The Moon at first quarter',
        'Friday 27 November, 18:30. The best week for shadows in craters.',
        text([para(bold('14 seats left'))], { look: { variant: 'note' } }),
      ),
      card(
        'tmsaturn',
        'A banded planet with wide bright rings',
        'Saturn and its shadow',
        'Friday 4 December, 18:00. The rings are tipped towards us this year.',
        text([para(bold('Sold out'), ' — come for tea and the naked-eye sky')], {
          look: { variant: 'note' },
        }),
      ),
      card(
        'tmcluster',
        'Eleven bright stars wrapped in blue haze',
        'Winter clusters',
        'Friday 11 December, 18:00. Families of young stars, seen in one view.',
        text([para(bold('22 seats left'))], { look: { variant: 'note' } }),
      ),
    ),
  ),
  section(
    { name: 'A dark place', look: { surface: 'night' } },
    row(
      { base: { align: 'center' }, narrow: { direction: 'down' } },
      picture('tmpath', 'A row of small lamps leading over the moor to a lit dome', {
        look: { radius: 'm' },
        base: { ratio: '4/3' },
      }),
      stack(
        { base: { gap: 's' } },
        label('Nine miles from the nearest street lamp'),
        heading(2, 'A dark place, kept dark'),
        text(
          'On a clear night without a Moon you can see your own hand by starlight. We keep it that way: the path is lit with lamps no brighter than a candle, and they go out at nine.',
        ),
        button('How to get here', to('visit', 'getting-here'), { look: { variant: 'line' } }),
      ),
    ),
  ),
  section(
    { name: 'A visitor', base: { width: 'reading' } },
    text('“I had seen the rings in books. I had not seen them move.”', {
      look: { variant: 'lead' },
      base: { align: 'center' },
    }),
    text('From the visitors’ book, November', { look: { variant: 'note' }, base: { align: 'center' } }),
  ),
  friend,
)

const visit = page(
  'v',
  hero(
    'Visit us',
    { id: 'tmdusk', focus: { x: 50, y: 65 } },
    { height: 'half', place: 'end', below: 'l' },
    label('Open nights, school days and quiet Sundays'),
    text('Come as you are, but come warm. The dome is as cold as the night outside.', {
      look: { variant: 'lead' },
    }),
  ),
  section(
    { name: 'Opening hours', anchor: 'hours' },
    row(
      { base: { gap: 'l' }, narrow: { direction: 'down' } },
      stack(
        { base: { gap: 's' } },
        heading(2, 'Opening hours'),
        text([
          para(bold('Friday'), ', October to March: 18:00 to 22:00, when the sky is clear'),
          para(bold('Saturday'), ', all year: 14:00 to 17:00, to see the Sun safely'),
          para(bold('Schools'), ': any weekday, by arrangement'),
        ]),
        text(
          'We decide at 16:00 whether a night goes ahead, and say so on the door line: 01632\u00a0960\u00a0145.',
          { look: { variant: 'note' } },
        ),
      ),
      stack(
        { look: { surface: 'tint', radius: 'm' }, base: { inset: 'm', gap: 's' } },
        heading(3, 'What it costs'),
        text([
          list(
            [bold('Grown-ups'), ': 6'],
            [bold('Under 16'), ': nothing'],
            [bold('Friends'), ': nothing, all year'],
          ),
        ]),
        button('Ask for a place', { href: 'mailto:door@tarrowmoor.example' }),
      ),
    ),
  ),
  section(
    { name: 'Getting here', anchor: 'getting-here', look: { surface: 'tint' } },
    row(
      { base: { align: 'center', share: 'last' }, narrow: { direction: 'down' } },
      stack(
        { base: { gap: 's' } },
        heading(2, 'Getting here'),
        text([
          para(bold('By bus'), ': line 14 to Tarrow Gate, then twenty minutes on the lit path.'),
          para(
            bold('By car'),
            ': the car park is below the ridge. Please turn off your headlamps at the gate.',
          ),
          para(
            bold('With wheels'),
            ': the path is firm and level, and there is a lift to the eyepiece. ',
            linked('More on access', to('questions', 'access')),
            '.',
          ),
        ]),
      ),
      picture('tmnight', 'Visitors standing on the ridge under the Milky Way', {
        look: { radius: 'm' },
        base: { ratio: '3/2' },
        caption: 'The ridge at half past nine, on a night in February.',
      }),
    ),
  ),
  section(
    { name: 'What to bring' },
    heading(2, 'What to bring'),
    row(
      { base: { gap: 'm' }, narrow: { direction: 'down', gap: 's' } },
      stack(
        { base: { gap: 'hair' } },
        heading(3, 'More clothes than you think'),
        text('Two pairs of socks, a hat and gloves. Standing still is colder than walking.'),
      ),
      stack(
        { base: { gap: 'hair' } },
        heading(3, 'A red light, or none'),
        text('White light takes away everyone’s night sight for twenty minutes. We lend red torches.'),
      ),
      stack(
        { base: { gap: 'hair' } },
        heading(3, 'A question'),
        text('The people at the telescope know a lot and like being asked.'),
      ),
    ),
  ),
  friend,
)

const about = page(
  'a',
  hero(
    'Run by people who stay up late',
    { id: 'tmnight', focus: { x: 50, y: 90 } },
    { height: 'half', place: 'end', below: 'l' },
    label('About Tarrowmoor'),
    text('Sixty volunteers, one dome, and a mirror that was ground in a village hall.', {
      look: { variant: 'lead' },
    }),
  ),
  section(
    { name: 'How it began' },
    row(
      { base: { align: 'center', gap: 'l' }, narrow: { direction: 'down' } },
      stack(
        { base: { gap: 's' } },
        heading(2, 'How it began'),
        text([
          para(
            'In the winter of 1961 four people carried a telescope up the moor to see one eclipse. The farmer whose field they had borrowed came to look, and asked them to come back.',
          ),
          para(
            'They did, every month. The dome went up in 1974, out of boat-builder’s plywood. It has been painted eleven times since, and it still turns by hand.',
          ),
        ]),
      ),
      picture('tmdome', 'The dome with its slit open under the Milky Way', {
        look: { radius: 'm' },
        base: { ratio: '4/3' },
        focus: { x: 62, y: 78 },
      }),
    ),
  ),
  section(
    { name: 'A sentence', look: { surface: 'night' }, base: { width: 'reading', above: 'l', below: 'l' } },
    block(
      'quote',
      {
        words: [
          para(
            'Nobody owns the sky, so nobody should be kept from it by a hill, a price or a flight of stairs.',
          ),
        ],
        source: 'Our first set of rules, 1962',
      },
      { look: { variant: 'large' }, base: { align: 'center' } },
    ),
  ),
  section(
    { name: 'What we do' },
    heading(2, 'What we do with your evening'),
    block(
      'columns',
      {},
      { base: { gap: 'm' }, narrow: { direction: 'down' } },
      ...[
        pressed('tmsaturn', 'A banded planet with wide bright rings', 'Show', to('openNights'), {
          words: 'Open nights from October to March, for anyone who comes up the path.',
          action: 'See the nights',
        }),
        pressed(
          'tmcluster',
          'Eleven bright stars wrapped in blue haze',
          'Teach',
          to('questions', 'schools'),
          {
            words: 'School visits by day and by night, with plans that fit the lessons.',
            action: 'Ask about schools',
          },
        ),
        pressed(
          'tmmoon',
          'The Moon half lit, with craters along the line of shadow',
          'Measure',
          to('instruments'),
          {
            words: 'Three of us time eclipses of far stars, and send them where they are used.',
            action: 'With what we measure',
          },
        ),
      ].map((one) => block('column', {}, { base: { share: 33 } }, one)),
    ),
  ),
  section(
    { name: 'Friends', anchor: 'friends', look: { surface: 'lamp' }, base: { above: 'l', below: 'l' } },
    row(
      { base: { share: 'first', align: 'center' }, narrow: { direction: 'down', align: 'start' } },
      stack(
        { base: { gap: 'xs' } },
        heading(2, 'Become a friend'),
        text(
          'Twenty a year keeps the heaters on. Friends get a seat on every open night, the winter letter, and a key to the tea hut.',
        ),
      ),
      button('Write to us', { href: 'mailto:friends@tarrowmoor.example' }),
    ),
  ),
)

const question = (title: string, answer: string | ReturnType<typeof para>, anchor?: string): Sketch =>
  section(
    {
      name: title,
      base: { width: 'reading', above: 's', below: 's', gap: 'hair' },
      ...(anchor ? { anchor } : {}),
    },
    heading(2, title, { base: { step: 'minor' } }),
    text(typeof answer === 'string' ? answer : [answer]),
  )

const questions = page(
  'q',
  section(
    {
      name: 'Questions',
      look: { surface: 'night' },
      base: { width: 'reading', above: 'xl', below: 'l', gap: 's' },
    },
    label('Before you come'),
    heading(1, 'Questions people ask', { base: { step: 'headline' } }),
    text('If yours is not here, ask it on the door line, or under the stars.', { look: { variant: 'lead' } }),
  ),
  question(
    'Is it warm inside?',
    'No. The dome must be as cold as the air outside, or the stars shimmer. The tea hut is warm, and is next door.',
  ),
  question(
    'Can children come?',
    'Yes, and they come free. The first hour of every open night is meant for them, and a step stands at the eyepiece.',
  ),
  question(
    'What if it is cloudy?',
    para(
      'We decide at 16:00 and say so on the door line. If you had a place, it moves to the next clear night. On half-cloudy nights we open and talk between the gaps.',
    ),
  ),
  question(
    'How do I get there without a car?',
    para(
      'Take line 14 to Tarrow Gate. From there it is twenty minutes on ',
      linked('the lit path', to('visit', 'getting-here')),
      '.',
    ),
  ),
  question(
    'Is there access for wheelchairs?',
    'Yes. The path is firm and level, the door is wide, and a lift carries you to the eyepiece of the big telescope. Tell us, and we will meet you at the gate with the buggy.',
    'access',
  ),
  question(
    'Do you take schools?',
    'Any weekday, and one night a month from November. We have plans for each school year, and we come to you when it rains.',
    'schools',
  ),
  section(
    { name: 'Still wondering?', base: { width: 'reading', below: 'xl', above: 'l' } },
    stack(
      { look: { surface: 'tint', radius: 'm' }, base: { inset: 'm', gap: 's' } },
      heading(2, 'Still wondering?', { base: { step: 'title' } }),
      text('Write, or ring the door line in the afternoon. Somebody is usually polishing something.'),
      button('Write to us', { href: 'mailto:door@tarrowmoor.example' }),
    ),
  ),
)

export const pages: readonly DemoPage[] = [
  {
    id: PAGE_IDS.home,
    title: 'Tarrowmoor Observatory',
    slug: '',
    description:
      'A small public observatory on a dark moor: open nights every clear Friday from October to March.',
    document: home,
  },
  {
    id: PAGE_IDS.visit,
    title: 'Visit',
    slug: 'visit',
    description: 'Opening hours, what it costs, how to get here and what to bring.',
    document: visit,
  },
  {
    id: PAGE_IDS.about,
    title: 'About',
    slug: 'about',
    description: 'Who runs Tarrowmoor, how it began, and how to become a friend.',
    document: about,
  },
  {
    id: PAGE_IDS.questions,
    title: 'Questions',
    slug: 'questions',
    description: 'What people ask before their first night at the dome.',
    document: questions,
  },
  ...morePages,
]

export const header: Page = document('th', {
  kind: 'site-header',
  content: { brand: 'Tarrowmoor' },
  look: { surface: 'night' },
})

export const footer: Page = document('tf', {
  kind: 'site-footer',
  look: { surface: 'night' },
  inside: [
    row(
      { base: { gap: 'l' }, narrow: { direction: 'down', gap: 's' } },
      text([para(bold('Tarrowmoor Observatory')), para('Ridge Lane, Tarrow Gate')]),
      text([
        para('Door line: ', linked('01632\u00a0960\u00a0145', { href: 'tel:+441632960145' })),
        para(linked('door@tarrowmoor.example', { href: 'mailto:door@tarrowmoor.example' })),
      ]),
      block('menu', { label: 'All pages' }, { look: { depth: '2' } }),
    ),
    text('Run by volunteers, kept by its friends. Please leave the moor as dark as you found it.', {
      look: { variant: 'note' },
    }),
  ],
})
