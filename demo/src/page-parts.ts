/** What the sample pages share. */
import type { Link, Page, PageMore } from '@gullyline/core'
import { block, para, type Sketch } from './sketch.ts'

export interface DemoPage {
  readonly id: string
  readonly title: string
  readonly slug: string
  readonly description: string
  readonly document: Page
  /** The page it stands under; at the top where it is left out. */
  readonly parentId?: string
  /** In the navigation unless this says otherwise. */
  readonly inNavigation?: boolean
  readonly more?: Partial<PageMore>
}

export const PAGE_IDS = {
  home: 'tmhome',
  visit: 'tmvisit',
  about: 'tmabout',
  questions: 'tmquestions',
  openNights: 'tmnights',
  instruments: 'tminstruments',
  bigTelescope: 'tmbig',
  radio: 'tmradio',
  news: 'tmnews',
  comet: 'tmcomet',
  friend: 'tmfriend',
} as const

export const FILE_IDS = { nights: 'tmcalendar' } as const

export const to = (name: keyof typeof PAGE_IDS, anchor?: string): Link => ({
  page: PAGE_IDS[name],
  ...(anchor ? { anchor } : {}),
})

/** A card that leads somewhere. */
export const pressed = (
  id: string,
  alt: string,
  title: string,
  link: Link,
  { words, action }: { readonly words: string; readonly action: string },
): Sketch =>
  block(
    'card',
    { media: { id }, alt, heading: title, level: 3, words: [para(words)], link, action },
    { look: { surface: 'tint', radius: 'm' } },
  )
