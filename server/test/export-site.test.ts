/** `gullyline export-site`: the folder that it writes says what visitors are answered, and it leaves nothing half done. */
import { spawnSync } from 'node:child_process'
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { PageSummary } from '@gullyline/core'
import { releasedFiles } from './released-files.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
let folder = ''
beforeAll(async () => {
  server = await startTestServer()
  folder = await mkdtemp(join(tmpdir(), 'gullyline-export-'))
}, 120_000)
afterAll(async () => {
  await server.close()
  await rm(folder, { recursive: true, force: true })
})

const root = join(import.meta.dirname, '../..')
function exportTo(out: string, data = server.services.dataDir) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [join(root, 'scripts/gullyline.mjs'), 'export-site', '--out', out],
    { env: { ...process.env, GULLYLINE_DATA: data, INIT_CWD: folder }, encoding: 'utf8' },
  )
  return { status, stdout, stderr }
}

const addressesNow = () => releasedFiles(server.services.dataDir)

test('every address has the bytes that visitors get, and addresses of before lead on', async () => {
  await server.ask('/api/sites/tarrowmoor/pages/tmvisit', { method: 'PATCH', body: { slug: 'come and see' } })
  const { status, stdout } = exportTo('site')
  expect([status, stdout]).toEqual([0, expect.stringMatching(/^\d+ files in .*\/site\n$/)])
  const out = join(folder, 'site')
  const addresses = addressesNow()
  let read = 0
  for (const address of Object.keys(addresses)) {
    const path = address.replace(/index\.html$/, '')
    const visited = await server.site.request(`http://localhost${encodeURI(path)}`)
    // The 404 page answers as one at its own address, too.
    expect([address, [200, 404].includes(visited.status)]).toEqual([address, true])
    const bytes = Buffer.from(await visited.arrayBuffer())
    expect([address, bytes.equals(await readFile(join(out, address)))]).toEqual([address, true])
    read++
  }
  expect(read).toBeGreaterThan(40)
  const pages = (await server.ask<PageSummary[]>('/api/sites/tarrowmoor/pages')).body.filter(
    ({ liveSince }) => liveSince !== null,
  )
  for (const { path } of pages.filter((one) => one.path !== '/404/'))
    expect(await readFile(join(out, path, 'index.html'), 'utf8')).toMatch(/^<!DOCTYPE html>/)
  const old = await readFile(join(out, 'visit/index.html'), 'utf8')
  expect(old).toContain('<meta http-equiv="refresh" content="0;url=/come-and-see/">')
  expect(old).toContain('<link rel="canonical" href="/come-and-see/">')
})

test('a folder with something in it, data without a published site, and a missing folder are refused with a sentence', async () => {
  await writeFile(join(folder, 'mine.txt'), 'Mine')
  const used = exportTo('.')
  expect([used.status, used.stderr]).toEqual([2, expect.stringMatching(/is not empty. Nothing was written/)])
  const nothing = exportTo('other', folder)
  expect([nothing.status, nothing.stderr]).toEqual([2, expect.stringMatching(/Nothing is published in/)])
  expect(exportTo('')).toMatchObject({ status: 2, stderr: expect.stringMatching(/usage/) as unknown })
  expect((await readdir(folder)).sort()).toEqual(['mine.txt', 'site'])
})

test('where a file of the site is gone, nothing is left of the export', async () => {
  const addresses = addressesNow()
  await rm(join(server.services.dataDir, 'live/content', addresses['/index.html']!))
  const { status, stderr } = exportTo('half')
  expect([status, stderr]).toEqual([2, expect.stringMatching(/Nothing was written/)])
  expect((await readdir(folder)).filter((name) => name.startsWith('half'))).toEqual([])
})
