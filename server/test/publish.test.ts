import { mkdir, readdir, readFile, rename, rm, stat, symlink, utimes, writeFile } from 'node:fs/promises'
import { join, relative } from 'node:path'
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals'
import type { ErrorBody, MediaUse, PageDocument, PageSummary } from '@gullyline/core'
import { SiteEntity } from '../src/db/rows.ts'
import { KnownReleases } from '../src/publish/known-releases.ts'
import { Releases } from '../src/publish/manifest.ts'
import { publishNow, showRelease } from '../src/publish/publish-page.ts'
import { releasedFiles } from './released-files.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const live = () => join(server.services.dataDir, 'live')
const current = () => new Releases(server.services.dataDir).current('tarrowmoor')
const home = async () => (await server.site.request('http://localhost/')).text()
/** All files that are on the disk for visitors, and the link to the release. */
const onDisk = async () =>
  (await readdir(live(), { recursive: true, withFileTypes: true }))
    .filter((entry) => !entry.isDirectory())
    .map((entry) => relative(live(), join(entry.parentPath, entry.name)))
    .sort()

test('a publish that fails half-way changes nothing: visitors see what they saw, and no file is left', async () => {
  const before = { release: current(), html: await home(), files: await onDisk() }
  await expect(publishNow(server.services, server.scope, { tmhome: 1, nosuch: 1 })).rejects.toThrow(
    'There is no such page',
  )
  expect({ release: current(), html: await home(), files: await onDisk() }).toEqual(before)
})

test('an address that is saved while the site can’t be compiled is told as saved, and shown once it can', async () => {
  const renamed = (slug: string) =>
    server.ask<ErrorBody & PageSummary>('/api/sites/tarrowmoor/pages/tmvisit', {
      method: 'PATCH',
      body: { slug },
    })
  // A folder of fonts that is a file: what a full or failing disk looks like to the compiler.
  const folder = join(server.services.dataDir, 'fonts')
  await rename(folder, `${folder}-away`)
  await writeFile(folder, '')
  const failed = await renamed('come')
  await rm(folder)
  await rename(`${folder}-away`, folder)
  expect([failed.status, failed.body.code]).toEqual([500, 'internal'])
  expect(failed.body.message).toMatch(/The change is saved, .* visitors see what they saw before/)
  expect((await server.site.request('http://localhost/visit/')).status).toBe(200)
  const pages = (await server.ask<PageSummary[]>('/api/sites/tarrowmoor/pages')).body
  expect(pages.find(({ id }) => id === 'tmvisit')?.path).toBe('/come/')
  expect((await renamed('visit')).status).toBe(200)
  expect((await server.site.request('http://localhost/visit/')).status).toBe(200)
})

test('a file that is gone from the disk is named, and stops only what shows it', async () => {
  const folder = join(server.services.dataDir, 'media', 'tmdusk')
  const rows = (await server.ask<MediaUse[]>('/api/sites/tarrowmoor/media/tmdusk/uses')).body
  const showing = rows.flatMap((use) => ('pageId' in use ? [use.pageId] : []))
  const other = (await server.ask<PageSummary[]>('/api/sites/tarrowmoor/pages')).body.find(
    ({ id, state }) => !showing.includes(id) && state === 'live',
  )!
  await rename(folder, `${folder}-away`)
  // What visitors see now still has it; with that gone as well, nobody has.
  expect((await server.publish(showing[0]!)).status).toBe(200)
  await rm(join(live(), 'content/library/media/tmdusk'), { recursive: true })
  const refused = await server.publish<ErrorBody>(showing[0]!)
  const fine = await server.publish(other.id)
  await rename(`${folder}-away`, folder)
  expect([refused.status, refused.body.code]).toEqual([409, 'has-problems'])
  expect(refused.body.message).toMatch(
    /the page shows “moor-at-dusk\.jpg”, and the server no longer has the file/,
  )
  expect(fine.status).toBe(200)
  expect((await server.publish(showing[0]!)).status).toBe(200)
})

test('a page that went live without a file has it as soon as the file is back, whatever is published then', async () => {
  const folder = join(server.services.dataDir, 'media', 'tmdusk')
  const picture = `/media/tmdusk/${(await readdir(folder)).find((name) => name.endsWith('.webp'))!}`
  const stored = join(live(), 'content/library', picture)
  const answer = () => server.site.request(`http://localhost${picture}`)
  expect((await answer()).status).toBe(200)
  await rename(folder, `${folder}-away`)
  await rm(stored)
  const renamed = (name: string) =>
    server.ask('/api/sites/tarrowmoor/settings', { method: 'PUT', body: { name } })
  // Every page is made again, and those that show the picture stay live without it.
  expect((await renamed('Tarrowmoor by night')).status).toBe(200)
  expect((await answer()).status).toBe(404)
  await rename(`${folder}-away`, folder)
  expect((await renamed('Tarrowmoor Observatory')).status).toBe(200)
  expect((await answer()).status).toBe(200)
  await rename(folder, `${folder}-away`)
  await rm(stored)
  expect((await renamed('Tarrowmoor by night')).status).toBe(200)
  await rename(`${folder}-away`, folder)
  // Nothing else changed for the pages that lack it.
  expect((await server.publish('tmquestions')).status).toBe(200)
  expect((await answer()).status).toBe(200)
  expect((await renamed('Tarrowmoor Observatory')).status).toBe(200)
})

test('what a publish made that failed is gone again, and what is live stays whole', async () => {
  const before = await onDisk()
  // After the pages were made, which is when a disk is full.
  const write = jest.spyOn(Releases.prototype, 'write').mockRejectedValueOnce(new Error('The disk failed'))
  const changed = await server.ask('/api/sites/tarrowmoor/settings', {
    method: 'PUT',
    body: { name: 'Another name' },
  })
  write.mockRestore()
  expect(changed.status).toBe(500)
  expect(await onDisk()).toEqual(before)
  expect(
    (
      await server.ask('/api/sites/tarrowmoor/settings', {
        method: 'PUT',
        body: { name: 'Tarrowmoor Observatory' },
      })
    ).status,
  ).toBe(200)
})

test('a publish that was killed leaves nothing that stops the next one or the next start', async () => {
  await symlink('nosuchrelease', join(live(), '.next-killed'))
  await writeFile(join(live(), 'content/library/media/.begun-killed'), 'half a pict')
  await writeFile(join(live(), 'content/unused.html'), 'made for a release that never was')
  await writeFile(join(live(), 'content/unused-too.html.br'), 'made for a file that never was')
  // Releases were folders once.
  await mkdir(join(live(), 'halfdone'))
  await writeFile(join(live(), 'halfdone/index.html'), 'a page')
  expect((await server.publish('tmhome')).status).toBe(200)
  await showRelease(server.services, server.scope)
  const left = await onDisk()
  expect(left.filter((name) => /killed|unused|halfdone/.test(name))).toEqual([])
  expect((await server.site.request('http://localhost/')).status).toBe(200)
})

test('a data folder from before sites had links of their own shows the same release, and keeps no other link', async () => {
  const before = { release: current(), html: await home() }
  await rename(join(live(), 'current-tarrowmoor'), join(live(), 'current'))
  expect(current()).toBeUndefined()
  await showRelease(server.services, server.scope)
  expect({ release: current(), html: await home() }).toEqual(before)
  expect((await readdir(live())).filter((name) => name.startsWith('current'))).toEqual(['current-tarrowmoor'])
})

test.each([
  ['nothing is left of it', () => readdir(live())],
  ['one file of it is gone', async () => [(await onDisk()).find((name) => name.endsWith('.html'))!]],
  ['its manifest is half-written', async () => [await halfWritten(`${current()}.json`)]],
])('a release is made again at the next start where %s', async (_what, gone) => {
  const before = await home()
  for (const name of await gone()) await rm(join(live(), name), { recursive: true, force: true })
  await showRelease(server.services, server.scope)
  expect(await home()).toBe(before)
  expect((await server.site.request('http://localhost/visit/')).status).toBe(200)
})

/** Cuts a file in half; returns one that does not exist. */
async function halfWritten(name: string): Promise<string> {
  const file = join(live(), name)
  const bytes = await readFile(file)
  await writeFile(file, bytes.subarray(0, bytes.length / 2))
  return 'nothing'
}

test('an older release of which anything is gone does not stop the next start, and is not kept', async () => {
  const older = current()!
  const { document } = (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmvisit')).body
  const root = { ...document.nodes[document.root]!, name: 'Another version' }
  await server.ask('/api/sites/tarrowmoor/pages/tmvisit/document', {
    method: 'PUT',
    body: {
      base: (await server.ask<PageDocument>('/api/sites/tarrowmoor/pages/tmvisit')).body.summary.version,
      document: { ...document, nodes: { ...document.nodes, [document.root]: root } },
      journal: null,
    },
  })
  await server.publish('tmvisit')
  const releases = new Releases(server.services.dataDir)
  const kept = new Set(releases.manifest(current()!)!.records)
  const gone = releases.manifest(older)!.records.find((name) => !kept.has(name))!
  await rm(join(live(), 'content', gone))
  const before = await home()
  // As a server does that knows nothing yet.
  await showRelease({ ...server.services, releases: new KnownReleases() }, server.scope)
  expect(await home()).toBe(before)
  expect(await releases.list()).not.toContain(older)
})

test('a crash between the database’s commit and the switch is mended at the next start', async () => {
  const older = current()!
  await publishNow(server.services, server.scope, { tmhome: 1 })
  const { releaseId } = (await server.services.db.manager.find(SiteEntity))[0]!
  await new Releases(server.services.dataDir).show('tarrowmoor', older)
  expect(current()).toBe(older)
  await showRelease(server.services, server.scope)
  expect(current()).toBe(releaseId)
  expect(await home()).toContain('Come and look through the big one')
})

test('the same site gives the same files, old releases do not pile up, nor does what they alone showed', async () => {
  const first = await home()
  const manifest = () => new Releases(server.services.dataDir).manifest(current()!)
  const before = manifest()
  for (let i = 0; i < 6; i++) await publishNow(server.services, server.scope, { tmhome: 1 })
  expect(await home()).toBe(first)
  expect(manifest()).toEqual(before)
  const files = await onDisk()
  expect(files.filter((name) => /^[a-z0-9]+\.json$/.test(name)).length).toBeLessThanOrEqual(4)
  const shown = new Set(Object.values(releasedFiles(server.services.dataDir)))
  const pages = files.filter((name) => name.endsWith('.html')).map((name) => name.replace('content/', ''))
  expect(pages.filter((name) => !shown.has(name))).toEqual([])
})

test('a page that nothing changed for is not made again when another one is published', async () => {
  const file = join(live(), 'content', releasedFiles(server.services.dataDir)['/visit/index.html']!)
  const longAgo = new Date(1_000_000_000_000)
  await utimes(file, longAgo, longAgo)
  expect((await server.publish('tmhome')).status).toBe(200)
  expect((await stat(file)).mtime).toEqual(longAgo)
})
