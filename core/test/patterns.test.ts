/** Patterns made of what is selected: copies that say the same, stand wherever they are placed, and share nothing. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { createStarters } from '../src/blocks/starters.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { placeEdits } from '../src/edits/compose.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { getNode, PAGE_FORMAT, type NodeId, type Page } from '../src/page/page.ts'
import { subtreeIds } from '../src/page/walk.ts'
import { pageWords } from '../src/resolve/page-words.ts'
import { patternOf, patternRefusal, savedStarter } from '../src/reuse/patterns.ts'
import { anyPage, countingIds } from './arbitraries/page.ts'

/** A page, and neighbours on it that can be one pattern. */
const pageAndBlocks = anyPage
  .map((page) => ({
    page,
    groups: subtreeIds(page, page.root)
      .flatMap((id) => Object.values(getNode(page, id).slots))
      .filter((ids) => ids.length > 0 && patternRefusal(page, ids, registry) === undefined),
  }))
  .filter(({ groups }) => groups.length > 0)
  .chain(({ page, groups }) => fc.constantFrom(...groups).map((ids) => ({ page, ids })))

const saved = (page: Page, ids: readonly NodeId[]) => ({
  id: 'x',
  name: 'Saved',
  about: '',
  purpose: 'other' as const,
  words: '',
  document: patternOf(page, ids, registry, countingIds('saved')),
})

function emptyPage(): Page {
  return { format: PAGE_FORMAT, root: 'root', nodes: { root: newNode(getKind(registry, 'page')) } }
}

test('what is placed on an empty page is a valid page that says what was selected, in its order', () => {
  fc.assert(
    fc.property(pageAndBlocks, ({ page, ids }) => {
      const pattern = saved(page, ids)
      expect(validatePage(pattern.document, registry, 'pattern')).toEqual([])
      const starter = savedStarter({ ...pattern, type: 'pattern' }, registry)
      const newId = countingIds('placed')
      const fragments = [starter.build(newId), ...starter.buildRest(newId)]
      const target = { parentId: 'root', slot: 'sections', index: 0 }
      const result = applyEdits(
        emptyPage(),
        placeEdits(emptyPage(), target, fragments, registry, newId),
        registry,
      )
      if (!result.ok) throw new Error(result.message)
      expect(validatePage(result.page, registry)).toEqual([])
      const said = ids.flatMap((id) => pageWords({ ...page, root: id }, registry))
      expect(pageWords(result.page, registry)).toEqual(said)
      // Several blocks stand together, in one section where they need one.
      expect(getNode(result.page, 'root').slots.sections).toHaveLength(
        getKind(registry, starter.kind).group === 'section' ? ids.length : 1,
      )
    }),
    { numRuns: 300 },
  )
})

test('a copy shares no id with what it was made of, nor with another copy', () => {
  fc.assert(
    fc.property(pageAndBlocks, ({ page, ids }) => {
      const pattern = saved(page, ids)
      const starter = savedStarter({ ...pattern, type: 'pattern' }, registry)
      const newId = countingIds('copy')
      const copies = [0, 1].map(() =>
        [starter.build(newId), ...starter.buildRest(newId)].flatMap(({ nodes }) => Object.keys(nodes)),
      )
      const all = [...Object.keys(page.nodes), ...Object.keys(pattern.document.nodes), ...copies.flat()]
      expect(new Set(all).size).toBe(all.length)
    }),
  )
})

test('at least thirty patterns ship, and nothing on the shelf is called as anything else there', () => {
  const shipped = createStarters(registry)
  expect(shipped.filter(({ type }) => type === 'pattern').length).toBeGreaterThanOrEqual(30)
  for (const key of ['id', 'title'] as const) {
    const all = shipped.map((starter) => starter[key].toLowerCase())
    expect(all.filter((one, i) => all.indexOf(one) !== i)).toEqual([])
  }
})

describe('what can’t be a pattern', () => {
  const page: Page = {
    format: PAGE_FORMAT,
    root: 'root',
    nodes: {
      root: newNode(getKind(registry, 'page'), { slots: { sections: ['s'] } }),
      s: newNode(getKind(registry, 'section'), { slots: { blocks: ['p', 'h'] } }),
      p: newNode(getKind(registry, 'panels'), { slots: { panels: ['i'] } }),
      i: newNode(getKind(registry, 'panel')),
      h: newNode(getKind(registry, 'heading')),
    },
  }
  test.each<[string, readonly NodeId[], RegExp]>([
    ['nothing', [], /Select/],
    ['the page itself', ['root'], /header or a footer/],
    ['an item alone', ['i'], /whole block/],
    ['a section and a block', ['s', 'h'], /not both/],
  ])('%s', (_what, ids, words) => expect(patternRefusal(page, ids, registry)).toMatch(words))
  test('while blocks and sections can', () => {
    for (const ids of [['s'], ['p', 'h'], ['h']]) expect(patternRefusal(page, ids, registry)).toBeUndefined()
  })
})
