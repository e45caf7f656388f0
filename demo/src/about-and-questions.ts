/** Who runs the observatory, and what people ask. */
import { heroSection, page, pressed, to } from './page-parts.ts'
import {
  block,
  button,
  heading,
  label,
  linked,
  para,
  picture,
  row,
  section,
  stack,
  text,
  type Sketch,
} from './sketch.ts'

export const about = page(
  'a',
  heroSection(
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
      { base: { gap: 'm' }, narrow: { direction: 'down', gap: 's' } },
      ...[
        pressed('tmsaturn', 'A banded planet with wide bright rings', 'Show', to('openNights'), {
          words: 'Open nights from October to March, for anyone who comes up the path.',
          action: 'See the nights',
        }),
        pressed('tmcluster', 'Eleven bright stars wrapped in blue haze', 'Teach', to('schools'), {
          words: 'School visits by day and by night, with plans that fit the lessons.',
          action: 'Ask about schools',
        }),
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

const question = (title: string, answer: string | ReturnType<typeof para>): Sketch =>
  stack(
    { name: title, base: { gap: 'hair' } },
    heading(3, title, { base: { step: 'minor' } }),
    text(typeof answer === 'string' ? answer : [answer]),
  )

interface Group {
  readonly title: string
  readonly about: string
  readonly anchor?: string
  readonly surface?: string
}

/** Questions of one kind, beside what they are about. */
const group = ({ title, about: words, anchor, surface }: Group, ...asked: Sketch[]): Sketch =>
  section(
    {
      name: title,
      ...(surface ? { look: { surface } } : {}),
      ...(anchor ? { anchor } : {}),
      base: { above: 'l', below: 'l' },
    },
    row(
      { base: { share: 'last', gap: 'l', align: 'start' }, narrow: { direction: 'down', gap: 'm' } },
      stack({ base: { gap: 'xs' } }, heading(2, title, { base: { step: 'title' } }), text(words)),
      stack({ base: { gap: 'm' } }, ...asked),
    ),
  )

export const questions = page(
  'q',
  section(
    {
      name: 'Questions',
      look: { surface: 'night', shade: 'side' },
      backdrop: { id: 'tmpath', focus: { x: 80, y: 60 } },
      base: { above: 'xl', below: 'l', gap: 's' },
    },
    label('Before you come'),
    heading(1, 'Questions people ask', { base: { step: 'headline' } }),
    text('If yours is not here, ask it on the door line, or under the stars.', { look: { variant: 'lead' } }),
  ),
  group(
    { title: 'At the dome', about: 'What to expect once you are up here.' },
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
  ),
  group(
    {
      title: 'Getting here',
      about: 'On foot, on wheels, and after dark.',
      anchor: 'access',
      surface: 'tint',
    },
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
    ),
  ),
  group(
    { title: 'Groups', about: 'Classes, clubs and birthdays.', anchor: 'schools' },
    question(
      'Do you take schools?',
      para(
        'Any weekday, and one night a month from November. We have ',
        linked('plans for each school year', to('schools')),
        ', and we come to you when it rains.',
      ),
    ),
  ),
  section(
    { name: 'Still wondering?', look: { surface: 'lamp' }, base: { below: 'l', above: 'l' } },
    row(
      {
        base: { share: 'own', justify: 'space-between', align: 'center', gap: 'm' },
        narrow: { direction: 'down' },
      },
      stack(
        { base: { gap: 'xs' } },
        heading(2, 'Still wondering?', { base: { step: 'title' } }),
        text('Write, or ring the door line in the afternoon. Somebody is usually polishing something.'),
      ),
      button('Write to us', { href: 'mailto:door@tarrowmoor.example' }),
    ),
  ),
)
