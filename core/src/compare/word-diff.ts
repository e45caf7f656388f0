import { diffComm } from 'node-diff3'

/** A piece of two texts that were compared: in both, or in one of them alone. */
export interface DiffPart {
  readonly in: 'both' | 'first' | 'second'
  readonly text: string
}

/** With more words than this on a side, only the beginning and the end that both have are told apart from the rest. */
const MOST_WORDS = 4_000

/**
 * Two texts word by word, in order (longest common subsequence; Hunt and McIlroy, "An Algorithm for Differential File
 * Comparison", 1976). The parts in both and in the first make up the first text; likewise the second.
 */
export function diffWords(first: string, second: string): readonly DiffPart[] {
  const [a, b] = [wordsOf(first), wordsOf(second)]
  const start = sameStart(a, b)
  const end = sameStart(a.slice(start).reverse(), b.slice(start).reverse())
  const middle = diffMiddle(a.slice(start, a.length - end), b.slice(start, b.length - end))
  return joined([
    { in: 'both', text: a.slice(0, start).join('') },
    ...middle,
    { in: 'both', text: a.slice(a.length - end).join('') },
  ])
}

function diffMiddle(a: readonly string[], b: readonly string[]): DiffPart[] {
  if (Math.max(a.length, b.length) > MOST_WORDS)
    return [
      { in: 'first', text: a.join('') },
      { in: 'second', text: b.join('') },
    ]
  return diffComm([...a], [...b]).flatMap((part): DiffPart[] =>
    'common' in part
      ? [{ in: 'both', text: (part.common as string[]).join('') }]
      : [
          { in: 'first', text: part.buffer1.join('') },
          { in: 'second', text: part.buffer2.join('') },
        ],
  )
}

/** Words and what stands between them, so that joining gives the text again. */
function wordsOf(text: string): string[] {
  return text.match(/[\p{L}\p{N}]+|\s+|[^\p{L}\p{N}\s]/gu) ?? []
}

function sameStart(a: readonly string[], b: readonly string[]): number {
  let at = 0
  while (at < a.length && at < b.length && a[at] === b[at]) at++
  return at
}

/** Without empty parts, and with neighbours of one sort as one. */
function joined(parts: readonly DiffPart[]): DiffPart[] {
  const made: DiffPart[] = []
  for (const part of parts) {
    const last = made.at(-1)
    if (part.text === '') continue
    if (last?.in === part.in) made[made.length - 1] = { ...last, text: last.text + part.text }
    else made.push(part)
  }
  return made
}
