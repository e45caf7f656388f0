/** What the screen says of drafts and of others: never other than it is. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { journalWords } from '../src/editor/chrome/foot.tsx'
import { afterHearing, type Others } from '../src/editor/chrome/presence.ts'
import type { Heard } from '../src/editor/session/presence-channel.ts'

describe('of a draft', () => {
  test('it is called saved only where it is, and only there', () => {
    for (const state of ['sent', 'waiting', 'unreachable', 'full'] as const)
      for (const isOverfull of [false, true]) {
        const { words, isTrouble } = journalWords(state, isOverfull)
        const isSomewhere = !isOverfull || state === 'sent'
        expect(/draft saved/i.test(words) || state === 'waiting').toBe(isSomewhere || state === 'waiting')
        expect(/on the server/.test(words)).toBe(isOverfull && state === 'sent')
        if (!isSomewhere)
          expect([isTrouble, words]).toEqual([true, expect.stringMatching(/^Draft not saved/)])
      }
  })
})

describe('of others on the page', () => {
  const nobody: Others = { people: [], saved: undefined, isDeleted: false }
  test('those who came and have not left are there, each tab once, and never the own one', () => {
    const happening = fc.record({
      event: fc.constantFrom('came', 'left'),
      tab: fc.constantFrom('own', 'a', 'b', 'c'),
    })
    fc.assert(
      fc.property(fc.array(happening), (all) => {
        const there = new Set<string>()
        let others = nobody
        for (const { event, tab } of all) {
          if (event === 'came') there.add(tab)
          else there.delete(tab)
          others = afterHearing(others, { event, data: { pageId: 'p', tab, name: tab } } as Heard, 'own')
        }
        there.delete('own')
        expect(others.people.map(({ tab }) => tab).sort()).toEqual([...there].sort())
      }),
    )
  })
  test('a save of this tab is no news, one of another is; a page is deleted until it is restored', () => {
    const saved = (tab: string): Heard => ({
      event: 'saved',
      data: { pageId: 'p', tab, number: 3, savedAt: '2026-01-01T00:00:00.000Z', savedBy: 'Tarn' },
    })
    expect(afterHearing(nobody, saved('own'), 'own')).toBe(nobody)
    expect(afterHearing(nobody, saved('a'), 'own').saved?.number).toBe(3)
    const deleted = afterHearing(nobody, { event: 'deleted', data: { pageId: 'p', by: 'Tarn' } }, 'own')
    expect(deleted.isDeleted).toBe(true)
    expect(
      afterHearing(deleted, { event: 'restored', data: { pageId: 'p', by: 'Tarn' } }, 'own').isDeleted,
    ).toBe(false)
  })
})
