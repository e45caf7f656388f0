import { lutimes, mkdir, readdir, readlink, rename, rm, symlink, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { ErrorBody, MediaUse, PageSummary } from '@gullyline/core'
import { SiteEntity } from '../src/db/rows.ts'
import { liveDir } from '../src/media/folders.ts'
import { publishNow, showRelease } from '../src/publish/publish-page.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
}, 120_000)
afterAll(() => server.close())

const releases = () => join(server.services.dataDir, 'live')
const folders = async () => (await readdir(releases())).filter((name) => !name.endsWith('.json'))
const current = () => readlink(liveDir(server.services.dataDir))
const home = async () => (await server.site.request('http://localhost/')).text()

test('a publish that fails half-way changes nothing: visitors see what they saw, and no folder is left', async () => {
  const before = { link: await current(), html: await home(), folders: (await readdir(releases())).sort() }
  await expect(publishNow(server.services, { tmhome: 1, nosuch: 1 })).rejects.toThrow('There is no such page')
  expect({ link: await current(), html: await home(), folders: (await readdir(releases())).sort() }).toEqual(
    before,
  )
})

test('an address that is saved while the site can’t be compiled is told as saved, and shown once it can', async () => {
  const renamed = (slug: string) =>
    server.ask<ErrorBody & PageSummary>('/api/pages/tmvisit', { method: 'PATCH', body: { slug } })
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
  const pages = (await server.ask<PageSummary[]>('/api/pages')).body
  expect(pages.find(({ id }) => id === 'tmvisit')?.path).toBe('/come/')
  expect((await renamed('visit')).status).toBe(200)
  expect((await server.site.request('http://localhost/visit/')).status).toBe(200)
})

test('a file that is gone from the disk is named, and stops only what shows it', async () => {
  const folder = join(server.services.dataDir, 'media', 'tmdusk')
  const rows = (await server.ask<MediaUse[]>('/api/media/tmdusk/uses')).body
  const showing = rows.flatMap((use) => ('pageId' in use ? [use.pageId] : []))
  const other = (await server.ask<PageSummary[]>('/api/pages')).body.find(
    ({ id, state }) => !showing.includes(id) && state === 'live',
  )!
  await rename(folder, `${folder}-away`)
  // What visitors see now still has it; with that gone as well, nobody has.
  expect((await server.publish(showing[0]!)).status).toBe(200)
  for (const name of await folders())
    await rm(join(releases(), name, 'media/tmdusk'), { recursive: true, force: true })
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

test('a publish that was killed leaves nothing that stops the next one or the next start', async () => {
  const left = join(releases(), '.next-killed')
  await symlink('nosuchrelease', left)
  const longAgo = new Date(Date.now() - 3_600_000)
  await lutimes(left, longAgo, longAgo)
  await mkdir(join(releases(), 'halfdone'))
  expect((await server.publish('tmhome')).status).toBe(200)
  await showRelease(server.services)
  expect(await readdir(releases())).not.toContain('.next-killed')
  expect((await server.site.request('http://localhost/')).status).toBe(200)
})

test('a release whose folder is gone is compiled again at the next start', async () => {
  const before = await home()
  for (const name of await readdir(releases()))
    await rm(join(releases(), name), { recursive: true, force: true })
  expect((await server.site.request('http://localhost/')).status).toBe(404)
  await showRelease(server.services)
  expect(await home()).toBe(before)
})

test('a crash between the database’s commit and the switch is mended at the next start', async () => {
  await publishNow(server.services, { tmhome: 1 })
  const { releaseId } = (await server.services.db.manager.find(SiteEntity))[0]!
  const link = liveDir(server.services.dataDir)
  await rm(link)
  await mkdir(join(releases(), 'older'))
  await symlink('older', link)
  expect((await server.site.request('http://localhost/')).status).toBe(404)
  await showRelease(server.services)
  expect(await current()).toBe(releaseId)
  expect(await home()).toContain('Come and look through the big one')
})

test('the same site gives the same files, and old releases do not pile up', async () => {
  const first = await home()
  for (let i = 0; i < 6; i++) await publishNow(server.services, { tmhome: 1 })
  expect(await home()).toBe(first)
  expect((await folders()).length).toBeLessThanOrEqual(5)
  expect((await readdir(releases())).length).toBeLessThanOrEqual(10)
})
