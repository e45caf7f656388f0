/** `gullyline export-site`: the folder that it writes says what visitors are answered, and it leaves nothing half done. */
import { spawn, spawnSync } from 'node:child_process'
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { PageSummary } from '@gullyline/core'
import { freePort } from '../../scripts/lib/ports.mjs'
import { releasedFiles } from './released-files.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
let folder = ''
beforeAll(async () => {
  server = await startTestServer()
  folder = await mkdtemp(join(tmpdir(), 'gullyline-export-'))
})
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

/** Debian's nginx over a folder, as a host that knows nothing of us: its documents, and its page for what is not there. */
async function serveByNginx(
  documents: string,
): Promise<{ readonly origin: string; readonly stop: () => void }> {
  const port = await freePort()
  const home = await mkdtemp(join(tmpdir(), 'gullyline-nginx-'))
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
    (name) => `${name}_temp_path ${home}/${name};`,
  )
  const config = `daemon off; pid ${home}/pid; ${process.getuid?.() === 0 ? 'user root;' : ''} events {}
    http { include /etc/nginx/mime.types; access_log off; ${temporary.join(' ')}
      server { listen 127.0.0.1:${port}; root ${documents}; error_page 404 /404.html; } }`
  await writeFile(join(home, 'nginx.conf'), config)
  const nginx = spawn('/usr/sbin/nginx', ['-c', join(home, 'nginx.conf'), '-e', 'stderr'], {
    stdio: 'inherit',
  })
  const origin = `http://127.0.0.1:${port}`
  for (let tries = 0; tries < 100; tries++) {
    const isUp = await fetch(origin).then(
      () => true,
      () => false,
    )
    if (isUp) return { origin, stop: () => nginx.kill() }
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  throw new Error('nginx did not start')
}

test('nginx serves from the folder what our own server answers: pages, types, and the 404 page', async () => {
  expect(exportTo('for-nginx').status).toBe(0)
  const nginx = await serveByNginx(join(folder, 'for-nginx'))
  try {
    let served = 0
    for (const address of Object.keys(addressesNow())) {
      const path = encodeURI(address.replace(/index\.html$/, ''))
      const [theirs, ours] = [
        await fetch(nginx.origin + path),
        await server.site.request(`http://localhost${path}`),
      ]
      const type = (response: Response) => response.headers.get('content-type')?.split(';')[0]
      const isPage = path.endsWith('/') || path.endsWith('.css')
      expect([address, theirs.status]).toEqual([address, 200])
      if (isPage) expect([address, type(theirs)]).toEqual([address, type(ours)])
      const same = Buffer.from(await theirs.arrayBuffer()).equals(Buffer.from(await ours.arrayBuffer()))
      expect([address, same]).toEqual([address, true])
      served++
    }
    expect(served).toBeGreaterThan(40)
    const none = await fetch(`${nginx.origin}/nowhere/`)
    const ours = await server.site.request('http://localhost/nowhere/')
    expect([none.status, await none.text()]).toEqual([404, await ours.text()])
  } finally {
    nginx.stop()
  }
})

test('a folder with something in it, data without a published site, and a missing folder are refused with a sentence', async () => {
  await writeFile(join(folder, 'mine.txt'), 'Mine')
  const used = exportTo('.')
  expect([used.status, used.stderr]).toEqual([2, expect.stringMatching(/is not empty. Nothing was written/)])
  const nothing = exportTo('other', folder)
  expect([nothing.status, nothing.stderr]).toEqual([2, expect.stringMatching(/Nothing is published in/)])
  expect(exportTo('')).toMatchObject({ status: 2, stderr: expect.stringMatching(/usage/) as unknown })
  expect((await readdir(folder)).sort()).toEqual(['for-nginx', 'mine.txt', 'site'])
})

test('where a file of the site is gone, nothing is left of the export', async () => {
  const addresses = addressesNow()
  await rm(join(server.services.dataDir, 'live/content', addresses['/index.html']!))
  const { status, stderr } = exportTo('half')
  expect([status, stderr]).toEqual([2, expect.stringMatching(/Nothing was written/)])
  expect((await readdir(folder)).filter((name) => name.startsWith('half'))).toEqual([])
})
