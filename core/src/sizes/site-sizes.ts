/** The sizes that a site has: which keys are in use, what they are called and where they begin. */
import type { SizeKey } from '../page/page.ts'

/** A named size: the screen widths from `from` px to where the next wider one begins. */
export interface SiteSize {
  readonly key: SizeKey
  readonly name: string
  readonly from: number
}

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
