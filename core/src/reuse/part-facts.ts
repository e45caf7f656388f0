/** What people say of a part that is used again. */

/** Placed as copies of its own, shown by instances that stay as it is, or what new pages of the site start from. */
export type PartType = 'pattern' | 'shared' | 'template'

/** As there is room for on the shelf. */
export const LONGEST_PART_NAME = 60
export const LONGEST_PART_ABOUT = 200

/** What a pattern is for; how people look for one. */
export const PART_PURPOSES = {
  introduction: 'Introduction',
  action: 'Call to action',
  pictures: 'Pictures and text',
  people: 'People',
  prices: 'Prices',
  questions: 'Questions',
  contact: 'Contact',
  events: 'Events',
  pages: 'Whole pages',
  other: 'Other',
} as const
export type PartPurpose = keyof typeof PART_PURPOSES

/** What people say of a part. */
export interface PartFacts {
  /** No other part of the site has it. */
  readonly name: string
  readonly purpose: PartPurpose
  readonly about: string
}
