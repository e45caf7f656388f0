/** What stands on every page of the sample site. */
import type { Page } from '@gullyline/core'
import { block, bold, document, linked, para, row, text } from './sketch.ts'

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
