/** What the sample pages share. */
import {
  fieldsOf,
  slotsOf,
  type JsonObject,
  type Link,
  type Page,
  type PageMore,
  type PartPurpose,
} from '@gullyline/core'
import { block, document, heading, para, picture, section, stack, text, type Sketch } from './sketch.ts'

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
  mirror: 'tmmirror',
  lamps: 'tmlamps',
  buggy: 'tmbuggy',
  tonight: 'tmtonight',
  schools: 'tmschools',
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
    { look: { surface: 'tint', radius: 'm' }, medium: { ratio: '1/1' }, narrow: { ratio: '16/9' } },
  )

/** A shared section of the sample site. */
export interface DemoPart {
  readonly id: string
  readonly name: string
  readonly purpose: PartPurpose
  readonly about: string
  readonly document: Page
}

export const page = (prefix: string, ...sections: Sketch[]): Page =>
  document(prefix, { kind: 'page', inside: sections })

export const heroSection = (
  title: string,
  backdrop: { id: string; focus?: { x: number; y: number } },
  base: Record<string, string>,
  ...more: Sketch[]
): Sketch =>
  section(
    { name: 'Welcome', look: { surface: 'night', shade: 'side' }, backdrop, base: { gap: 's', ...base } },
    ...more.slice(0, 1),
    heading(1, title),
    ...more.slice(1),
  )

export const card = (id: string, alt: string, title: string, words: string, more: Sketch): Sketch =>
  stack(
    { name: title, look: { surface: 'tint', radius: 'm' }, base: { gap: 's', inset: 's' } },
    picture(id, alt, { look: { radius: 's' }, base: { ratio: '3/2' } }),
    heading(3, title),
    text(words),
    more,
  )

/**
 * Where a shared section of the sample site stands, or a component with what it says and holds there, by the names of its
 * fields and slots.
 */
export const shared = (
  part: DemoPart,
  values: JsonObject = {},
  inSlots: Readonly<Record<string, readonly Sketch[]>> = {},
): Sketch => {
  const root = part.document.nodes[part.id]!
  const filled = fieldsOf(root).flatMap(({ id, name }) =>
    Object.hasOwn(values, name) ? [[id, values[name]!] as const] : [],
  )
  const fills = slotsOf(root).map(({ id, name }) =>
    block('slot-fill', { slot: id }, {}, ...(inSlots[name] ?? [])),
  )
  return {
    ...block(`linked-${root.kind.split('-')[1]!}`, { part: part.id }, {}, ...fills),
    ...(filled.length > 0 ? { values: Object.fromEntries(filled) } : {}),
  }
}

export const heroBlock = (
  title: string,
  media: { id: string; focus?: { x: number; y: number } },
  alt: string,
  ...more: Sketch[]
): Sketch =>
  block(
    'hero',
    { media, alt },
    { name: 'Welcome', look: { surface: 'night', shade: 'side' }, base: { height: 'half', room: 'l' } },
    ...more.slice(0, 1),
    heading(1, title),
    ...more.slice(1),
  )
export const columns = (...inside: readonly (readonly [share: number, ...blocks: Sketch[]])[]): Sketch =>
  block(
    'columns',
    {},
    { base: { gap: 'm' }, narrow: { direction: 'down' } },
    ...inside.map(([share, ...blocks]) => block('column', {}, { base: { share } }, ...blocks)),
  )
export const feature = (icon: string, title: string, words: string, level = 3): Sketch =>
  block('feature', { icon, heading: title, level, words: [para(words)] }, { look: { variant: 'disc' } })
export const panel = (title: string, ...inside: Sketch[]): Sketch =>
  block('panel', { label: title }, {}, ...inside)
export const voice = (said: string, who: string, role: string): Sketch =>
  block('voice', { said, who, role }, { look: { surface: 'tint' } })
