import type { SizeKey } from '../page/page.ts'

/** CSS property to value. Values come from tokens, scales and kinds, never from text that a person typed. */
export type Declarations = Readonly<Record<string, string>>

/** One style rule, applied at a size and all narrower ones until one of those overrides it. */
export interface CssRule {
  readonly selector: string
  readonly size: SizeKey
  readonly declarations: Declarations
}

/**
 * The declarations of `next` that `wider` does not already make. A property that `next` drops is put back to its
 * initial value. `font` is a shorthand that sets `font-size` and `font-weight` as well (CSS Fonts 4, 2.7), so the three
 * are declared together or not at all.
 */
export function declarationsThatDiffer(wider: Declarations, next: Declarations): Declarations {
  const isFontAlike = FONT.every((property) => wider[property] === next[property])
  const isKnown = (property: string) =>
    next.font !== undefined && FONT.includes(property) ? isFontAlike : wider[property] === next[property]
  const changed: Record<string, string> = {}
  for (const [property, value] of Object.entries(next)) if (!isKnown(property)) changed[property] = value
  for (const property of Object.keys(wider)) {
    const isReset = next.font !== undefined && FONT.includes(property)
    if (!Object.hasOwn(next, property) && !isReset) changed[property] = 'initial'
  }
  return changed
}

/** The shorthand first: what it resets comes after it. */
const FONT: readonly string[] = ['font', 'font-size', 'font-weight']

/** A rule for all blocks of a kind; without a size it is in force at all of them. */
export type SizedRule = Omit<CssRule, 'size'> & Partial<Pick<CssRule, 'size'>>
