/**
 * Keys of sizes say their order: of two, that of the wider size sorts first. So a document needs no list of the sizes of
 * its site to tell which values a size inherits, and a size that a site takes out still hands on what was set there.
 */
import type { PageNode, SizeKey } from '../page/page.ts'

/** The sizes that block kinds have rules for, from the widest to the narrowest. Every site begins with these. */
export const USUAL_KEYS = ['base', 'medium', 'narrow'] as const satisfies readonly SizeKey[]

/** As a JSON Schema pattern, without the one name that every object has; what sorts before `base` is no key of a size either. */
export const SIZE_KEY_PATTERN = '^(?!constructor$)[b-z][a-z]{0,23}$'

const KEY = new RegExp(SIZE_KEY_PATTERN)

/** Whether a text, which may come from outside, is the key of a size. */
export function isSizeKey(key: string): boolean {
  return KEY.test(key) && key >= 'base'
}

/** The sizes at which some of these nodes have values of their own, and `base`: from the widest to the narrowest, each once. */
export function sizesSet(...nodes: readonly Pick<PageNode, 'sizes'>[]): readonly SizeKey[] {
  let all: SizeKey[] | undefined
  for (const { sizes } of nodes)
    for (const size in sizes) {
      if (size === 'base' || all?.includes(size)) continue
      all ??= ['base']
      all.push(size)
    }
  return all ? all.sort() : ONLY_BASE
}

const ONLY_BASE: readonly SizeKey[] = ['base']

/** The last of some sizes, given from the widest to the narrowest, that is as wide as this one or wider. */
export function lastUpTo<T extends SizeKey>(sizes: readonly T[], size: SizeKey): T | undefined {
  return sizes.findLast((one) => one <= size)
}
