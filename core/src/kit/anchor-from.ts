const LONGEST = 48

/** A readable anchor made from words: letters and digits of ASCII joined by hyphens, beginning with a letter. Undefined when nothing is left. */
export function anchorFrom(words: string): string | undefined {
  const plain = words.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()
  const joined = plain.replace(/[\u2019']/g, '').replace(/[^a-z0-9]+/g, '-')
  const short = joined
    .replace(/^[^a-z]+/, '')
    .slice(0, LONGEST)
    .replace(/-+$/, '')
  return short === '' ? undefined : short
}
