import { mkdir, readdir, readlink, rename, rm, symlink } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { ErrorBody, PageSummary } from '@gullyline/core'
import { SiteEntity } from '../src/db/rows.ts'
import { liveDir, publishNow, showRelease } from '../src/publish/publish-page.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
}, 120_000)
afterAll(() => server.close())

const releases = () => join(server.services.dataDir, 'live')
const current = () => readlink(liveDir(server.services.dataDir))
const home = async () => (await server.site.request('http://localhost/')).text()

test('a publish that fails half-way changes nothing: visitors see what they saw, and no folder is left', async () => {
  const before = { link: await current(), html: await home(), folders: (await readdir(releases())).sort() }
  await expect(publishNow(server.services, ['tmhome', 'nosuch'])).rejects.toThrow('There is no such page')
  expect({ link: await current(), html: await home(), folders: (await readdir(releases())).sort() }).toEqual(
    before,
  )
})

test('an address that is kept while the site can’t be compiled is told as kept, and shown once it can', async () => {
  const renamed = (slug: string) =>
    server.ask<ErrorBody & PageSummary>('/api/pages/tmvisit', { method: 'PATCH', body: { slug } })
  // A picture whose files are gone from the disk: what a full or failing disk looks like to the compiler.
  const folder = join(server.services.dataDir, 'media', 'tmdusk')
  await rename(folder, `${folder}-away`)
  const failed = await renamed('come')
  await rename(`${folder}-away`, folder)
  expect([failed.status, failed.body.code]).toEqual([500, 'internal'])
  expect(failed.body.message).toMatch(/The change is kept, .* they see what they saw before/)
  expect((await server.site.request('http://localhost/visit/')).status).toBe(200)
  const pages = (await server.ask<PageSummary[]>('/api/pages')).body
  expect(pages.find(({ id }) => id === 'tmvisit')?.path).toBe('/come/')
  expect((await renamed('visit')).status).toBe(200)
  expect((await server.site.request('http://localhost/visit/')).status).toBe(200)
})

test('a crash between the database’s commit and the switch is mended at the next start', async () => {
  await publishNow(server.services, ['tmhome'])
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
  for (let i = 0; i < 6; i++) await publishNow(server.services, ['tmhome'])
  expect(await home()).toBe(first)
  expect((await readdir(releases())).length).toBeLessThanOrEqual(5)
})
