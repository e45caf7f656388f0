import type { SizeKey } from '../page/page.ts'

/** CSS property to value. Values come from tokens, scales and kinds, never from text that a person typed. */
export type Declarations = Readonly<Record<string, string>>

/** One style rule, applied at a size and all narrower ones until one of those overrides it. */
export interface CssRule {
  readonly selector: string
  readonly size: SizeKey
  readonly declarations: Declarations
}

/** The declarations of `next` that `wider` does not already make. A property that `next` drops is put back to its initial value. */
export function declarationsThatDiffer(wider: Declarations, next: Declarations): Declarations {
  const changed: Record<string, string> = {}
  for (const [property, value] of Object.entries(next))
    if (wider[property] !== value) changed[property] = value
  for (const property of Object.keys(wider)) if (!Object.hasOwn(next, property)) changed[property] = 'initial'
  return changed
}
