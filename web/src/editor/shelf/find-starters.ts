import { matchSorter } from 'match-sorter'
import type { Starter } from '@gullyline/core'

/**
 * Starters that have every word that was typed: in their name first, then in another name for them, then in what is said
 * about them. With nothing typed, the recently used ones come first.
 */
export function findStarters(
  starters: readonly Starter[],
  search: string,
  recent: readonly string[],
): readonly Starter[] {
  const words = search.trim().split(/\s+/).filter(Boolean)
  if (words.length === 0) {
    const used = recent.flatMap((id) => starters.find((starter) => starter.id === id) ?? [])
    return [...used, ...starters.filter((starter) => !used.includes(starter))]
  }
  // All that was typed as one name says more than its words do.
  const whole = matchSorter(starters, words.join(' '), OPTIONS)
  const each = words.reduceRight<readonly Starter[]>(
    (left, word) => matchSorter(left, word, OPTIONS),
    starters,
  )
  return [...whole, ...each.filter((starter) => !whole.includes(starter))]
}

const OPTIONS = {
  keys: [
    'title',
    { key: 'synonyms', maxRanking: matchSorter.rankings.STARTS_WITH },
    { key: 'about', maxRanking: matchSorter.rankings.CONTAINS },
    { key: ({ words = '' }: Starter) => words, maxRanking: matchSorter.rankings.CONTAINS },
  ],
  threshold: matchSorter.rankings.CONTAINS,
}
