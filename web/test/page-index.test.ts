/** The list of pages that comes in parts, and what of it is drawn. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { PageListPart, PageSummary } from '@gullyline/core'
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
  const takes = (changed: Partial<PageSummary>) =>
    new Drawing(site, pages).takes(site, [page('a'), page('b', changed)])

  test.each<Partial<PageSummary>>([
    { version: 2 },
    { savedAt: 'later' },
    { savedBy: 'Tarn' },
    { state: 'changed' },
    { liveSince: 'now' },
  ])('is the same after what a save or a publish changes: %p', (change) => expect(takes(change)).toBe(true))

  test.each<Partial<PageSummary>>([
    { title: 'Other' },
    { path: '/other/' },
    { parentId: 'a' },
    { description: 'Words' },
    { inNavigation: false },
    { position: -1 },
    { more: { ...pages[1]!.more, navigationLabel: 'Other' } },
  ])('is another one when a page is called or stands otherwise: %p', (change) =>
    expect(takes(change)).toBe(false),
  )

  test('is the same with what comes later, and knows it then; not where the navigation shows it', () => {
    const later = page('c', { inNavigation: false, parentId: 'a' })
    const picture = { id: 'p', name: 'p', width: 1, height: 1, alt: '', sources: [], fallback: '/p' }
    const drawing = new Drawing(site, pages)
    const { paths, tree } = drawing
    expect([paths.c, tree.inside('a')]).toEqual([undefined, []])
    expect(drawing.takes({ ...site, pictures: { p: picture } }, [...pages, later])).toBe(true)
    expect([paths.c, tree.inside('a').map(({ id }) => id), drawing.pictures.p]).toEqual([
      '/c/',
      ['c'],
      picture,
    ])
    expect(drawing.takes({ ...site, pictures: { p: { ...picture, alt: 'Other' } } }, [...pages, later])).toBe(
      false,
    )
    expect(drawing.takes({ ...site, pictures: { p: picture } }, pages)).toBe(false)
    expect(new Drawing(site, pages).takes(site, [...pages, page('d')])).toBe(false)
  })
})
