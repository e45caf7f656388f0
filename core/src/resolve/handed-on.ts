/** What an instance says of its place, which the blocks of its part have that are shown there. */
import { SHOWN_KEY } from '../blocks/define-block.ts'
import { sameJson, type JsonObject } from '../page/json.ts'
import type { PageNode } from '../page/page.ts'
import { sizesSet } from '../sizes/size-keys.ts'

/** Values for the blocks that are shown in the place of an instance, at each size. */
export type HandedOn = PageNode['sizes']

/** What an instance hands on to the first block of its part, which takes its place, or to one of the others, which follow it. */
export function handedOn(sizes: PageNode['sizes'], isFirst: boolean): HandedOn | undefined {
  const own = sizesSet({ sizes }).flatMap((size) => {
    const values = sizes[size]!
    if (isFirst) return Object.keys(values).length > 0 ? [[size, values] as const] : []
    return values[SHOWN_KEY] === undefined ? [] : [[size, { [SHOWN_KEY]: values[SHOWN_KEY] }] as const]
  })
  return own.length === 0 ? undefined : { base: {}, ...Object.fromEntries(own) }
}

/** Values of an instance within an instance, under those that are handed on to it from outside. */
export function joinedSizes(inner: HandedOn | undefined, outer: HandedOn | undefined): HandedOn | undefined {
  if (!inner || !outer) return inner ?? outer
  const sizes = sizesSet({ sizes: inner }, { sizes: outer })
  const joined = sizes.map((size) => [size, { ...inner[size], ...outer[size] }] as const)
  return { base: {}, ...Object.fromEntries(joined) }
}

export function sameHandedOn(one: HandedOn | undefined, other: HandedOn | undefined): boolean {
  return sameJson(one as JsonObject | undefined, other as JsonObject | undefined)
}

/** A block of a part with what is handed on to it. */
export function withHandedOn(node: PageNode, handed: HandedOn | undefined): PageNode {
  return handed === undefined ? node : { ...node, sizes: joinedSizes(node.sizes, handed)! }
}
