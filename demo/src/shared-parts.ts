/** What stands on several pages of the sample site, and is the same on all of them. */
import { defaultRegistry, withFieldsForAll, withRootId } from '@gullyline/core'
import { card, to, type DemoPart } from './page-parts.ts'
import { bold, button, document, heading, para, row, section, stack, text } from './sketch.ts'

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

/** A card for one object in the sky, with its picture, its name, a sentence about it, and a direction to look in. */
export const skyCard: DemoPart = {
  id: 'tmsky',
  name: 'Sky card',
  purpose: 'pictures',
  about: 'Something to see in the sky, and where to look for it',
  document: withFieldsForAll(
    withRootId(
      document('pk', {
        kind: 'shared-blocks',
        inside: [
          card(
            'tmcluster',
            'Eleven bright stars wrapped in blue haze',
            'Something to see',
            'What is worth knowing of it.',
            text([para(bold('Where and when to look'))], { look: { variant: 'note' } }),
          ),
        ],
      }),
      'tmsky',
    ),
    defaultRegistry,
    () => `skyfield${fields++}`,
  ),
}

export const parts: readonly DemoPart[] = [openingHours, callToJoin, skyCard]
