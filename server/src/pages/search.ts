/** Finding pages by their text. */
import { cutShort, cutToEnd, type TextHit } from '@gullyline/core'
import { escapeLike } from '../db/escape-like.ts'
import { PageEntity } from '../db/rows.ts'
import type { SiteData } from '../db/site-scope.ts'

const MOST_HITS = 20
const LONGEST_QUERY = 100
const MOST_WORDS = 8
/** Characters shown on each side of what was found. */
const AROUND = 50

/**
 * Returns the pages whose newest version has every word of the query, in any case and with or without accents. A query
 * of fewer than two characters finds nothing.
 */
export async function searchText(at: SiteData, query: string): Promise<TextHit[]> {
  const words = cutShort(query, LONGEST_QUERY).split(/\s+/).filter(Boolean).slice(0, MOST_WORDS)
  if (words.join('').length < 2) return []
  const found = at.manager
    .createQueryBuilder(PageEntity, 'p')
    .select(['p.id', 'p.title', 'p.address', 'p.words'])
    .where('p.site_id = :siteId AND p.binned_at IS NULL', { siteId: at.siteId })
    .orderBy('p.title')
    .limit(MOST_HITS)
  for (const [i, word] of words.entries())
    found.andWhere(`p.words COLLATE utf8mb4_unicode_ci LIKE :w${i}`, { [`w${i}`]: `%${escapeLike(word)}%` })
  const pages = await found.getMany()
  return pages.map(({ id, title, address, words: text }) => ({
    pageId: id,
    title,
    path: address ?? '/',
    ...excerpt(text ?? '', words[0]!),
  }))
}

/** The text around the first place of a word. */
function excerpt(text: string, word: string): Pick<TextHit, 'before' | 'match' | 'after'> {
  const line = text.replace(/\s+/g, ' ')
  const at = plain(line).indexOf(plain(word))
  // An accent that is a character of its own shifts the places: then the beginning is shown.
  if (at < 0 || plain(line).length !== line.length)
    return { before: '', match: '', after: cut(line, 2 * AROUND) }
  const before = cutToEnd(line.slice(0, at), AROUND)
  return {
    before: (at > AROUND ? '…' : '') + before,
    match: line.slice(at, at + word.length),
    after: cut(line.slice(at + word.length), AROUND),
  }
}

function cut(text: string, most: number): string {
  return text.length > most ? `${cutShort(text, most)}…` : text
}

function plain(text: string): string {
  return [...text.toLowerCase()].map((sign) => sign.normalize('NFD').charAt(0)).join('')
}
