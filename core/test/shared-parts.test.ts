/** Shared sections: what instances show, wherever they stand, is what copies would show; and none shows itself. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { sameJson, type JsonObject } from '../src/page/json.ts'
import { findNode, getNode, PAGE_FORMAT, type NodeId, type Page, type PageNode } from '../src/page/page.ts'
import { childIds, findPlace, subtreeIds } from '../src/page/walk.ts'
import { renderPage } from '../src/render/render-page.ts'
import { Expander, expandParts, linkedPart, MOST_SHOWN, type Parts } from '../src/resolve/expand.ts'
import { shownIds } from '../src/resolve/shown.ts'
import {
  becomeInstanceEdits,
  instanceFragment,
  SHARED_ROOTS,
  sharedPartOf,
  sharedRefusal,
  withRootId,
} from '../src/reuse/shared-parts.ts'
import { findRing, instanceAround, ringIn, shownIdOf, shownParts, stepsOf } from '../src/reuse/shown-parts.ts'
import { originOf } from '../src/resolve/expand.ts'
import { ownCopyEdits, withCopies } from '../src/reuse/own-copies.ts'
import { withOtherPart } from '../src/reuse/other-part.ts'
import { joinPart, joinSession, partAt, sessionRegistry, sharedNames } from '../src/site/session-page.ts'
import { changedParts, partOf } from '../src/site/session-parts.ts'
import { anyPage, countingIds, editFor } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'

const registry = sessionRegistry(defaultRegistry)
const site = testSite()
const node = (kind: string, more: Parameters<typeof newNode>[1] = {}): PageNode =>
  newNode(getKind(defaultRegistry, kind), more)
const document = (root: NodeId, nodes: Record<NodeId, PageNode>): Page => ({
  format: PAGE_FORMAT,
  root,
  nodes,
})
const header = document('top', { top: node('site-header', { content: { brand: 'Tarrowmoor' } }) })
const footer = document('bottom', { bottom: node('site-footer') })
const plain = document('home', {
  home: node('page', { content: { title: 'Visit' }, slots: { sections: ['one', 'two'] } }),
  one: node('section', { slots: { blocks: ['hours', 'note'] } }),
  hours: node('heading', { content: { text: 'Opening hours', level: 2 } }),
  note: node('heading', { content: { text: 'Closed in fog', level: 3 } }),
  two: node('section', { slots: { blocks: ['end'] } }),
  end: node('heading', { content: { text: 'Getting here', level: 2 } }),
})

/** As visitors get it. Ids in HTML are those of nodes, which copies have of their own. */
function html(page: Page, parts: Parts = {}): string {
  const rendered = renderPage(
    { page, header, footer, title: 'T', description: 'D' },
    defaultRegistry,
    { ...site, parts },
    () => ({ href: '/s.css' }),
  )
  return (rendered.html + rendered.css).replaceAll(/menu-[a-z0-9-]+/g, 'menu-id')
}

/** A part made of some siblings of a page, and the page with an instance in their place. */
interface Made {
  readonly page: Page
  readonly part: Page
  readonly instance: NodeId
  readonly ids: readonly NodeId[]
}

function make(page: Page, ids: readonly NodeId[], id = 'hourspart'): Made {
  const newId = countingIds('p')
  const part = withRootId(sharedPartOf(page, ids, defaultRegistry, newId), id)
  const fragment = instanceFragment(id, part, defaultRegistry, () => 'inst')
  const applied = applyEdits(page, becomeInstanceEdits(page, ids, fragment), defaultRegistry)
  if (!applied.ok) throw new Error(applied.message)
  return { page: applied.page, part, instance: 'inst', ids }
}

/** Siblings of a page that can become a shared section. */
const anyMade: fc.Arbitrary<Made & { readonly before: Page }> = anyPage.chain((page) => {
  const runs = Object.values(page.nodes).flatMap(({ slots }) =>
    Object.values(slots).flatMap((children) =>
      children.flatMap((_id, from) =>
        [1, 2].flatMap((length) => {
          const ids = children.slice(from, from + length)
          return ids.length === length && sharedRefusal(page, ids, defaultRegistry) === undefined ? [ids] : []
        }),
      ),
    ),
  )
  const locked = (ids: readonly NodeId[]): boolean =>
    ids.some((id) => subtreeIds(page, id).some((one) => getNode(page, one).lock))
  const free = runs.filter((ids) => !locked(ids))
  if (free.length === 0) return fc.constant({ ...make(plain, ['hours']), before: plain })
  return fc.constantFrom(...free).map((ids) => ({ ...make(page, ids), before: page }))
})

describe('a selection that becomes a shared section', () => {
  test('is one valid document and one instance, and visitors see the same bytes as before', () => {
    fc.assert(
      fc.property(anyMade, ({ before, page, part }) => {
        expect(SHARED_ROOTS.some((root) => validatePage(part, defaultRegistry, root).length === 0)).toBe(true)
        expect(validatePage(page, defaultRegistry)).toEqual([])
        expect(html(page, { hourspart: part })).toBe(html(before))
      }),
      { numRuns: 150 },
    )
  })

  test('turned into copies again, on its page or everywhere, shows the same bytes, and taking that back gives the page', () => {
    fc.assert(
      fc.property(anyMade, ({ before, page, part, instance }) => {
        const copied = withCopies(page, 'hourspart', part, defaultRegistry, countingIds('w'))
        expect(validatePage(copied, defaultRegistry)).toEqual([])
        expect(html(copied)).toBe(html(before))
        const session = joinSession({ page, header, footer, parts: { hourspart: part } }, countingIds('j'))
        const { edits, copies } = ownCopyEdits(session, instance, registry, countingIds('o'))
        const applied = applyEdits(session, edits, registry)
        if (!applied.ok) throw new Error(applied.message)
        expect(copies).toHaveLength(childIds(getNode(part, part.root)).length)
        expect(html(partOf(applied.page, 'page'))).toBe(html(before))
        const back = applyEdits(applied.page, applied.inverse, registry)
        expect(back.ok && sameJson(back.page as never, session as never)).toBe(true)
      }),
      { numRuns: 100 },
    )
  })

  test('is not possible with a header, an item, or blocks and sections at once', () => {
    expect(sharedRefusal(plain, [], defaultRegistry)).toMatch(/Select/)
    expect(sharedRefusal(plain, ['one', 'hours'], defaultRegistry)).toMatch(/not both/)
    expect(sharedRefusal(header, ['top'], defaultRegistry)).toMatch(/every page/)
    expect(() => instanceFragment('x', plain, defaultRegistry, () => 'i')).toThrow(RangeError)
  })
})

test('another part in the place of one, and back again, is the document as it was', () => {
  fc.assert(
    fc.property(anyMade, ({ page, part }) => {
      const another = withRootId(part, 'other')
      const other = withOtherPart(page, part, another, defaultRegistry)
      expect(linkedPart(getNode(other, 'inst'), defaultRegistry)).toBe('other')
      expect(withOtherPart(other, another, part, defaultRegistry)).toEqual(page)
    }),
    { numRuns: 50 },
  )
})

/** A page and parts whose instances stand anywhere in each other, rings among them. */
const anyNest = fc
  .record({
    shows: fc.array(fc.array(fc.integer({ min: 0, max: 4 }), { maxLength: 3 }), {
      minLength: 5,
      maxLength: 5,
    }),
    onPage: fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 4 }),
  })
  .map(({ shows, onPage }) => {
    const instance = (part: number): PageNode => node('linked-blocks', { content: { part: `part${part}` } })
    const parts = shows.map((inside, part) => {
      const nodes: Record<NodeId, PageNode> = {
        words: node('heading', { content: { text: `Part ${part}`, level: 2 } }),
      }
      inside.forEach((one, i) => (nodes[`i${i}`] = instance(one)))
      const blocks = ['words', ...inside.map((_one, i) => `i${i}`)]
      return document(`part${part}`, {
        ...nodes,
        [`part${part}`]: node('shared-blocks', { slots: { blocks } }),
      })
    })
    const nodes: Record<NodeId, PageNode> = {}
    onPage.forEach((one, i) => (nodes[`i${i}`] = instance(one)))
    const page = document('home', {
      ...nodes,
      home: node('page', { slots: { sections: ['one'] } }),
      one: node('section', { slots: { blocks: Object.keys(nodes) } }),
    })
    return { page, shows, onPage, parts: Object.fromEntries(parts.map((part) => [part.root, part])) }
  })

/** What a page with parts says, the parts followed by hand as deep as no part stands in itself. */
function saidBy(onPage: readonly number[], shows: readonly (readonly number[])[]): string[] {
  const follow = (part: number, ring: readonly number[]): string[] =>
    shows[part] && !ring.includes(part)
      ? [`Part ${part}`, ...shows[part].flatMap((one) => follow(one, [...ring, part]))]
      : ['-']
  return onPage.flatMap((part) => follow(part, []))
}

describe('parts in parts', () => {
  test('are followed to any depth, end where one would show itself, and lose nothing', () => {
    fc.assert(
      fc.property(anyNest, ({ page, parts, shows, onPage }) => {
        const expanded = expandParts(page, defaultRegistry, parts)
        const said = shownIds(expanded, 'one', defaultRegistry)
          .slice(1)
          .map((id) => {
            const { kind, content } = getNode(expanded, id)
            return kind === 'heading' ? content.text : '-'
          })
        expect(said).toEqual(saidBy(onPage, shows))
      }),
      { numRuns: 300 },
    )
  })

  test('multiply no further than a page can hold', () => {
    const parts: Record<string, Page> = {}
    for (let i = 0; i < 12; i++) {
      const nodes: Record<NodeId, PageNode> = {
        words: node('heading', { content: { text: `${i}`, level: 2 } }),
      }
      for (let n = 0; n < 6; n++)
        nodes[`i${n}`] = node('linked-blocks', { content: { part: `part${i + 1}` } })
      const blocks = Object.keys(nodes)
      parts[`part${i}`] = document(`part${i}`, {
        ...nodes,
        [`part${i}`]: node('shared-blocks', { slots: { blocks } }),
      })
    }
    const page = document('home', {
      home: node('page', { slots: { sections: ['one'] } }),
      one: node('section', { slots: { blocks: ['i'] } }),
      i: node('linked-blocks', { content: { part: 'part0' } }),
    })
    const shown = shownIds(expandParts(page, defaultRegistry, parts), 'home', defaultRegistry)
    expect(shown.length).toBeGreaterThan(MOST_SHOWN)
    expect(shown.length).toBeLessThan(2 * MOST_SHOWN)
  })

  test('form a ring exactly where one can be reached from itself', () => {
    fc.assert(
      fc.property(anyNest, ({ shows }) => {
        const next = (part: string): readonly string[] => (shows[Number(part)] ?? []).map(String)
        const reachable = (from: string): Set<string> => {
          const seen = new Set(next(from))
          for (const one of seen) for (const two of next(one)) seen.add(two)
          return seen
        }
        const all = shows.map((_part, i) => String(i))
        const ring = findRing(all, next)
        expect(ring !== undefined).toBe(all.some((part) => reachable(part).has(part)))
        if (ring) ring.forEach((part, i) => expect(next(part)).toContain(ring[(i + 1) % ring.length]))
      }),
      { numRuns: 300 },
    )
  })
})

/** A page that shows one part twice and a part in that part, all joined to one tree. */
function session(): Page {
  const inner = document('innerpart', {
    innerpart: node('shared-blocks', { slots: { blocks: ['fog'] } }),
    fog: node('heading', { content: { text: 'Closed in fog', level: 3 } }),
  })
  const outer = document('outerpart', {
    outerpart: node('shared-blocks', { slots: { blocks: ['box'] } }),
    box: node('stack', { slots: { blocks: ['hours2', 'deep'] } }),
    hours2: node('heading', { content: { text: 'Opening hours', level: 2 } }),
    deep: node('linked-blocks', { content: { part: 'innerpart' } }),
  })
  const page = document('home', {
    ...plain.nodes,
    one: node('section', { slots: { blocks: ['first', 'note', 'second'] } }),
    first: node('linked-blocks', { content: { part: 'outerpart' } }),
    second: node('linked-blocks', { content: { part: 'outerpart' } }),
  })
  const { hours: _gone, ...nodes } = page.nodes
  const parts = { outerpart: outer, innerpart: inner }
  return joinSession({ page: { ...page, nodes }, header, footer, parts }, countingIds('j'))
}

describe('a session with parts', () => {
  test('is a valid tree, knows what is joined, and gives each document back', () => {
    const joined = session()
    expect(validatePage(joined, registry)).toEqual([])
    expect(sharedNames(joined)).toEqual(['header', 'footer', 'outerpart', 'innerpart'])
    expect(partAt(joined, 'hours2')).toBe('outerpart')
    expect(validatePage(partOf(joined, 'outerpart'), defaultRegistry, 'shared-blocks')).toEqual([])
    expect(validatePage(partOf(joined, 'page'), defaultRegistry)).toEqual([])
    expect(changedParts(joined, joined)).toEqual([])
    const edit = { edit: 'set', nodeId: 'fog', at: ['content', 'text'], value: 'Open' } as const
    const applied = applyEdits(joined, [edit], registry)
    expect(applied.ok && changedParts(joined, applied.page)).toEqual(['innerpart'])
    expect(joinPart(joined, 'outerpart', plain, countingIds('x'))).toBe(joined)
  })

  test('a part whose ids the page has gets others, and is shown all the same', () => {
    const part = document('mine', {
      mine: node('shared-blocks', { slots: { blocks: ['note'] } }),
      note: node('heading', { content: { text: 'Another note', level: 3 } }),
    })
    const joined = joinPart(session(), 'mine', part, countingIds('x'))
    expect(validatePage(joined, registry)).toEqual([])
    expect(getNode(joined, 'note').content.text).toBe('Closed in fog')
    expect(getNode(joined, childIds(getNode(joined, 'mine'))[0]!).content.text).toBe('Another note')
  })

  test('says where a node of a part is seen: in the instance that is meant, or else in the first', () => {
    const joined = session()
    expect(shownIdOf(joined, 'note', '', registry)).toBe('note')
    expect(shownIdOf(joined, 'hours2', '', registry)).toBe('first/hours2')
    expect(shownIdOf(joined, 'hours2', 'second', registry)).toBe('second/hours2')
    expect(shownIdOf(joined, 'fog', 'second/deep', registry)).toBe('second/deep/fog')
    expect(shownIdOf(joined, 'fog', 'second', registry)).toBe('first/deep/fog')
    expect(shownParts(joined, registry)).toEqual(['outerpart', 'innerpart'])
    expect([stepsOf('a/b/c'), originOf('a/b/c'), instanceAround('a/b/c'), instanceAround('a')]).toEqual([
      ['a', 'b', 'c'],
      'c',
      'a/b',
      '',
    ])
  })

  test('a part that is put into itself, or into what it shows, is found', () => {
    const joined = session()
    expect(ringIn(joined, registry)).toBeUndefined()
    const instance = { rootId: 'x', nodes: { x: node('linked-blocks', { content: { part: 'outerpart' } }) } }
    const applied = applyEdits(
      joined,
      [{ edit: 'insert', parentId: 'innerpart', slot: 'blocks', index: 0, ...instance }],
      registry,
    )
    expect(applied.ok && [...ringIn(applied.page, registry)!].sort()).toEqual(['innerpart', 'outerpart'])
  })
})

describe('expanding again after edits', () => {
  test('gives what expanding from nothing gives, and what did not change is the same object', () => {
    let edited = 0
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 2 ** 31 - 1 }), { minLength: 1, maxLength: 8 }),
        (seeds) => {
          let page = session()
          const expander = new Expander(registry)
          let before = expander.update(page)
          for (const [i, seed] of seeds.entries()) {
            const [edit] = fc.sample(editFor(page, `b${i}`), { numRuns: 1, seed })
            const applied = applyEdits(page, [edit!], registry)
            if (!applied.ok || !findNode(applied.page, 'home')) continue
            edited++
            page = applied.page
            const now = expander.update(page)
            const fresh = new Expander(registry).update(page)
            const shown = shownIds(fresh, 'home', registry)
            expect(shownIds(now, 'home', registry)).toEqual(shown)
            for (const id of shown) {
              const one = getNode(now, id)
              expect(
                sameJson(one as unknown as JsonObject, getNode(fresh, id) as unknown as JsonObject),
              ).toBe(true)
              const was = findNode(before, id)
              if (was && sameJson(was as unknown as JsonObject, one as unknown as JsonObject) && one !== was)
                // A node that was set to what it said already is another object in the document, too.
                expect(applied.page.nodes[originOf(id)]).not.toBe(was)
              expect(findPlace(now, id)?.index).toBe(findPlace(fresh, id)?.index)
            }
            before = now
          }
        },
      ),
      { numRuns: 200 },
    )
    expect(edited).toBeGreaterThan(200)
  })

  test('a letter in a part changes the nodes that show it, and no others', () => {
    const joined = session()
    const expander = new Expander(registry)
    const before = expander.update(joined)
    const edit = { edit: 'set', nodeId: 'fog', at: ['content', 'text'], value: 'Open' } as const
    const applied = applyEdits(joined, [edit], registry)
    if (!applied.ok) throw new Error(applied.message)
    const now = expander.update(applied.page)
    const changed = shownIds(now, 'home', registry).filter((id) => now.nodes[id] !== before.nodes[id])
    expect(changed).toEqual(['first/deep/fog', 'second/deep/fog'])
    expect(changed.map((id) => getNode(now, id).content.text)).toEqual(['Open', 'Open'])
  })

  test('a page without instances is given back as it is', () => {
    const expander = new Expander(registry)
    expect(expander.update(plain)).toBe(plain)
  })
})
