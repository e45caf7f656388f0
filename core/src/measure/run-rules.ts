import type { GullyRule, Strain } from './define-rule.ts'
import { isAbove } from './geometry.ts'
import type { MeasuredBand, PixelsOf } from './measured-page.ts'
import { coveredText } from './rules/covered-text.ts'
import { cutText } from './rules/cut-text.ts'
import { fixedWidth } from './rules/fixed-width.ts'
import { focusOrder } from './rules/focus-order.ts'
import { brokenWord, tallHeading } from './rules/headings.ts'
import { lastRow, rowsOf } from './rules/last-row.ts'
import { longLines, shortLines } from './rules/line-length.ts'
import { outside } from './rules/outside.ts'
import { pictureContrast } from './rules/picture-contrast.ts'
import { blurredPicture, heavyPicture, loadedAddresses } from './rules/picture-pixels.ts'
import { sideways } from './rules/sideways.ts'
import { smallTarget } from './rules/small-target.ts'
import { smallText } from './rules/small-text.ts'
import { losesContent, textResized, textSpacing } from './rules/text-settings.ts'

/** What is looked for at each width. A test fails when a file of the folder is missing here. */
export const WIDTH_RULES: readonly GullyRule[] = [
  sideways,
  fixedWidth,
  outside,
  cutText,
  coveredText,
  pictureContrast,
  brokenWord,
  smallTarget,
  focusOrder,
  smallText,
  longLines,
  shortLines,
  tallHeading,
  lastRow,
  blurredPicture,
  heavyPicture,
]

/** How the page is shown: as it is, or as somebody has set their browser. */
export type Setting = 'plain' | 'resized' | 'spaced'

/** What a setting of the browser must not lose; undefined for none. */
const RULE_OF: Readonly<Record<Setting, typeof textResized | undefined>> = {
  plain: undefined,
  resized: textResized,
  spaced: textSpacing,
}

/** What the rules find at one width. Where `shape` differs between two widths, a width between them may have more. */
export interface Reading {
  /** By rule and node. */
  readonly strains: ReadonlyMap<string, RuledStrain>
  /** Alike where things stand alike. */
  readonly shape: string
  readonly height: number
  /** How many lines of text there are. */
  readonly lines: number
  /** The addresses of the pictures that are loaded. */
  readonly loaded: readonly string[]
  /** Alike where texts are seen in the same order. */
  readonly order: string
  /** Alike where all in it has the same size, but for what reaches from edge to edge of the window and is no picture. */
  readonly extent: number
}

/** Returns the setting in which a rule looks at the page. */
export function settingOf(rule: string): Setting {
  return (Object.keys(RULE_OF) as Setting[]).find((setting) => RULE_OF[setting]?.rule === rule) ?? 'plain'
}

export interface RuledStrain extends Strain {
  readonly rule: string
}

/** All that the rules find in a band at one width: of each rule and node the worst. */
export function readBand(band: MeasuredBand, pixels: PixelsOf, setting: Setting): Reading {
  const rule = RULE_OF[setting]
  const found = rule
    ? losesContent(band).map((strain): RuledStrain => ({ ...strain, rule: rule.rule }))
    : WIDTH_RULES.flatMap(({ rule: name, find }) =>
        find({ band, pixels }).map((strain): RuledStrain => ({ ...strain, rule: name })),
      )
  const strains = new Map<string, RuledStrain>()
  for (const strain of found) {
    const key = `${strain.rule} ${strain.id}`
    const known = strains.get(key)
    if (!known || known.amount < strain.amount) strains.set(key, strain)
  }
  const isPlain = setting === 'plain'
  return {
    strains,
    shape: isPlain ? shapeOf(band) : '',
    height: band.box.height,
    order: isPlain ? orderOf(band) : '',
    lines: band.elements.reduce((all, { text }) => all + (text?.lines.length ?? 0), 0),
    loaded: isPlain ? loadedAddresses(band) : [],
    extent: extentOf(band),
  }
}

/** A hash of all heights and widths, in whole px: FNV-1a of their numbers (Fowler, Noll and Vo; RFC 9923). */
function extentOf({ width: window, elements }: MeasuredBand): number {
  let hash = 0x811c9dc5
  const add = (length: number): void => {
    hash = Math.imul(hash ^ Math.round(length), 0x01000193)
  }
  for (const { box, text, picture } of elements) {
    add(box.height)
    if (box.width < window - 1 || picture) add(box.width)
    for (const line of text?.lines ?? []) add(line.width)
  }
  return hash
}

/** How many stand in each row of what wraps: between two widths with other rows there may be a width with a third. */
function shapeOf(band: MeasuredBand): string {
  return band.elements
    .flatMap(({ wraps }, index) => (wraps ? [`${index}:${Math.max(0, ...rowsOf(band, index))}`] : []))
    .join()
}

/** The texts that are seen wholly above the one that comes before them. */
function orderOf(band: MeasuredBand): string {
  const texts = band.elements.flatMap(({ text, box }, index) => (text ? [{ index, box }] : []))
  return texts
    .slice(1)
    .flatMap(({ index, box }, i) => {
      const before = texts[i]!.box
      return isAbove(box, before) ? [index] : []
    })
    .join()
}
