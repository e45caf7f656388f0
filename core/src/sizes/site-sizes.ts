/** The sizes that a site has: which keys are in use, what they are called and where they begin. */
import type { SizeKey } from '../page/page.ts'
import { isSizeKey, keyBetween } from './size-keys.ts'

/** A named size: the screen widths from `from` px to where the next wider one begins. */
export interface SiteSize {
  readonly key: SizeKey
  readonly name: string
  readonly from: number
}

export const FEWEST_SIZES = 2
export const MOST_SIZES = 6
/** Where sizes may begin, in px; the narrowest begins at 0. */
export const SIZE_FROM = { least: 321, most: 1920 } as const
/** So many px at least lie between the beginnings of two sizes. */
export const LEAST_RANGE = 20
export const LONGEST_SIZE_NAME = 24
/** More are never asked for: the oldest is forgotten, and what pages had set there stays in them all the same. */
export const MOST_FORMER_SIZES = 24

/** The sizes of a new site, from the widest to the narrowest. */
export const USUAL_SIZES: readonly SiteSize[] = [
  { key: 'base', name: 'wide', from: 1200 },
  { key: 'medium', name: 'medium', from: 720 },
  { key: 'narrow', name: 'narrow', from: 0 },
]

/** What all that a size is asked of has: the sizes in use, and those that were taken out. */
export interface WithSizes {
  readonly sizes: readonly SiteSize[]
  readonly formerSizes?: readonly SiteSize[]
}

/** The size that a screen of this width in px shows. Every width has exactly one. */
export function sizeAt(width: number, { sizes }: WithSizes): SizeKey {
  return (sizes.find(({ from }) => width >= from) ?? sizes.at(-1)!).key
}

/**
 * Below which width in px what is set at a size is in force: undefined where that is all of them, 0 where it is none. What
 * is set at a size that the site took out is in force from the next narrower one on.
 */
export function widthBelow(size: SizeKey, { sizes }: WithSizes): number | undefined {
  const at = sizes.findIndex(({ key }) => key >= size)
  if (at < 0) return 0
  return at === 0 ? undefined : sizes[at - 1]!.from
}

/** Where sizes other than the narrowest begin, in px, from the lowest up. */
export function sizeBounds({ sizes }: WithSizes): readonly number[] {
  return sizes
    .slice(0, -1)
    .map(({ from }) => from)
    .reverse()
}

/** Screen widths that many devices have, the first that fits stands for a size (common practice, no source). */
const SAMPLES = [1440, 820, 390, 1280, 1024, 600, 1680, 360]
const SHOWN = { least: 320, most: 1920 } as const

/** The screen width in px that stands for a size where one is shown. */
export function sampleWidth(size: SizeKey, { sizes }: WithSizes): number {
  const at = sizes.findIndex(({ key }) => key === size)
  const from = Math.max(SHOWN.least, sizes[at]?.from ?? 0)
  const below = sizes[at - 1]?.from ?? SHOWN.most + 1
  const usual = SAMPLES.find((width) => width >= from && width < below)
  return usual ?? Math.floor((from + below) / 2)
}

/** The word for a size in the interface. */
export function sizeWord(size: SizeKey, { sizes, formerSizes = [] }: WithSizes = USUAL): string {
  const known = [...sizes, ...formerSizes, ...USUAL_SIZES].find(({ key }) => key === size)
  return known?.name ?? 'another size'
}

const USUAL: WithSizes = { sizes: USUAL_SIZES }

/** What is wrong with the sizes of a site, in a sentence; undefined where nothing is. */
export function sizesFault({ sizes, formerSizes = [] }: WithSizes): string | undefined {
  const keys = [...sizes, ...formerSizes].map(({ key }) => key)
  const names = sizes.map(({ name }) => name.trim().toLowerCase())
  if (sizes.length < FEWEST_SIZES || sizes.length > MOST_SIZES)
    return `A site has ${FEWEST_SIZES} to ${MOST_SIZES} sizes.`
  if (sizes[0]!.key !== 'base') return 'The widest size has the key “base”.'
  if (!keys.every(isSizeKey)) return 'A size has a key that is not the key of a size.'
  if (new Set(keys).size < keys.length) return 'Two sizes have the same key.'
  if (names.some((name) => name === '' || name.length > LONGEST_SIZE_NAME))
    return `The name of a size has 1 to ${LONGEST_SIZE_NAME} characters.`
  if (new Set(names).size < names.length) return 'Two sizes have the same name.'
  for (const [i, { key, name, from }] of sizes.entries()) {
    const wider = sizes[i - 1]
    if (wider && wider.key >= key) return 'The keys of sizes are in the order of their widths.'
    if (i === sizes.length - 1) {
      if (from !== 0) return `The narrowest size, “${name}”, begins at 0 px.`
    } else if (!Number.isInteger(from) || from < SIZE_FROM.least || from > SIZE_FROM.most)
      return `“${name}” begins at ${SIZE_FROM.least} to ${SIZE_FROM.most} px.`
    if (wider && wider.from - from < LEAST_RANGE)
      return `“${name}” and “${wider.name}” begin at least ${LEAST_RANGE} px apart.`
  }
  return undefined
}

/**
 * The sizes with one more: the size that reaches over `below` px is divided there, and the part below gets the name. It
 * inherits all of the part above, so that nothing on any page looks different until something is set there.
 */
export function withSize(at: WithSizes, { name, below }: NewSize): WithSizes {
  const { sizes, formerSizes = [] } = at
  const divided = sizes.findIndex(({ from }) => from < below)
  const upper = sizes[divided]!
  const after = [...sizes, ...formerSizes].map(({ key }) => key).filter((key) => key > upper.key)
  const lower = { key: keyBetween(upper.key, after.sort()[0]), name, from: upper.from }
  return { ...at, sizes: sizes.toSpliced(divided, 1, { ...upper, from: below }, lower) }
}

export interface NewSize {
  readonly name: string
  readonly below: number
}

/**
 * The sizes without one: its widths become those of the next narrower one, which inherits what was set there, or of the next
 * wider one where it is the narrowest. The widest stays: all others inherit from it.
 */
export function withoutSize(at: WithSizes, key: SizeKey): WithSizes {
  const { sizes, formerSizes = [] } = at
  const gone = sizes.findIndex((one) => one.key === key)
  if (gone <= 0) return at
  const left = sizes.toSpliced(gone, 1)
  if (gone < left.length)
    return { ...at, sizes: left, formerSizes: [...formerSizes, sizes[gone]!].slice(-MOST_FORMER_SIZES) }
  const wider = left.at(-1)!
  return {
    ...at,
    sizes: left.with(-1, { ...wider, from: 0 }),
    // Where the two met is kept with the one that goes.
    formerSizes: [...formerSizes, { ...sizes[gone]!, from: wider.from }].slice(-MOST_FORMER_SIZES),
  }
}

/** The sizes with one that was taken out, back in its place, with what pages had set there. */
export function withFormerSize(at: WithSizes, key: SizeKey): WithSizes {
  const { sizes, formerSizes = [] } = at
  const back = formerSizes.find((one) => one.key === key)
  if (!back) return at
  const rest = formerSizes.filter((one) => one !== back)
  const place = sizes.findIndex((one) => one.key > key)
  const met = meeting(back.from, sizes, place < 0 ? sizes.length : place)
  if (place >= 0)
    return { ...at, sizes: sizes.toSpliced(place, 0, { ...back, from: met }), formerSizes: rest }
  const wider = { ...sizes.at(-1)!, from: met }
  return { ...at, sizes: [...sizes.slice(0, -1), wider, { ...back, from: 0 }], formerSizes: rest }
}

/** A bound as near as can be to where it was, between the bounds that there are now. */
function meeting(from: number, sizes: readonly SiteSize[], place: number): number {
  const isNarrowest = place === sizes.length
  const least = (isNarrowest ? 0 : sizes[place]!.from) + LEAST_RANGE
  const most =
    (sizes[isNarrowest ? place - 2 : place - 1]?.from ?? SIZE_FROM.most + LEAST_RANGE) - LEAST_RANGE
  return Math.max(SIZE_FROM.least, least, Math.min(from, most))
}
