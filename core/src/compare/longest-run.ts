/**
 * The positions of a longest strictly increasing run of numbers, in order (patience sorting; Fredman, "On computing
 * the length of longest increasing subsequences", 1975). What stands in it needs no move.
 */
export function longestIncreasingRun(values: readonly number[]): number[] {
  const tails: number[] = []
  const before: number[] = []
  values.forEach((value, at) => {
    let [low, high] = [0, tails.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (values[tails[middle]!]! < value) low = middle + 1
      else high = middle
    }
    before[at] = low > 0 ? tails[low - 1]! : -1
    tails[low] = at
  })
  const run: number[] = []
  for (let at = tails.at(-1) ?? -1; at >= 0; at = before[at]!) run.unshift(at)
  return run
}
