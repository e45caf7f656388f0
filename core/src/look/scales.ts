/**
 * The steps that every site's look gives a value to. Pages name steps, never values, so a page made for one
 * look can be shown in another.
 */
export const SCALES = {
  space: ['none', 'hair', 'xs', 's', 'm', 'l', 'xl', 'xxl'],
  type: ['note', 'body', 'lead', 'minor', 'title', 'headline', 'display'],
  radius: ['none', 's', 'm', 'l', 'round'],
} as const

export type ScaleName = keyof typeof SCALES
export type SpaceStep = (typeof SCALES.space)[number]
export type TypeStep = (typeof SCALES.type)[number]
export type RadiusStep = (typeof SCALES.radius)[number]

/** The words for steps in the interface. */
export const STEP_WORDS: Readonly<Record<ScaleName, Readonly<Record<string, string>>>> = {
  space: { none: 'None', hair: 'Hair', xs: 'XS', s: 'S', m: 'M', l: 'L', xl: 'XL', xxl: 'XXL' },
  type: {
    note: 'Note',
    body: 'Body',
    lead: 'Lead',
    minor: 'Minor',
    title: 'Title',
    headline: 'Headline',
    display: 'Display',
  },
  radius: { none: 'None', s: 'S', m: 'M', l: 'L', round: 'Round' },
}
