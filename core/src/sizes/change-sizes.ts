/** Changing which sizes a site has: no page loses anything by it. */
import type { SizeKey } from '../page/page.ts'
import type { SiteSize, WithSizes } from './site-sizes.ts'
import { isSizeKey } from './size-keys.ts'

export const FEWEST_SIZES = 2
export const MOST_SIZES = 6
/** Where sizes may begin, in px; the narrowest begins at 0. */
export const SIZE_FROM = { least: 321, most: 1920 } as const
/** So many px at least lie between the beginnings of two sizes. */
export const LEAST_RANGE = 20
export const LONGEST_SIZE_NAME = 24
/** More are never asked for: the oldest is forgotten, and what pages had set there stays in them all the same. */
export const MOST_FORMER_SIZES = 24

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

const FIRST = 'a'.charCodeAt(0)
const LETTERS = 26

/**
 * A key for a size between two others, or narrower than all where `narrower` is undefined. The midpoint of two fractions
 * whose digits are letters (D. Greenspan, "Implementing Fractional Indexing", 2020); it never ends in `a`, so that there is
 * room before it again.
 */
export function keyBetween(wider: SizeKey, narrower?: SizeKey): SizeKey {
  const shared = commonLength(wider, narrower)
  if (shared > 0 && narrower !== undefined)
    return narrower.slice(0, shared) + keyBetween(wider.slice(shared), narrower.slice(shared))
  const low = digitAt(wider, 0)
  const high = narrower === undefined ? LETTERS : digitAt(narrower, 0)
  if (high - low > 1) return letter(Math.round((low + high) / 2))
  if (narrower !== undefined && narrower.length > 1) return narrower[0]!
  return letter(low) + keyBetween(wider.slice(1))
}

function commonLength(wider: string, narrower = ''): number {
  let shared = 0
  while (shared < narrower.length && digitAt(wider, shared) === digitAt(narrower, shared)) shared++
  return shared
}

/** What a fraction has no digit for is nought. */
function digitAt(key: string, at: number): number {
  return at < key.length ? key.charCodeAt(at) - FIRST : 0
}

function letter(digit: number): string {
  return String.fromCharCode(FIRST + digit)
}
