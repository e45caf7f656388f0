/** Sections that are nearly alike: found whatever differs in what they say, and made one part without a visible change. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { patienceOf } from '../../scripts/lib/patience.mjs'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import type { Json } from '../src/page/json.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../src/page/page.ts'
import { subtreeIds } from '../src/page/walk.ts'
import { renderPage } from '../src/render/render-page.ts'
import { valueProblems } from '../src/reuse/component-values.ts'
import { fillable } from '../src/reuse/make-component.ts'
import {
  AlikeFinder,
  comparableSections,
  joinSections,
  sectionShape,
  withInstanceAt,
} from '../src/reuse/near-duplicates.ts'
import { withRootId } from '../src/reuse/shared-parts.ts'
import { anyPage, countingIds } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'
import { valuesFor } from './arbitraries/value.ts'
import { document, node } from './fixtures/event-card.ts'

const pageOf = (...sections: readonly (readonly [title: string, words: string, action: string])[]): Page => {
  const nodes: Record<NodeId, PageNode> = {}
  const ids = sections.map(([title, words, action], i) => {
    nodes[`h${i}`] = node('heading', { content: { text: title, level: 2 } })
    nodes[`t${i}`] = node('text', {
      content: { words: [{ type: 'paragraph', runs: [{ text: words }] }] as unknown as Json },
    })
    nodes[`b${i}`] = node('button', { content: { text: action, link: { href: 'https://example.org/' } } })
    nodes[`s${i}`] = node('section', { slots: { blocks: [`h${i}`, `t${i}`, `b${i}`] } })
    return `s${i}`
  })
  return document('home', {
    home: node('page', { content: { title: 'Home' }, slots: { sections: ids } }),
    ...nodes,
  })
}

function groupsOf(page: Page): readonly (readonly number[])[] {
  const finder = new AlikeFinder()
  for (const id of comparableSections(page, registry)) finder.add(sectionShape(page, id, registry))
  return finder.groups()
}

test('sections of the same blocks are found where they say mostly the same; other blocks, other widths and other words are others', () => {
  const page = pageOf(
    ['Come up', 'Any clear Friday', 'Book'],
    ['Come up', 'Any clear Friday', 'Book now'],
    ['Something else', 'Of another sort', 'Elsewhere'],
    ['Come up', 'Any clear Friday', 'Book'],
  )
  expect(groupsOf(page)).toEqual([[0, 1, 3]])
  const wider: Page = {
    ...page,
    nodes: { ...page.nodes, s1: { ...page.nodes.s1!, sizes: { base: { above: 'xl' } } } },
  }
  expect(groupsOf(wider)).toEqual([[0, 3]])
  const more: Page = {
    ...page,
    nodes: { ...page.nodes, s3: { ...page.nodes.s3!, slots: { blocks: ['h3', 'b3', 't3'] } } },
  }
  expect(groupsOf(more)).toEqual([[0, 1]])
})

test('what is locked is not compared, since it may not be changed', () => {
  const page = pageOf(['Come up', 'Any clear Friday', 'Book'], ['Come up', 'Any clear Friday', 'Book'])
  const locked = (id: NodeId): Page => ({
    ...page,
    nodes: { ...page.nodes, [id]: { ...page.nodes[id]!, lock: 'text' } },
  })
  expect(comparableSections(page, registry)).toEqual(['s0', 's1'])
  expect(comparableSections(locked('t0'), registry)).toEqual(['s1'])
  expect(comparableSections(locked('home'), registry)).toEqual([])
})

test('20,000 sections of one shape that all say something else take no longer than two seconds', () => {
  const finder = new AlikeFinder()
  const start = performance.now()
  for (let i = 0; i < 20_000; i++)
    finder.add({
      shape: 'one',
      values: Array.from({ length: 10 }, (_one, n) => ({ at: `${n}`, value: `${i}.${n}` })),
    })
  expect(finder.groups()).toEqual([])
  const took = performance.now() - start
  expect(took).toBeLessThan(patienceOf(2_000, took))
})

test('what differs is listed with what each has, and becomes the fields of the component', () => {
  const page = pageOf(['Come up', 'Any clear Friday', 'Book'], ['Come over', 'Any clear Friday', 'Book'])
  const joined = joinSections(
    ['s0', 's1'].map((id) => ({ page, id })),
    registry,
    countingIds('j'),
  )!
  expect(joined.differences).toEqual([{ name: 'Heading', values: ['Come up', 'Come over'] }])
  expect(validatePage(joined.part, registry, 'shared-sections')).toEqual([])
  const same = pageOf(['Come up', 'Any clear Friday', 'Book'], ['Come up', 'Any clear Friday', 'Book'])
  const shared = joinSections(
    ['s0', 's1'].map((id) => ({ page: same, id })),
    registry,
    countingIds('j'),
  )!
  expect(shared.values).toEqual([{}, {}])
  expect(getNode(shared.part, shared.part.root).content).toEqual({})
  const other = pageOf(['Come up', 'x', 'y'])
  const bare = { ...other, nodes: { ...other.nodes, s0: { ...other.nodes.s0!, slots: { blocks: ['h0'] } } } }
  const unlike = [
    { page, id: 's0' },
    { page: bare, id: 's0' },
  ]
  expect(joinSections(unlike, registry, countingIds('j'))).toBeUndefined()
})

/** What is locked is not compared. */
function unlocked(page: Page): Page {
  const nodes = Object.entries(page.nodes).map(([id, { lock: _lock, ...node }]) => [id, node])
  return { ...page, nodes: Object.fromEntries(nodes) as Page['nodes'] }
}

/** A page with copies of one of its sections, in each of which some values are others. */
const withVariations = fc
  .tuple(
    anyPage.map(unlocked),
    fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat()), { maxLength: 8 }),
    fc.integer({ min: 0, max: 1e6 }),
  )
  .chain(([page, changes, seed]) => {
    const [first] = comparableSections(page, registry)
    if (first === undefined) return fc.constant(undefined)
    const ids = subtreeIds(page, first)
    const drawn = fc.tuple(
      ...changes.map(([copy, at, key]) => {
        const id = ids[at % ids.length]!
        const kind = getKind(registry, getNode(page, id).kind)
        const options = fillable(kind)
        const option = options[key % Math.max(1, options.length)]
        return fc.tuple(
          fc.constant({ copy: copy % 3, id, option }),
          option?.of === 'look' ? valuesFor(kind.look) : valuesFor(kind.content),
        )
      }),
    )
    return drawn.map((all) => ({ page, first, ids, all, seed }))
  })

test('made one part, pages show visitors the same bytes as before, whatever differs', () => {
  let joinedOnes = 0
  fc.assert(
    fc.property(withVariations, (given) => {
      if (!given) return
      const { page, first, ids, all } = given
      const pages = [0, 1, 2].map((copy) => {
        const nodes: Record<NodeId, PageNode> = { ...page.nodes }
        for (const [{ copy: of, id, option }, values] of all) {
          const part = option?.of ?? 'content'
          if (of !== copy || !option) continue
          const { [option.key]: _before, ...rest } = nodes[id]![part]
          const value = values[option.key]
          const next = {
            ...nodes[id]!,
            [part]: value === undefined ? rest : { ...rest, [option.key]: value },
          }
          if (registry.check(next.kind, part, next[part]).length === 0) nodes[id] = next
        }
        return { ...page, nodes }
      })
      const joined = joinSections(
        pages.map((one) => ({ page: one, id: first })),
        registry,
        countingIds('j'),
      )
      if (!joined) return
      expect(joined.part.nodes).not.toHaveProperty(ids[0]!)
      const part = withRootId(joined.part, 'part')
      expect(validatePage(part, registry, 'shared-sections')).toEqual([])
      pages.forEach((before, i) => {
        const after = withInstanceAt(before, first, { part: 'part', values: joined.values[i]! }, registry)
        expect(validatePage(after, registry)).toEqual([])
        expect(valueProblems(after, { part }, registry)).toEqual([])
        expect(htmlOf(after, { part })).toBe(htmlOf(before, {}))
      })
      joinedOnes++
    }),
    { numRuns: 250 },
  )
  expect(joinedOnes).toBeGreaterThan(40)
})

/** What visitors get, without the ids that blocks have. */
function htmlOf(page: Page, parts: Record<string, Page>): string {
  const given = { page, title: 'T', description: 'D' }
  const { html } = renderPage(given, registry, { ...testSite(), parts }, 'inline')
  return html.replaceAll(/ (id|for|name|href|aria-labelledby|popovertarget)="[^"]*"/g, '')
}
