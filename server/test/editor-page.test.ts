/** The editor's one HTML page: what it asks for ahead, for whom, and how long browsers keep what belongs to it. */
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { createEditorApp } from '../src/app.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const SHELL =
  '<!doctype html><html><head><title>Gullyline</title></head><body><div id="app"></div></body></html>'
/** The same with the frame of the screens around pages. */
const FRAMED = SHELL.replace('id="app"', 'id="app" data-frame="site"')

let server: TestServer
let webDir: string
let ask: (path: string, cookie?: string) => Promise<Response>
beforeAll(async () => {
  server = await startTestServer()
  webDir = await mkdtemp(join(tmpdir(), 'gullyline-web-'))
  await mkdir(join(webDir, 'assets'))
  await writeFile(join(webDir, 'index.html'), SHELL)
  await writeFile(join(webDir, 'assets/index-abc123.js'), 'export {}')
  await writeFile(join(webDir, 'mark.svg'), '<svg xmlns="http://www.w3.org/2000/svg"/>')
  const app = createEditorApp(server.services, webDir)
  ask = async (path, cookie) =>
    app.request(`http://127.0.0.1${path}`, cookie === undefined ? {} : { headers: { cookie } })
})
afterAll(async () => {
  await server.close()
  await rm(webDir, { recursive: true })
})

const asked = (html: string) =>
  [...html.matchAll(/<link rel="preload" [^>]*href="([^"]+)"/g)].map(([, path]) => path)

test('the screen of a page names what it will ask for, and every one of those can be had', async () => {
  const cookie = await server.cookieOf('editor')
  const paths = asked(await (await ask('/pages/tmvisit', cookie)).text())
  expect(paths).toContain('/api/sites/tarrowmoor/pages/tmvisit')
  expect(paths.filter((path) => path!.startsWith('/fonts/'))).not.toEqual([])
  for (const path of paths) expect([path, (await ask(path!, cookie)).status]).toEqual([path, 200])
})

test('the screen of a page names the scripts that it opens with, and no other screen does', async () => {
  const cookie = await server.cookieOf('editor')
  const scripts = async (path: string) =>
    [...(await (await ask(path, cookie)).text()).matchAll(/rel="modulepreload" crossorigin href="([^"]+)"/g)]
      .map(([, href]) => href)
      .sort()
  // As a build of ours writes it: what is named by nobody's source stands under the name of its file.
  const manifest = {
    '_editing-def456.js': {
      file: 'assets/editing-def456.js',
      name: 'editing',
      imports: ['index.html'],
      dynamicImports: ['src/shelf.tsx'],
    },
    'src/shelf.tsx': { file: 'assets/shelf-aaa111.js', name: 'shelf', isDynamicEntry: true },
    'index.html': { file: 'assets/index-abc123.js', name: 'index', isEntry: true },
  }
  await mkdir(join(webDir, '.vite'))
  await writeFile(join(webDir, '.vite/manifest.json'), JSON.stringify(manifest))
  expect(await scripts('/pages/tmvisit')).toEqual(['/assets/editing-def456.js', '/assets/index-abc123.js'])
  expect(await scripts('/pictures')).toEqual([])
  await rm(join(webDir, '.vite'), { recursive: true })
})

test('nobody else is sent after anything: not who is not signed in, no other screen, no address that is no page', async () => {
  const cookie = await server.cookieOf('editor')
  expect(await (await ask('/pages/tmvisit')).text()).toBe(SHELL)
  for (const path of [
    '/',
    '/pictures',
    '/pages/',
    '/pages/a%22onload=x',
    '/pages/a/b',
    '/pages/%3Cscript%3E',
  ])
    expect([path, await (await ask(path, cookie)).text()]).toEqual([path, FRAMED])
  expect(await (await ask('/pages/tmvisit', cookie)).text()).toContain('<div id="app" data-frame="page">')
})

test('files named by their content are kept for ever, all else is asked for each time', async () => {
  const kept = async (path: string) => (await ask(path)).headers.get('cache-control')
  expect(await kept('/assets/index-abc123.js')).toMatch(/immutable/)
  expect(await kept('/mark.svg')).toBe('no-cache')
})

test('a script that is no longer there is not answered with a page', async () => {
  const answer = await ask('/assets/index-old999.js')
  expect(answer.status).toBe(404)
  expect(answer.headers.get('content-type')).not.toMatch(/html/)
})
