/** Packages: written of a site, read into another, and written again as they were; refused whole where anything is wrong. */
import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { ZipFile } from 'yazl'
import {
  newNode,
  defaultRegistry,
  getKind,
  type ErrorBody,
  type ImportChoice,
  type Imported,
  type ImportItem,
  type ImportPlan,
  type JsonObject,
  type Library,
  type PageNode,
  type PageSummary,
  type SavedPart,
  type SiteInfo,
  type SitePackage,
  type WaitingImport,
} from '@gullyline/core'
import { packageBytes } from '../src/exchange/export-package.ts'
import { startTestServer, type TestServer } from './with-server.ts'

const FIRST = '/api/sites/tarrowmoor'
const folder = mkdtempSync(join(tmpdir(), 'gullyline-packages-'))

let server: TestServer
let count = 0
beforeAll(async () => {
  server = await startTestServer()
}, 120_000)
afterAll(async () => {
  await server.close()
  rmSync(folder, { recursive: true })
})

/** An empty site of its own, by its address in the API. */
async function emptySite(): Promise<string> {
  const host = `s${++count}.example`
  const body = { name: `Site ${count}`, language: 'en-GB', host, like: 'tarrowmoor', people: [] }
  const added = await server.ask<SiteInfo>('/api/sites', { method: 'POST', body })
  return `/api/sites/${added.body.id}`
}

async function exported(query: string, site = FIRST): Promise<Buffer> {
  const cookie = await server.cookieOf('keeper')
  const answer = await server.editor.request(`http://127.0.0.1${site}/export?${query}`, {
    headers: { cookie },
  })
  expect(answer.status).toBe(200)
  return Buffer.from(await answer.arrayBuffer())
}

async function send(bytes: Buffer, site: string) {
  const answer = await server.editor.request(`http://127.0.0.1${site}/imports`, {
    method: 'POST',
    headers: {
      cookie: await server.cookieOf('keeper'),
      'content-type': 'application/octet-stream',
      'content-length': String(bytes.length),
    },
    body: new Uint8Array(bytes),
  })
  return { status: answer.status, body: (await answer.json()) as WaitingImport & ErrorBody }
}

type Choose = (item: ImportItem) => ImportChoice | undefined

async function imported(bytes: Buffer, site: string, choose: Choose = () => undefined) {
  const { status, body } = await send(bytes, site)
  expect([status, body.message]).toEqual([201, undefined])
  const choices = Object.fromEntries(
    body.plan.items.flatMap((item) => {
      const choice = choose(item)
      return choice ? [[item.key, choice]] : []
    }),
  )
  const surfaces = Object.fromEntries(body.plan.surfaces.map(({ name, here }) => [name, here]))
  const done = await server.ask<Imported>(`${site}/imports/${body.id}`, {
    method: 'POST',
    body: { choices, surfaces },
  })
  expect([done.status, done.body]).toEqual([200, expect.anything()])
  return { plan: body.plan, done: done.body }
}

const theirs: Choose = ({ choices }) => (choices.includes('theirs') ? 'theirs' : undefined)
const partsOf = async (site: string) => (await server.ask<SavedPart[]>(`${site}/parts`)).body
const pagesOf = async (site: string) => (await server.ask<PageSummary[]>(`${site}/pages`)).body

/** What is in a zip file, by another reader than the one that imports. */
async function unzipped(bytes: Buffer, name: string): Promise<string> {
  writeFileSync(join(folder, 'a.zip'), bytes)
  const { stdout } = await promisify(execFile)('unzip', ['-p', join(folder, 'a.zip'), name], {
    maxBuffer: 2 ** 27,
  })
  return stdout
}

describe('a package', () => {
  test('of a page has its shared sections, pictures and files, and is the same each time', async () => {
    const bytes = await exported('page=tmvisit')
    const given = JSON.parse(await unzipped(bytes, 'package.json')) as SitePackage
    expect(given.pages.map(({ id }) => id)).toEqual(['tmvisit'])
    expect(Object.values(given.parts).map(({ name }) => name)).toContain('Opening hours')
    expect(Object.keys(given.pictures).length).toBeGreaterThan(0)
    expect(given.site).toBeUndefined()
    expect(await exported('page=tmvisit')).toEqual(bytes)
  })

  test('of a page and those under it has all of them, parents first', async () => {
    const bytes = await exported('page=tmnews&under=yes')
    const given = JSON.parse(await unzipped(bytes, 'package.json')) as SitePackage
    const [first, ...rest] = given.pages
    expect([first?.id, first?.parentId]).toEqual(['tmnews', null])
    expect(rest.length).toBeGreaterThan(1)
    expect(rest.every(({ parentId }) => parentId === 'tmnews')).toBe(true)
  })

  test('of what does not exist is refused', async () => {
    for (const query of ['page=nosuch', 'part=nosuch', ''])
      expect((await server.ask(`${FIRST}/export?${query}`)).status).toBeGreaterThanOrEqual(400)
  })
})

describe('exported, imported into an empty site and exported again, the bytes are the same', () => {
  test.each(['page=tmvisit', 'part=tmjoin'])('%s', async (query) => {
    const [bytes, site] = [await exported(query), await emptySite()]
    const { done } = await imported(bytes, site, theirs)
    expect(done.added).toBeGreaterThan(0)
    const own = new URLSearchParams(query)
    const kept = await server.scope.read(({ manager }) =>
      manager.query<{ id: string; origin: string }[]>('SELECT id, origin FROM origins WHERE site_id = ?', [
        site.split('/').at(-1),
      ]),
    )
    const idOf = (origin: string): string => kept.find((one) => one.origin === origin)?.id ?? origin
    for (const name of ['page', 'part']) {
      const value = own.get(name)
      if (value !== null) own.set(name, idOf(value))
    }
    const again = await exported(own.toString(), site)
    expect(JSON.parse(await unzipped(again, 'package.json'))).toEqual(
      JSON.parse(await unzipped(bytes, 'package.json')),
    )
    expect(digest(again)).toBe(digest(bytes))
  })

  test('a whole site, which then shows visitors what the first one does', async () => {
    const [bytes, site] = [await exported('all=yes'), await emptySite()]
    await imported(bytes, site, theirs)
    expect(digest(await exported('all=yes', site))).toBe(digest(bytes))
    const paths = async (of: string) => (await pagesOf(of)).map(({ path }) => path).sort()
    expect(await paths(site)).toEqual(await paths(FIRST))
    const { name, navigation } = (await server.ask<SiteInfo>(site)).body
    expect([name, navigation.length]).toEqual([
      'Tarrowmoor Observatory',
      (await server.ask<SiteInfo>(FIRST)).body.navigation.length,
    ])
    for (const { id, version } of await pagesOf(site)) {
      const body = { version }
      expect((await server.ask(`${site}/pages/${id}/publish`, { method: 'POST', body })).status).toBe(200)
    }
    const live = await (await server.site.request(`http://s${count}.example:1/`)).text()
    const first = await (await server.site.request('http://localhost:1/')).text()
    const words = (html: string): string => html.slice(html.indexOf('<main')).replace(/<[^>]*>/g, ' ')
    expect(words(live)).toBe(words(first))
  }, 60_000)
})

function digest(bytes: Buffer): string {
  return createHash('sha256').update(bytes).digest('hex')
}

describe('what is there already', () => {
  let site: string
  let bytes: Buffer
  beforeAll(async () => {
    site = await emptySite()
    bytes = await exported('part=tmjoin')
    await imported(bytes, site)
    const [part] = await partsOf(site)
    await server.ask(`${site}/parts/${part!.id}`, { method: 'PATCH', body: { about: 'Ours by now' } })
  })

  test('is found again by the id that it came with, and told to be the same or not', async () => {
    const { body } = await send(bytes, site)
    const [item] = body.plan.items.filter(({ thing }) => thing === 'part')
    expect(item).toMatchObject({ match: { by: 'id', isSame: true }, suggested: 'mine' })
    expect(body.plan.items.every(({ suggested }) => suggested === 'mine')).toBe(true)
  })

  test('stays where nothing else is chosen', async () => {
    const before = await partsOf(site)
    const { done } = await imported(bytes, site)
    expect([done.added, done.replaced]).toEqual([0, 0])
    expect(await partsOf(site)).toEqual(before)
  })

  test('is replaced as a new version, under its own id', async () => {
    const before = (await partsOf(site))[0]!
    await imported(bytes, site, ({ thing }) => (thing === 'part' ? 'theirs' : undefined))
    const [after, ...more] = await partsOf(site)
    expect(more).toEqual([])
    expect([after!.id, after!.version]).toEqual([before.id, before.version + 1])
    expect(after!.about).not.toBe('Ours by now')
  })

  test('gets the other beside it, with a name of its own', async () => {
    await imported(bytes, site, ({ thing }) => (thing === 'part' ? 'both' : undefined))
    const names = (await partsOf(site)).map(({ name }) => name)
    expect(names).toEqual([names[0], `${names[0]} 2`])
  })

  test('of another page with the same address is told by it, and both can stand', async () => {
    const body = { title: 'Visit', parentId: null }
    await server.ask(`${site}/pages`, { method: 'POST', body })
    const visit = await exported('page=tmvisit')
    const { plan } = await imported(visit, site, ({ thing }) => (thing === 'page' ? 'both' : undefined))
    // Two that it links to do not come along: one itself, and one from a shared section.
    expect(plan.lostPages).toBe(2)
    expect(plan.items.find(({ thing }) => thing === 'page')).toMatchObject({
      match: { by: 'address', name: '/visit/' },
    })
    expect((await pagesOf(site)).map(({ path }) => path)).toEqual(['/', '/404/', '/visit/', '/visit-2/'])
  })
})

test('two who import at once both get all of theirs, with names of their own', async () => {
  const [bytes, site] = [await exported('part=tmjoin'), await emptySite()]
  const sent = await Promise.all(Array.from({ length: 6 }, () => send(bytes, site)))
  const done = await Promise.all(
    sent.map(({ body }) =>
      server.ask(`${site}/imports/${body.id}`, { method: 'POST', body: { choices: {}, surfaces: {} } }),
    ),
  )
  const parts = await partsOf(site)
  const added = done.filter(({ status }) => status === 200)
  expect(added.length).toBeGreaterThan(0)
  expect(new Set(parts.map(({ name }) => name)).size).toBe(parts.length)
  // Whoever was refused was told why, and left nothing behind.
  for (const one of done) if (one.status !== 200) expect(one.body.message).toContain('Nothing was changed')
})

const node = (kind: string, content: JsonObject, slots: PageNode['slots'] = {}): PageNode =>
  newNode(getKind(defaultRegistry, kind), { content, slots })

/** A package with one pattern, into which faults are put. */
async function small(): Promise<{ readonly given: SitePackage; readonly picture: Buffer }> {
  const look = (await server.ask<SiteInfo>(FIRST)).body.look
  const picture = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="9" height="9"></rect></svg>',
  )
  const nodes = {
    root: node('pattern', {}, { blocks: ['one'] }),
    one: node('picture', { media: { id: 'pic' } }),
  }
  const document = { format: 3, root: 'root', nodes } as const
  return {
    picture,
    given: {
      format: 'gullyline-site-package/1',
      look,
      parts: { pat: { type: 'pattern', name: 'Small', purpose: 'other', about: '', document } },
      pages: [],
      pictures: {
        pic: { name: 'A.svg', alt: 'A', isDecoration: false, digest: digest(picture), bytes: picture.length },
      },
      files: {},
    },
  }
}

interface Zipped {
  readonly name: string
  readonly bytes: Buffer
  readonly mode?: number
}

function zip(entries: readonly Zipped[]): Promise<Buffer> {
  const file = new ZipFile()
  for (const { name, bytes, mode = 0o100644 } of entries) file.addBuffer(bytes, name, { mode })
  file.end()
  return packageBytes(file.outputStream as never)
}

const json = (value: unknown): Zipped => ({ name: 'package.json', bytes: Buffer.from(JSON.stringify(value)) })

describe('refused whole, with the reason and nothing changed, is', () => {
  const withPart = (given: SitePackage, change: (nodes: Record<string, PageNode>) => object): SitePackage => {
    const part = given.parts.pat!
    const nodes = { ...part.document.nodes, ...change({ ...part.document.nodes }) }
    return { ...given, parts: { pat: { ...part, document: { ...part.document, nodes } } } }
  }
  const medium = (bytes: Buffer): Zipped => ({ name: 'pictures/pic', bytes })
  type Fault = (good: Awaited<ReturnType<typeof small>>) => Promise<Buffer> | Buffer
  const faults: Readonly<Record<string, readonly [Fault, string]>> = {
    'what is no zip file': [() => Buffer.from('PK not really'), 'no zip file'],
    'a zip file of something else': [
      () => zip([{ name: 'readme.txt', bytes: Buffer.from('x') }]),
      'no package of Gullyline',
    ],
    'JSON that is none': [() => zip([{ name: 'package.json', bytes: Buffer.from('{') }]), 'not JSON'],
    'JSON nested very deep': [
      () => zip([{ name: 'package.json', bytes: Buffer.from('['.repeat(100_000) + ']'.repeat(100_000)) }]),
      'nested more than',
    ],
    'another format': [
      ({ given, picture }) => zip([json({ ...given, format: 'gullyline-site-package/2' }), medium(picture)]),
      '/format',
    ],
    'an unknown field': [
      ({ given, picture }) => zip([json({ ...given, extra: 1 }), medium(picture)]),
      'package.json',
    ],
    'an unknown kind of block': [
      ({ given, picture }) =>
        zip([json(withPart(given, ({ one }) => ({ one: { ...one!, kind: 'rocket' } }))), medium(picture)]),
      'unknown block kind',
    ],
    'a script in a link': [
      ({ given, picture }) =>
        zip([
          json(
            withPart(given, () => ({
              one: node('text', {
                words: [{ type: 'paragraph', runs: [{ text: 'x', link: { href: 'x' } }] }],
              }),
              two: { ...node('heading', {}), content: { text: '<script>', level: 9 } },
              root: node('pattern', {}, { blocks: ['one', 'two'] }),
            })),
          ),
          medium(picture),
        ]),
      '/nodes/two',
    ],
    'a hundred thousand blocks': [
      ({ given, picture }) => {
        const many = Object.fromEntries(Array.from({ length: 100_000 }, (_, i) => [`n${i}`, {}]))
        return zip([json(withPart(given, () => many)), medium(picture)])
      },
      'at most 20000 nodes',
    ],
    'a ring of parts': [
      ({ given }) => {
        const ring = (id: string, other: string) => ({
          type: 'shared' as const,
          name: id,
          purpose: 'other' as const,
          about: '',
          document: {
            format: 3 as const,
            root: id,
            nodes: {
              [id]: node('shared-blocks', {}, { blocks: [`${id}i`] }),
              [`${id}i`]: node('linked-blocks', { part: other }),
            },
          },
        })
        return zip([json({ ...given, pictures: {}, parts: { pa: ring('pa', 'pb'), pb: ring('pb', 'pa') } })])
      },
      'stands in itself',
    ],
    'a part that is not there': [
      ({ given, picture }) =>
        zip([
          json(withPart(given, () => ({ one: node('linked-blocks', { part: 'gone' }) }))),
          medium(picture),
        ]),
      'shows the part "gone"',
    ],
    'a picture that is not there': [({ given }) => zip([json(given)]), 'is missing in it'],
    'another picture than it says': [
      ({ given, picture }) =>
        zip([json(given), medium(Buffer.from(picture.toString().replace('rect', 'path')))]),
      'is not the one',
    ],
    'a picture larger than it says': [
      ({ given, picture }) => zip([json(given), medium(Buffer.concat([picture, picture]))]),
      'larger than it says',
    ],
    'a drawing with a script': [
      ({ given, picture }) => {
        const bad = Buffer.from(picture.toString().replace('<rect', '<script>alert(1)</script><rect'))
        const pic = { ...given.pictures.pic!, digest: digest(bad), bytes: bad.length }
        return zip([json({ ...given, pictures: { pic } }), medium(bad)])
      },
      'could run',
    ],
    'a file that belongs to nothing': [
      ({ given, picture }) =>
        zip([json(given), medium(picture), { name: 'evil.sh', bytes: Buffer.from('x') }]),
      'belongs to nothing',
    ],
    'a symbolic link': [
      ({ given, picture }) => zip([json(given), { ...medium(picture), mode: 0o120777 }]),
      'no plain file',
    ],
    'two files of one name': [
      ({ given, picture }) => zip([json(given), medium(picture), medium(picture)]),
      'two files called',
    ],
    'a path that climbs out': [
      async ({ given, picture }) => {
        const bytes = await zip([
          json(given),
          medium(picture),
          { name: 'xx/climbing', bytes: Buffer.from('x') },
        ])
        return Buffer.from(bytes.toString('latin1').replaceAll('xx/climbing', '../climbing'), 'latin1')
      },
      'can’t be imported',
    ],
    'a bomb': [
      async ({ given }) => {
        const bytes = await zip([
          json(given),
          { name: 'pictures/pic', bytes: Buffer.alloc(32 * 1024 * 1024) },
        ])
        expect(bytes.length).toBeLessThan(1024 * 1024)
        return bytes
      },
      'larger than it says',
    ],
  }

  test.each(Object.keys(faults))('%s', async (name) => {
    const [fault, reason] = faults[name]!
    const site = await ownSite()
    const before = await stateOf(site)
    const bytes = await fault(await small())
    const still = readdirSync(join(server.services.dataDir, 'imports'))
    const start = performance.now()
    const sent = await send(bytes, site)
    let refused: ErrorBody = sent.body
    if (sent.status === 201) {
      const url = `${site}/imports/${sent.body.id}`
      refused = (await server.ask(url, { method: 'POST', body: { choices: {}, surfaces: {} } })).body
    }
    expect(performance.now() - start).toBeLessThan(2_000)
    expect(
      [refused.message, ...refused.problems.map(({ pointer, message }) => `${pointer} ${message}`)].join(' '),
    ).toContain(reason)
    expect(refused.message).toContain('Nothing was')
    expect(await stateOf(site)).toEqual(before)
    // What is refused as it comes is not on the disk any more; what can be tried again is, until it is dropped.
    if (sent.status === 201) await server.ask(`${site}/imports/${sent.body.id}`, { method: 'DELETE' })
    expect(readdirSync(join(server.services.dataDir, 'imports'))).toEqual(still)
  })

  test('and what is right is taken', async () => {
    const { given, picture } = await small()
    const site = await ownSite()
    await imported(await zip([json(given), medium(picture)]), site)
    expect((await partsOf(site)).map(({ name }) => name)).toEqual(['Small'])
  })

  let own: string | undefined
  const ownSite = async (): Promise<string> => (own ??= await emptySite())
})

async function stateOf(site: string) {
  return [
    await partsOf(site),
    await pagesOf(site),
    (await server.ask<Library>(`${site}/library`)).body,
    readdirSync(join(server.services.dataDir, 'media')),
    readdirSync(join(server.services.dataDir, 'originals'), { recursive: true }),
  ]
}

test('an editor imports, and can’t replace the settings of the site; a reviewer does neither', async () => {
  const site = FIRST
  const sent = await send(await exported('all=yes'), site)
  const refused = await server.ask(`${site}/imports/${sent.body.id}`, {
    method: 'POST',
    body: { choices: { 'settings site': 'theirs' }, surfaces: {} },
    as: 'editor',
  })
  expect([refused.status, refused.body.code]).toEqual([403, 'not-allowed'])
  expect((await server.ask(`${site}/export?all=yes`, { as: 'reviewer' })).status).toBe(403)
  expect((await server.ask(`${site}/imports/${sent.body.id}`, { method: 'DELETE' })).status).toBe(200)
  const gone = await server.ask(`${site}/imports/${sent.body.id}`)
  expect([gone.status, gone.body.code]).toEqual([404, 'not-found'])
})

test('the command line exports, says what would come, and imports, as the interface does', async () => {
  const site = await emptySite()
  const file = join(folder, 'b.zip')
  const run = async (...args: string[]): Promise<string> => {
    const program = join(import.meta.dirname, '../src/exchange/package-command.ts')
    const env = {
      ...process.env,
      GULLYLINE_DATABASE_URL: process.env.GULLYLINE_TEST_DATABASE!.replace(/\/[^/]*$/, `/${server.database}`),
      GULLYLINE_DATA: server.services.dataDir,
    }
    const { stdout } = await promisify(execFile)(process.execPath, ['--import', 'tsx', program, ...args], {
      env,
    })
    return stdout
  }
  expect(await run('export', file, '--part', 'tmjoin')).toContain('1 parts')
  expect(digest(readFileSync(file))).toBe(digest(await exported('part=tmjoin')))
  const id = site.split('/').at(-1)!
  const looked = JSON.parse(await run('look', file, '--site', id, '--json')) as ImportPlan
  expect(looked).toEqual((await send(readFileSync(file), site)).body.plan)
  expect(await partsOf(site)).toEqual([])
  expect(await run('import', file, '--site', id)).toMatch(/^Imported: [1-9]\d* added, 0 replaced/)
  expect((await partsOf(site)).map(({ name }) => name)).toEqual(['Call to join'])
  await expect(run('import', join(folder, 'nothing.zip'))).rejects.toThrow('can’t be imported')
}, 60_000)
