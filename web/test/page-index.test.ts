/** The list of pages that comes in parts, and what of it is drawn. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { PageListPart, PageSummary, SiteContext } from '@gullyline/core'
import { demoSite } from '@gullyline/demo'
import type { Site } from '../src/api/hooks.ts'
import { begunWith, replaced, withChanges, withMore, type PageIndex } from '../src/api/page-index.ts'
import { Drawing } from '../src/editor/session/site-view.ts'

function page(id: string, more: Partial<PageSummary> = {}): PageSummary {
  return {
    id,
    parentId: null,
    position: 0,
    title: id,
    slug: id,
    path: `/${id}/`,
    description: '',
    inNavigation: true,
    more: { navigationLabel: '', theme: null, isListed: true, sharePicture: null },
    state: 'live',
    version: 1,
    savedAt: '2026-01-01T00:00:00.000Z',
    savedBy: 'Ines',
    liveSince: null,
    ...more,
  }
}

function part(pages: readonly PageSummary[], more: Partial<PageListPart> = {}): PageListPart {
  return { pages, gone: [], total: pages.length, mark: 'a.1', next: null, ...more }
}

const IDS = ['a', 'b', 'c', 'd', 'e', 'f']
const anyPages = fc
  .uniqueArray(fc.record({ id: fc.constantFrom(...IDS), version: fc.nat(3) }), { selector: ({ id }) => id })
  .map((all) => all.map(({ id, version }) => page(id, { version })))
const byId = (pages: readonly PageSummary[]) => Object.fromEntries(pages.map((one) => [one.id, one]))

test('whatever changed, the list is the one of the server, and what did not change is the same object', () => {
  fc.assert(
    fc.property(anyPages, anyPages, (before, now) => {
      const known = new Map(before.map((one) => [one.id, one]))
      const changed = now.filter(({ id, version }) => known.get(id)?.version !== version)
      const gone = before.map(({ id }) => id).filter((id) => !now.some((one) => one.id === id))
      const index = begunWith(part(before))
      const next = withChanges(index, part(changed, { gone, total: now.length, mark: 'a.2' }))!
      expect([byId(next.pages), next.mark]).toEqual([byId(now), 'a.2'])
      for (const one of next.pages)
        if (!changed.some(({ id }) => id === one.id)) expect(one).toBe(known.get(one.id))
    }),
  )
})

test('all parts together are all pages, however they are cut', () => {
  fc.assert(
    fc.property(anyPages, fc.array(fc.nat(5)), (all, cuts) => {
      const sorted = all.toSorted((a, b) => (a.id < b.id ? -1 : 1))
      let index: PageIndex = begunWith(part(sorted.slice(0, 2), { next: '', total: all.length }))
      for (let at = 0, i = 0; index.next !== null; i++) {
        const size = 1 + (cuts[i] ?? 1)
        const some = sorted.slice(at, at + size)
        at += size
        index = withMore(index, part(some, { next: at >= sorted.length ? null : some.at(-1)!.id }))
      }
      expect(byId(index.pages)).toEqual(byId(all))
      expect(index.pages).toHaveLength(all.length)
    }),
  )
})

test('a list that is not the server’s after all is to be read anew, and so is one that begins anew', () => {
  const index = begunWith(part([page('a')]))
  expect(withChanges(index, part([], { total: 2 }))).toBeUndefined()
  expect(withChanges(index, part([page('b')], { isAnew: true }))!.pages).toEqual([page('b')])
})

test('a page that comes again as it is stays the object that it was', () => {
  const [a, b] = [page('a'), page('b')]
  const next = replaced([a, b], [page('a'), page('b', { title: 'Other' })])
  expect(next[0]).toBe(a)
  expect(next[1]!.title).toBe('Other')
})

describe('what is drawn of the site', () => {
  const site = { ...demoSite, liveOrigin: '', pictures: {}, files: {} } as unknown as Site
  const pages = [page('a'), page('b')]

  /** A drawing of which a page asked for all that there is, and for something that is not there. */
  function drawn(): { readonly drawing: Drawing; readonly context: SiteContext } {
    const drawing = new Drawing(site, pages)
    const context = drawing.context({ id: 'a', title: 'a', theme: null })
    const { paths, pictures, tree } = context
    expect([paths.a, paths.b, paths.gone, pictures.gone]).toEqual(['/a/', '/b/', undefined, undefined])
    expect([tree.find('b')?.title, tree.inside('a')]).toEqual(['b', []])
    return { drawing, context }
  }

  test.each<Partial<PageSummary>>([
    { version: 2 },
    { savedAt: 'later' },
    { savedBy: 'Tarn' },
    { state: 'changed' },
    { liveSince: 'now' },
  ])('is the same after what a save or a publish changes: %p', (change) =>
    expect(drawn().drawing.takes(site, [page('a'), page('b', change)])).toBe(true),
  )

  test.each<Partial<PageSummary>>([
    { title: 'Other' },
    { path: '/other/' },
    { parentId: 'a' },
    { description: 'Words' },
    { inNavigation: false },
    { position: -1 },
    { more: { ...pages[1]!.more, navigationLabel: 'Other' } },
  ])('is another one when a page that was asked for is called or stands otherwise: %p', (change) =>
    expect(drawn().drawing.takes(site, [page('a'), page('b', change)])).toBe(false),
  )

  const picture = { id: 'p', name: 'p', width: 1, height: 1, alt: '', sources: [], fallback: '/p' }
  const quiet = (id: string, parentId: string | null) => page(id, { inNavigation: false, parentId })

  test('is the same with what nobody asked for, and knows it from then on', () => {
    const { drawing, context } = drawn()
    expect(drawing.takes({ ...site, pictures: { p: picture } }, [...pages, quiet('c', 'b')])).toBe(true)
    expect([context.paths.c, context.tree.inside('b').map(({ id }) => id)]).toEqual(['/c/', ['c']])
    expect([context.pictures.p, Object.hasOwn(context.pictures, 'p')]).toEqual([picture, true])
    // Now it was asked for.
    expect(drawing.takes({ ...site, pictures: { p: { ...picture, alt: 'Other' } } }, pages)).toBe(false)
  })

  test('is another one when something comes that was asked for in vain: what was drawn without it is drawn again', () => {
    expect(drawn().drawing.takes(site, [...pages, quiet('gone', null)])).toBe(false)
    expect(drawn().drawing.takes(site, [...pages, quiet('c', 'a')])).toBe(false)
    expect(drawn().drawing.takes({ ...site, pictures: { gone: picture } }, pages)).toBe(false)
    expect(drawn().drawing.takes(site, [...pages, page('d')])).toBe(false)
  })

  test('has a page that is there before the one that it stands under', () => {
    const drawing = new Drawing(site, [quiet('deep', 'later')])
    expect(drawing.context({ id: 'a', title: 'a', theme: null }).paths.deep).toBe('/deep/')
  })
})
