import { diff3Merge } from 'node-diff3'
import type { Json } from '../page/json.ts'

/**
 * Lists of paragraphs merged by diff3 (Khanna, Kunal and Pierce, "A Formal Investigation of Diff3", 2007); undefined
 * for other values, and when both sides changed the same paragraphs.
 */
export function mergeTexts(
  base: Json | undefined,
  ours: Json | undefined,
  theirs: Json | undefined,
): Json | undefined {
  if (![base, ours, theirs].every(isBlockList)) return undefined
  const lists = [base, ours, theirs].map((list) =>
    (list as readonly Json[]).map((one) => JSON.stringify(one)),
  )
  const isRepetitive = lists.some((list) => mostAlike(list) > MOST_EQUAL)
  const [b, o, t] = lists.map((list) => toldApart(list, isRepetitive))
  const regions = diff3Merge(o!, b!, t!, { excludeFalseConflicts: true })
  if (regions.some((region) => region.conflict)) return undefined
  return regions.flatMap((region) =>
    (region.ok ?? []).map((one) => JSON.parse(one.slice(0, one.lastIndexOf(COUNT))) as Json),
  )
}

/** Stands before the number of a repeated paragraph. */
const COUNT = '#'
/** Comparing each of so many equal paragraphs with each other takes as long as the third power of their number. */
const MOST_EQUAL = 20

/** Each paragraph with a mark behind it; with `isRepetitive`, the mark says how many like it stood before. */
function toldApart(paragraphs: readonly string[], isRepetitive: boolean): string[] {
  const seen = new Map<string, number>()
  return paragraphs.map((one) => {
    const before = seen.get(one) ?? 0
    seen.set(one, before + 1)
    return `${one}${COUNT}${isRepetitive ? before : ''}`
  })
}

function mostAlike(paragraphs: readonly string[]): number {
  const counts = new Map<string, number>()
  for (const one of paragraphs) counts.set(one, (counts.get(one) ?? 0) + 1)
  return Math.max(0, ...counts.values())
}

function isBlockList(value: Json | undefined): boolean {
  return (
    Array.isArray(value) &&
    value.every((one: unknown) => typeof one === 'object' && one !== null && 'type' in one)
  )
}
