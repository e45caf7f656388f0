/** The sky of this week, and days and nights for schools. */
import { columns, feature, heroBlock, shared, to, voice } from './page-parts.ts'
import { callToJoin, openingHours, skyCard } from './shared-parts.ts'
import {
  block,
  bold,
  button,
  document,
  heading,
  label,
  linked,
  para,
  row,
  section,
  stack,
  text,
  type Sketch,
} from './sketch.ts'

/** Fills in one sky card: the picture and its alternative text, the name, a sentence, and the direction to look in. */
const seen = (id: string, alt: string, title: string, words: string, where: string): Sketch =>
  shared(skyCard, {
    Picture: { id },
    'Picture: alternative text': alt,
    Heading: title,
    Text: [para(words)],
    'Text 2': [para(bold(where))],
  })

export const tonight = document('t', {
  kind: 'page',
  inside: [
    heroBlock(
      'Tonight’s sky',
      { id: 'tmdome', focus: { x: 60, y: 60 } },
      'The dome with its slit open under the Milky Way',
      label('23 to 29 November'),
      text('What is up over the moor this week, and where to look for it.', { look: { variant: 'lead' } }),
    ),
    section(
      { name: 'Worth staying up for' },
      heading(2, 'Worth staying up for'),
      row(
        { base: { gap: 'm' }, narrow: { direction: 'down' } },
        seen(
          'tmmoon',
          'The Moon half lit, with craters along the line of shadow',
          'The Moon',
          'Half lit on Tuesday. The mountains along its middle throw their longest shadows until nine.',
          'South, after dark',
        ),
        seen(
          'tmsaturn',
          'A banded planet with wide bright rings',
          'Saturn',
          'Its rings are nearly edge on, so that its moons pass along them like beads on a wire.',
          'South-west, until eleven',
        ),
        seen(
          'tmcluster',
          'Eleven bright stars wrapped in blue haze',
          'The winter cluster',
          'Count its stars with your eyes alone: six is good, eight is very good, eleven is a boast.',
          'East, after eight',
        ),
      ),
    ),
    section(
      { name: 'By the clock', look: { surface: 'tint' } },
      heading(2, 'By the clock'),
      block(
        'table',
        {
          caption: 'Times for Tarrowmoor, in the middle of the week',
          heads: 'both',
          rows: [
            ['When', 'What to look for', 'With'],
            ['16:10', 'The Sun sets, and the ridge turns violet', 'Your eyes'],
            ['17:20', 'The comet, to the left of the bright star', 'Your eyes'],
            ['18:30', 'Shadows on the Moon', 'Field glasses'],
            ['20:00', 'The winter cluster clears the hill', 'Your eyes'],
            ['22:45', 'Saturn goes down behind the wood', 'A telescope'],
          ],
        },
        { look: { variant: 'lines' } },
      ),
    ),
    section(
      { name: 'Come up', look: { surface: 'night' }, base: { width: 'reading', alignment: 'center' } },
      heading(2, 'Better with company'),
      text([
        para(
          'Everything on this page can be seen from a dark garden. From the dome you see more of it, with somebody beside you who knows its name. ',
          linked('The path is lit', to('visit', 'getting-here')),
          '.',
        ),
      ]),
      shared(openingHours),
      button('See the open nights', to('openNights')),
    ),
    shared(callToJoin),
  ],
})

export const schools = document('s', {
  kind: 'page',
  inside: [
    heroBlock(
      'A sky for every class',
      { id: 'tmpath', focus: { x: 60, y: 60 } },
      'A row of small lamps leading over the moor to a lit dome',
      label('Schools'),
      text('By day with the Sun, by night with everything else. It costs your school nothing.', {
        look: { variant: 'lead' },
      }),
      block(
        'button-group',
        {},
        {},
        button('Ask for a day', { href: 'mailto:schools@tarrowmoor.example' }),
        button('What you will do', { href: '#what-you-will-do' }, { look: { variant: 'line' } }),
      ),
    ),
    section(
      { name: 'What you will do' },
      heading(2, 'What you will do'),
      columns(
        [34, feature('sun', 'Morning', 'We look at the Sun, safely, and find out how fast it turns.')],
        [33, feature('hammer', 'Noon', 'Everyone builds a small telescope from card, and takes it home.')],
        [33, feature('moon', 'Evening', 'Once a month from November: the Moon, and soup in the hut.')],
      ),
    ),
    section(
      { name: 'By age', look: { surface: 'tint' } },
      row(
        { base: { share: 'last', gap: 'l', align: 'start' }, narrow: { direction: 'down' } },
        stack(
          { base: { gap: 's' } },
          heading(2, 'Plans by age'),
          text('Each fits the lessons of its year, and needs nothing that a school does not have.'),
        ),
        block(
          'table',
          {
            caption: 'Every plan takes one school day',
            heads: 'both',
            rows: [
              ['Age', 'What it is about', 'Size of class'],
              ['6 to 8', 'Day, night and shadows', 'Up to 20'],
              ['9 to 11', 'The Moon and its month', 'Up to 24'],
              ['12 to 14', 'How far is a star?', 'Up to 30'],
              ['15 to 18', 'Light, weighed and measured', 'Up to 16'],
            ],
          },
          { look: { variant: 'lines' } },
        ),
      ),
    ),
    section(
      { name: 'What teachers say' },
      heading(2, 'What teachers say'),
      block(
        'voices',
        { label: 'What teachers say' },
        { base: { shows: '2' }, narrow: { shows: '1' } },
        voice(
          'They talked about it until Easter. I have never been asked so many questions on a bus.',
          'Mrs Haddow',
          'Tarrow Gate primary school',
        ),
        voice(
          'It rained, so they came to us, with a telescope and a Moon in a suitcase.',
          'Mr Lund',
          'Ridge school',
        ),
      ),
    ),
    section(
      { name: 'Ask for a day', look: { surface: 'lamp' }, base: { above: 'l', below: 'l' } },
      row(
        {
          base: { share: 'own', justify: 'space-between', align: 'center', gap: 'm' },
          narrow: { direction: 'down' },
        },
        stack(
          { base: { gap: 'xs' } },
          heading(2, 'Ask for a day', { base: { step: 'title' } }),
          text('Write with two dates that suit you. We answer within a week, and come to you when it rains.'),
        ),
        button('Write to us', { href: 'mailto:schools@tarrowmoor.example' }),
      ),
    ),
  ],
})
