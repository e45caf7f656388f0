/** The sitemap of a large site is in parts: together they list every page once, and a page that changes changes one of them. */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { contentFolder } from '../src/media/folders.ts'
import { ContentStore } from '../src/publish/content-store.ts'
import type { ListedAddress } from '../src/publish/crawlers.ts'
import { writeSitemap } from '../src/publish/write-sitemap.ts'
import { faultsBySchema } from './by-schema.ts'

const folder = mkdtempSync(join(tmpdir(), 'gullyline-sitemap-'))
const store = new ContentStore(folder)
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const origin = 'https://tarrowmoor.example'
const DAY_MS = 86_400_000
const page = (i: number, savedAt = new Date(i * DAY_MS)): ListedAddress => ({
  id: `page${i}`,
  path: `/notes & "more"/${i}/`,
  savedAt,
})
const LARGE = Array.from({ length: 2_500 }, (_, i) => page(i))
const addressesIn = (xml: string): readonly string[] =>
  [...xml.matchAll(/<loc>([^<]+)<\/loc>/g)].map(([, address]) => address!)
const text = (name: string) => readFileSync(join(contentFolder(folder), name), 'utf8')

test('every page is listed once, by the schemas of sitemaps.org; the list of the files tells the newest page of each', async () => {
  const { addresses } = await writeSitemap(store, { origin, listed: () => LARGE, before: undefined })
  const { '/sitemap.xml': index, ...parts } = addresses
  const list = text(index!)
  expect(await faultsBySchema(list, 'siteindex-0.9.xsd')).toEqual([])
  expect(await faultsBySchema(list.replace('<loc>', '<url>'), 'siteindex-0.9.xsd')).not.toEqual([])
  expect(addressesIn(list).toSorted()).toEqual(
    Object.keys(parts)
      .map((path) => origin + path)
      .toSorted(),
  )
  const all: string[] = []
  for (const [path, name] of Object.entries(parts)) {
    const xml = text(name)
    expect(await faultsBySchema(xml, 'sitemap-0.9.xsd')).toEqual([])
    all.push(...addressesIn(xml))
    const moments = [...xml.matchAll(/<lastmod>([^<]+)</g)].map(([, at]) => at!)
    expect(list).toContain(`<loc>${origin}${path}</loc><lastmod>${moments.toSorted().at(-1)!}</lastmod>`)
  }
  expect(all.toSorted()).toEqual(LARGE.map((_, i) => `${origin}/notes%20&amp;%20%22more%22/${i}/`).toSorted())
})

test('a page that is saved again, gone or new changes one part, and the list of them where it tells more', async () => {
  const before = await writeSitemap(store, { origin, listed: () => LARGE, before: undefined })
  const later = new Date(9_999 * DAY_MS)
  for (const changed of [
    LARGE.map((known, i) => (i === 1_234 ? page(i, later) : known)),
    LARGE.filter((_, i) => i !== 1_234),
    [...LARGE, page(LARGE.length)],
  ]) {
    const { addresses } = await writeSitemap(store, { origin, listed: () => changed, before })
    const others = Object.keys(addresses).filter((path) => addresses[path] !== before.addresses[path])
    expect(others.filter((path) => path !== '/sitemap.xml')).toHaveLength(1)
    // Of a page that is gone, the list only tells more where it was the newest of its part.
    expect(others.includes('/sitemap.xml')).toBe(changed.length >= LARGE.length)
  }
})

test('written after any other sitemap, it is the same as written from nothing', async () => {
  const step = fc.record({
    count: fc.constantFrom(0, 1_000, 1_001, 1_500, 1_500),
    resaved: fc.array(fc.nat(1_499), { maxLength: 5 }),
    isElsewhere: fc.boolean(),
    isTold: fc.boolean(),
  })
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 3, maxLength: 5 }), async (steps) => {
      let before: Awaited<ReturnType<typeof writeSitemap>> | undefined
      const pages = LARGE.slice(0, 1_500)
      let listedBefore: readonly ListedAddress[] = []
      for (const [moment, { count, resaved, isElsewhere, isTold }] of steps.entries()) {
        for (const i of resaved) pages[i] = page(i, new Date((5_000 + moment) * DAY_MS))
        const listed = pages.slice(0, count)
        const at = {
          origin: isElsewhere ? 'https://elsewhere.example' : origin,
          listed: () => listed,
        }
        const others = pages.filter((one, i) => (i < count ? one : undefined) !== listedBefore[i])
        const changes = {
          touched: new Set(others.map(({ id }) => id)),
          listed: others.filter((one) => listed.includes(one)),
        }
        listedBefore = listed
        before = await writeSitemap(store, { ...at, before, changes: isTold ? changes : undefined })
        const anew = await writeSitemap(store, { ...at, before: undefined })
        expect(before.addresses).toEqual(anew.addresses)
      }
    }),
    { numRuns: 15 },
  )
})
