import type { Check } from './define-check.ts'

const SAYING_NOTHING = new Set([
  'click',
  'click here',
  'here',
  'this',
  'this link',
  'link',
  'more',
  'read more',
  'learn more',
  'see more',
  'find out more',
  'details',
  'more info',
  'more information',
  'go',
  'start',
  'continue',
  'this page',
])

/** Words of a link must say where it leads when they are read alone. The list of phrases is common practice, no source. */
export const linkWords: Check = {
  rule: 'link-words',
  severity: 'warning',
  source: 'WCAG 2.2, 2.4.4 Link Purpose (In Context); failure F63',
  find: ({ nodes }) =>
    nodes.flatMap(({ id, facts }) =>
      (facts.links ?? [])
        .filter(({ words }) => SAYING_NOTHING.has(plain(words)))
        .map(({ words }) => ({
          nodeId: id,
          message: `The link “${words.trim()}” does not say where it leads`,
        })),
    ),
}

function plain(words: string): string {
  return words
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}
