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
  const [b, o, t] = [base, ours, theirs].map((list) =>
    (list as readonly Json[]).map((one) => JSON.stringify(one)),
  )
  const regions = diff3Merge(o!, b!, t!, { excludeFalseConflicts: true })
  if (regions.some((region) => region.conflict)) return undefined
  return regions.flatMap((region) => (region.ok ?? []).map((one) => JSON.parse(one) as Json))
}

function isBlockList(value: Json | undefined): boolean {
  return (
    Array.isArray(value) &&
    value.every((one: unknown) => typeof one === 'object' && one !== null && 'type' in one)
  )
}
