/** The open nights, and the friends. */
import type { Run } from '@gullyline/core'
import { columns, feature, heroBlock, shared, to, voice, FILE_IDS } from './page-parts.ts'
import { eventCard } from './shared-parts.ts'
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
  text,
  type Sketch,
} from './sketch.ts'

/** Fills in one event card. */
const night = (
  id: string,
  alt: string,
  title: string,
  words: string,
  seats: readonly (string | Run)[],
): Sketch =>
  shared(eventCard, {
    Picture: { id },
    'Picture: alternative text': alt,
    Heading: title,
    Text: [para(words)],
    'Text 2': [para(...seats)],
  })

export const openNights = document('n', {
  kind: 'page',
  inside: [
    heroBlock(
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
      { name: 'Coming up' },
      heading(2, 'Worth coming up for'),
      row(
        { base: { gap: 'm' }, narrow: { direction: 'down' } },
        night(
          'tmmoon',
          'The Moon half lit, with craters along the line of shadow',
          'The Moon, halved',
          'Friday 27 November, 18:30. The best week for shadows in craters.',
          [bold('14 seats left')],
        ),
        night(
          'tmsaturn',
          'A banded planet with wide bright rings',
          'Saturn’s shadow',
          'Friday 4 December, 18:00. It falls across the rings, and moves while you watch.',
          [bold('Sold out'), ' — come for tea and the naked-eye sky'],
        ),
        night(
          'tmcluster',
          'Eleven bright stars wrapped in blue haze',
          'Families of stars',
          'Friday 11 December, 18:00. Three clusters, the youngest no older than a hill.',
          [bold('22 seats left')],
        ),
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
    block(
      'grid',
      {},
      { name: 'On the ridge', base: { gapAcross: 'none', gapDown: 'none' } },
      picture('tmnight', 'Visitors standing on the ridge under the Milky Way', {
        base: { gridColumn: 1, gridRow: 1, gridColumns: 8, gridRows: 5 },
        narrow: { gridColumn: 1, gridRow: 1, gridColumns: 4, gridRows: 4 },
      }),
      block(
        'group',
        { label: 'On the ridge' },
        {
          look: { surface: 'tint', radius: 'm' },
          base: { inset: 'm', gap: 's', gridColumn: 7, gridRow: 2, gridColumns: 6, gridRows: 3, layer: 1 },
          narrow: { gridColumn: 1, gridRow: 4, gridColumns: 4, gridRows: 2 },
        },
        heading(2, 'Ten minutes in the dark'),
        text('That is how long your eyes take. Stand on the ridge, put the phone away, and wait for it.'),
      ),
    ),
    block(
      'grid',
      {},
      {
        name: 'The lit path',
        look: { surface: 'night' },
        base: { width: 'edge', above: 'none', below: 'none', gapAcross: 'none', gapDown: 'none' },
      },
      picture('tmpath', 'A row of small lamps leading over the moor to a lit dome', {
        base: { gridColumn: 1, gridRow: 1, gridColumns: 6, gridRows: 4 },
      }),
      block(
        'group',
        { label: 'The lit path' },
        { base: { inset: 'l', gap: 's', gridColumn: 7, gridRow: 1, gridColumns: 6, gridRows: 4 } },
        heading(2, 'The lit path'),
        text('Lamps at knee height lead from the gate to the dome. They are red, and they are enough.'),
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

export const friend = document('k', {
  kind: 'page',
  content: { layout: 'landing' },
  inside: [
    heroBlock(
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
