/** What a release keeps of its pages, in parts: read again it is all of them, whatever changed since the release before. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { ContentStore } from '../src/publish/content-store.ts'
import { RecordParts, type PageRecord } from '../src/publish/page-records.ts'

const folder = mkdtempSync(join(tmpdir(), 'gullyline-records-'))
const store = new ContentStore(folder)
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const record = (version: number): PageRecord => ({
  version,
  savedAt: new Date(version).toISOString(),
  settings: {} as PageRecord['settings'],
  reads: [],
  key: `key${version}`,
  files: { [`/${version}/`]: `${version}.html` },
})

/** Few endings, so that most parts have several pages. */
const anId = fc.constantFrom(
  ...Array.from({ length: 24 }, (_, i) => `page${String.fromCharCode(97 + i)}${i % 4}0`),
)
/** Pages that are made, made again, or taken from visitors (0), release by release. */
const someReleases = fc.array(fc.dictionary(anId, fc.nat({ max: 9 }), { maxKeys: 8 }), {
  minLength: 3,
  maxLength: 6,
  size: 'max',
})

test('whatever changes from release to release, what is written is read again as the pages of the last one', async () => {
  let sharing = 0
  await fc.assert(
    fc.asyncProperty(someReleases, fc.boolean(), async (releases, isNamed) => {
      const parts = new RecordParts()
      const pages = new Map<string, PageRecord>()
      let names: readonly string[] = []
      for (const changes of releases) {
        const standing = pages.size
        for (const [id, version] of Object.entries(changes))
          if (version === 0) pages.delete(id)
          else pages.set(id, record(version))
        // Where what the release before said can't be read, none of its parts is named.
        const known = isNamed ? names : []
        names = await parts.write(store, { pages, changed: new Set(Object.keys(changes)) }, known)
        const read = await new RecordParts().read(store, names)
        expect(Object.fromEntries(read)).toEqual(Object.fromEntries(pages))
        if (isNamed && standing > names.length) sharing++
      }
    }),
    { numRuns: 100 },
  )
  expect(sharing).toBeGreaterThan(50)
})

test('a page that changes has its own part written again, and no other', async () => {
  const parts = new RecordParts()
  const pages = new Map(Array.from({ length: 40 }, (_, i) => [`page${i}x${i % 10}0`, record(1)]))
  const before = await parts.write(store, { pages, changed: new Set(pages.keys()) }, [])
  expect(before).toHaveLength(10)
  pages.set('page7x70', record(2))
  const after = await parts.write(store, { pages, changed: new Set(['page7x70']) }, before)
  expect(after.filter((name) => !before.includes(name))).toHaveLength(1)
  expect(after).toHaveLength(10)
})
