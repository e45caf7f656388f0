/** What stands on several pages of the sample site, and is the same on all of them. */
import { defaultRegistry, withFieldsForAll, withRootId, type ComponentSlot, type Json } from '@gullyline/core'
import { card, to, type DemoPart } from './page-parts.ts'
import { bold, button, document, heading, para, row, section, stack, text, type Sketch } from './sketch.ts'

export const openingHours: DemoPart = {
  id: 'tmhours',
  name: 'Opening hours',
  purpose: 'contact',
  about: 'When the dome is open, and how to hear whether a night goes ahead',
  document: withRootId(
    document('ph', {
      kind: 'shared-blocks',
      inside: [
        text([
          para(bold('Friday'), ', October to March: 18:00 to 22:00, when the sky is clear'),
          para(bold('Saturday'), ', all year: 14:00 to 17:00, to see the Sun safely'),
          para(bold('Schools'), ': any weekday, by arrangement'),
        ]),
        text(
          'We decide at 16:00 whether a night goes ahead, and say so on the door line: 01632\u00a0960\u00a0145.',
          { look: { variant: 'note' } },
        ),
      ],
    }),
    'tmhours',
  ),
}

export const callToJoin: DemoPart = {
  id: 'tmjoin',
  name: 'Call to join',
  purpose: 'action',
  about: 'Leads to becoming a friend',
  document: withRootId(
    document('pj', {
      kind: 'shared-sections',
      inside: [
        section(
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
        ),
      ],
    }),
    'tmjoin',
  ),
}

let fields = 0

/** A component of blocks that each instance says something else in. */
const component = (facts: Omit<DemoPart, 'document'>, prefix: string, ...inside: Sketch[]): DemoPart => ({
  ...facts,
  document: withFieldsForAll(
    withRootId(document(prefix, { kind: 'shared-blocks', inside }), facts.id),
    defaultRegistry,
    () => `${prefix}field${fields++}`,
  ),
})

/** A card for one object in the sky, with its picture, its name, a sentence about it, and a direction to look in. */
export const skyCard = component(
  {
    id: 'tmsky',
    name: 'Sky card',
    purpose: 'pictures',
    about: 'Something to see in the sky, and where to look for it',
  },
  'pk',
  card(
    'tmcluster',
    'Eleven bright stars wrapped in blue haze',
    'Something to see',
    'What is worth knowing of it.',
    text([para(bold('Where and when to look'))], { look: { variant: 'note' } }),
  ),
)

/** A card for one open night, with what will be shown, when, and how many seats are left. */
export const eventCard = component(
  {
    id: 'tmevent',
    name: 'Event card',
    purpose: 'events',
    about: 'One open night: what will be shown, when, and the seats',
  },
  'pe',
  card(
    'tmnight',
    'Visitors standing on the ridge under the Milky Way',
    'What will be shown',
    'The day and the hour, and why that night.',
    text([para(bold('Seats left'))], { look: { variant: 'note' } }),
  ),
)

/** A card for one instrument, with a slot for what can be done with it. */
export const instrumentCard = withSlot(
  component(
    {
      id: 'tminstrument',
      name: 'Instrument card',
      purpose: 'pictures',
      about: 'One instrument, what it is best for, and what can be done with it',
    },
    'pi',
    card(
      'tmsaturn',
      'A banded planet with wide bright rings',
      'An instrument',
      'What it is best for.',
      stack({ name: 'What can be done', base: { gap: 's' } }, button('Ask for it', to('questions'))),
    ),
  ),
  { id: 'pislot', name: 'What can be done', help: 'Buttons, a note, or a list of what comes with it' },
)

/** A component whose one stack inside of its card is a slot. */
function withSlot(part: DemoPart, slot: Pick<ComponentSlot, 'id' | 'name' | 'help'>): DemoPart {
  const { root, nodes } = part.document
  const [node] = Object.entries(nodes).find(([, { name }]) => name === slot.name)!
  const own = nodes[root]!
  const slots = [{ ...slot, node, slot: 'blocks' }] as unknown as Json
  const next = { ...own, content: { ...own.content, slots } }
  return { ...part, document: { ...part.document, nodes: { ...nodes, [root]: next } } }
}

export const parts: readonly DemoPart[] = [openingHours, callToJoin, skyCard, eventCard, instrumentCard]
