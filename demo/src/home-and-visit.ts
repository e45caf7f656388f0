/** The first page of the sample site, and the one for those who come. */
import { card, heroSection, page, shared, to } from './page-parts.ts'
import { callToJoin, openingHours } from './shared-parts.ts'
import {
  bold,
  button,
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
} from './sketch.ts'

export const home = page(
  'h',
  heroSection(
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
    button('What is up this week', to('tonight'), { look: { variant: 'line' } }),
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
  shared(callToJoin),
)

export const visit = page(
  'v',
  heroSection(
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
      stack({ base: { gap: 's' } }, heading(2, 'Opening hours'), shared(openingHours)),
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
  shared(callToJoin),
)
