/** Merging and telling apart: edits that become one, words that differ, navigations of two people. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { checkEditShape } from '../src/blocks/default-registry.ts'
import { mergeTexts } from '../src/compare/merge-texts.ts'
import { diffWords } from '../src/compare/word-diff.ts'
import { mergeEdits } from '../src/edits/edit.ts'
import type { Edit } from '../src/edits/edit-shapes.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { EMPTY_HISTORY, record, type History } from '../src/edits/undo.ts'
import type { Json } from '../src/page/json.ts'
import { mergeNavigation } from '../src/site/merge-navigation.ts'
import type { NavigationItem } from '../src/site/navigation.ts'
import { settingsOf, withSettings, type PageSettings } from '../src/site/page-settings.ts'
import { Counts } from './arbitraries/counts.ts'
import { anyPage, editFor } from './arbitraries/page.ts'

describe('edits in a row', () => {
  test('do merged what they do one by one', () => {
    const pageAndEdits = anyPage.chain((page) =>
      fc.array(editFor(page), { minLength: 1, maxLength: 6 }).map((edits) => ({ page, edits })),
    )
    let merged = 0
    const counts = new Counts()
    fc.assert(
      fc.property(pageAndEdits, ({ page, edits }) => {
        // Settings twice, so that many set one value in a row; what moves or removes would be refused the second time.
        const twice = edits.flatMap((edit): Edit[] => (edit.edit === 'set' ? [edit, edit] : [edit]))
        const one = applyEdits(page, twice, registry)
        if (!one.ok) return counts.skip()
        counts.look()
        const together = mergeEdits(twice)
        if (together.length < twice.length) merged++
        const all = applyEdits(page, together, registry)
        expect(all.ok && all.page).toEqual(one.page)
      }),
      { numRuns: 500 },
    )
    counts.expectLooked(0.08)
    expect(merged).toBeGreaterThan(10)
  })

  test('every edit has the shape that is asked of stored ones, and hostile JSON has not', () => {
    fc.assert(
      fc.property(
        anyPage.chain((page) => editFor(page).map((edit) => ({ page, edit }))),
        ({ page, edit }) => {
          if (applyEdits(page, [edit], registry).ok) expect(checkEditShape(edit)).toEqual([])
        },
      ),
      { numRuns: 300 },
    )
    fc.assert(
      fc.property(fc.jsonValue(), (value) => expect(checkEditShape(value).length).toBeGreaterThan(0)),
      { numRuns: 300 },
    )
  })

  test('a history is bounded by its size: the oldest steps go, the last one never', () => {
    const edit = (value: string) => ({ edit: 'set', nodeId: 'a', at: ['name'], value }) as const
    let history: History = EMPTY_HISTORY
    for (let i = 0; i < 100; i++)
      history = record(
        history,
        { label: `${i}`, origin: 'x', at: i * 10_000, edits: [edit('x'.repeat(100))] },
        [edit('')],
        5_000,
      )
    expect(history.done.length).toBeLessThan(30)
    expect(history.done.length).toBeGreaterThan(5)
    expect(history.done.at(-1)!.transaction.label).toBe('99')
    const huge = record(
      EMPTY_HISTORY,
      { label: 'huge', origin: 'x', at: 0, edits: [edit('x'.repeat(10_000))] },
      [],
      5_000,
    )
    expect(huge.done).toHaveLength(1)
  })
})

describe('words that differ', () => {
  test('both texts are found again in the parts, and equal texts are one part', () => {
    const text = fc
      .array(fc.constantFrom('heron', ' ', ', ', 'moor', '\n', 'é', '日本', '.'), { maxLength: 40 })
      .map((all) => all.join(''))
    fc.assert(
      fc.property(text, text, (first, second) => {
        const parts = diffWords(first, second)
        const of = (side: 'first' | 'second') =>
          parts
            .filter((part) => part.in === 'both' || part.in === side)
            .map((part) => part.text)
            .join('')
        expect([of('first'), of('second')]).toEqual([first, second])
        if (first === second) expect(parts.every((part) => part.in === 'both')).toBe(true)
      }),
      { numRuns: 500 },
    )
  })
  test('of long texts that differ at their end, the end alone differs', () => {
    const long = 'The dome opens at dusk. '.repeat(500)
    const parts = diffWords(`${long}Bring a coat.`, `${long}Bring a hat.`)
    expect(parts.filter((part) => part.in !== 'both').map((part) => part.text)).toEqual(['coat', 'hat'])
  })
})

test('a thousand equal paragraphs are merged as quickly as any', () => {
  const same = (count: number): Json[] =>
    Array.from({ length: count }, () => ({ type: 'paragraph', runs: [{ text: 'Same' }] }))
  const own = (text: string): Json => ({ type: 'paragraph', runs: [{ text }] })
  const merged = mergeTexts(same(1_000), [...same(1_000), own('Ours')], [own('Theirs'), ...same(1_000)])
  expect(merged).toEqual([own('Theirs'), ...same(1_000), own('Ours')])
})

describe('a navigation of two people', () => {
  const item = fc.constantFrom<NavigationItem>(
    { page: 'a' },
    { page: 'b' },
    { page: 'c' },
    { href: 'https://shop.example/', label: 'Shop' },
    { page: 'a', anchor: 'hours', label: 'Hours' },
  )
  const lines = fc.uniqueArray(item, { selector: (one) => JSON.stringify(one) })
  test('has what either added, lacks what either removed, and is ours where only we changed it', () => {
    fc.assert(
      fc.property(lines, lines, lines, (base, ours, theirs) => {
        const has = (list: readonly NavigationItem[], one: NavigationItem) =>
          list.some((other) => JSON.stringify(other) === JSON.stringify(one))
        const merged = mergeNavigation({ base, ours, theirs })
        for (const one of [...base, ...ours, ...theirs]) {
          const isRemoved = has(base, one) && !(has(ours, one) && has(theirs, one))
          expect(has(merged, one)).toBe(!isRemoved)
        }
        expect(mergeNavigation({ base, ours, theirs: base })).toEqual(ours)
        expect(mergeNavigation({ base, ours: base, theirs })).toEqual(theirs)
      }),
    )
  })
})

test('settings of a page come back as they were put in, and touch nothing else of it', () => {
  const settings: fc.Arbitrary<PageSettings> = fc.record({
    title: fc.string({ maxLength: 20 }),
    description: fc.string({ maxLength: 20 }),
    inNavigation: fc.boolean(),
    navigationLabel: fc.string({ maxLength: 10 }),
    theme: fc.constantFrom(null, 'moss'),
    isListed: fc.boolean(),
    sharePicture: fc.constantFrom(null, 'pica'),
  })
  fc.assert(
    fc.property(anyPage, settings, settings, (page, one, other) => {
      const made = withSettings(page, one)
      expect(settingsOf(made)).toEqual(one)
      expect(settingsOf(withSettings(withSettings(page, other), one))).toEqual(one)
      expect(withSettings(made, {})).toEqual(made)
      const rest = ({ nodes, root }: typeof page) => Object.entries(nodes).filter(([id]) => id !== root)
      expect(rest(made)).toEqual(rest(page))
    }),
  )
})
