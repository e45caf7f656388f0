/** Packages: written of a site, read into another, and written again as they were. */
import { execFile } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { ImportPlan, SiteInfo, SitePackage, WaitingImport } from '@gullyline/core'
import { digest, FIRST, startWithPackages, theirs } from './with-packages.ts'

const folder = mkdtempSync(join(tmpdir(), 'gullyline-packages-'))

let at: Awaited<ReturnType<typeof startWithPackages>>
beforeAll(async () => {
  at = await startWithPackages()
})
afterAll(async () => {
  await at.server.close()
  rmSync(folder, { recursive: true })
})

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
    const bytes = await at.exported('page=tmvisit')
    const given = JSON.parse(await unzipped(bytes, 'package.json')) as SitePackage
    expect(given.pages.map(({ id }) => id)).toEqual(['tmvisit'])
    expect(Object.values(given.parts).map(({ name }) => name)).toContain('Opening hours')
    expect(Object.keys(given.pictures).length).toBeGreaterThan(0)
    expect(given.site).toBeUndefined()
    expect(await at.exported('page=tmvisit')).toEqual(bytes)
  })

  test('of a page and those under it has all of them, parents first', async () => {
    const bytes = await at.exported('page=tmnews&under=yes')
    const given = JSON.parse(await unzipped(bytes, 'package.json')) as SitePackage
    const [first, ...rest] = given.pages
    expect([first?.id, first?.parentId]).toEqual(['tmnews', null])
    expect(rest.length).toBeGreaterThan(1)
    expect(rest.every(({ parentId }) => parentId === 'tmnews')).toBe(true)
  })

  test('of what does not exist is refused', async () => {
    for (const query of ['page=nosuch', 'part=nosuch', ''])
      expect((await at.server.ask(`${FIRST}/export?${query}`)).status).toBeGreaterThanOrEqual(400)
  })
})

describe('exported, imported into an empty site and exported again, the bytes are the same', () => {
  test.each(['page=tmvisit', 'part=tmjoin'])('%s', async (query) => {
    const [bytes, site] = [await at.exported(query), await at.emptySite()]
    const { done } = await at.imported(bytes, site, theirs)
    expect(done.added).toBeGreaterThan(0)
    const own = new URLSearchParams(query)
    const kept = await at.server.scope.read(({ manager }) =>
      manager.query<{ id: string; origin: string }[]>('SELECT id, origin FROM origins WHERE site_id = ?', [
        site.split('/').at(-1),
      ]),
    )
    const idOf = (origin: string): string => kept.find((one) => one.origin === origin)?.id ?? origin
    for (const name of ['page', 'part']) {
      const value = own.get(name)
      if (value !== null) own.set(name, idOf(value))
    }
    const again = await at.exported(own.toString(), site)
    expect(JSON.parse(await unzipped(again, 'package.json'))).toEqual(
      JSON.parse(await unzipped(bytes, 'package.json')),
    )
    expect(digest(again)).toBe(digest(bytes))
  })

  test('a whole site, which then shows visitors what the first one does', async () => {
    const [bytes, site] = [await at.exported('all=yes'), await at.emptySite()]
    await at.imported(bytes, site, theirs)
    expect(digest(await at.exported('all=yes', site))).toBe(digest(bytes))
    const paths = async (of: string) => (await at.pagesOf(of)).map(({ path }) => path).sort()
    expect(await paths(site)).toEqual(await paths(FIRST))
    const { name, navigation } = (await at.server.ask<SiteInfo>(site)).body
    expect([name, navigation.length]).toEqual([
      'Tarrowmoor Observatory',
      (await at.server.ask<SiteInfo>(FIRST)).body.navigation.length,
    ])
    for (const { id, version } of await at.pagesOf(site)) {
      const body = { version }
      expect((await at.server.ask(`${site}/pages/${id}/publish`, { method: 'POST', body })).status).toBe(200)
    }
    const live = await (await at.server.site.request(`http://${at.lastHost()}:1/`)).text()
    const first = await (await at.server.site.request('http://localhost:1/')).text()
    const words = (html: string): string => html.slice(html.indexOf('<main')).replace(/<[^>]*>/g, ' ')
    expect(words(live)).toBe(words(first))
  })
})

describe('what is there already', () => {
  let site: string
  let bytes: Buffer
  beforeAll(async () => {
    site = await at.emptySite()
    bytes = await at.exported('part=tmjoin')
    await at.imported(bytes, site)
    const [part] = await at.partsOf(site)
    await at.server.ask(`${site}/parts/${part!.id}`, { method: 'PATCH', body: { about: 'Ours by now' } })
  })

  test('is found again by the id that it came with, and told to be the same or not', async () => {
    const { body } = await at.send(bytes, site)
    const [item] = body.plan.items.filter(({ thing }) => thing === 'part')
    expect(item).toMatchObject({ match: { by: 'id', isSame: true }, suggested: 'mine' })
    expect(body.plan.items.every(({ suggested }) => suggested === 'mine')).toBe(true)
  })

  test('stays where nothing else is chosen', async () => {
    const before = await at.partsOf(site)
    const { done } = await at.imported(bytes, site)
    expect([done.added, done.replaced]).toEqual([0, 0])
    expect(await at.partsOf(site)).toEqual(before)
  })

  test('is replaced as a new version, under its own id', async () => {
    const before = (await at.partsOf(site))[0]!
    await at.imported(bytes, site, ({ thing }) => (thing === 'part' ? 'theirs' : undefined))
    const [after, ...more] = await at.partsOf(site)
    expect(more).toEqual([])
    expect([after!.id, after!.version]).toEqual([before.id, before.version + 1])
    expect(after!.about).not.toBe('Ours by now')
  })

  test('gets the other beside it, with a name of its own', async () => {
    await at.imported(bytes, site, ({ thing }) => (thing === 'part' ? 'both' : undefined))
    const names = (await at.partsOf(site)).map(({ name }) => name)
    expect(names).toEqual([names[0], `${names[0]} 2`])
  })

  test('of another page with the same address is told by it, and both can stand', async () => {
    const body = { title: 'Visit', parentId: null }
    await at.server.ask(`${site}/pages`, { method: 'POST', body })
    const visit = await at.exported('page=tmvisit')
    const { plan } = await at.imported(visit, site, ({ thing }) => (thing === 'page' ? 'both' : undefined))
    // Two that it links to do not come along: one itself, and one from a shared section.
    expect(plan.lostPages).toBe(2)
    expect(plan.items.find(({ thing }) => thing === 'page')).toMatchObject({
      match: { by: 'address', name: '/visit/' },
    })
    expect((await at.pagesOf(site)).map(({ path }) => path)).toEqual(['/', '/404/', '/visit/', '/visit-2/'])
  })
})

test('of six who import the same at once one does, and the others are told that the site is another one now', async () => {
  const [bytes, site] = [await at.exported('part=tmjoin'), await at.emptySite()]
  const sent = await Promise.all(Array.from({ length: 6 }, () => at.send(bytes, site)))
  const take = (id: string) =>
    at.server.ask(`${site}/imports/${id}`, { method: 'POST', body: { choices: {}, surfaces: {} } })
  const done = await Promise.all(sent.map(({ body }) => take(body.id)))
  const codes = done.map(({ status, body }) => (status === 200 ? 'imported' : body.code)).sort()
  expect(codes).toEqual(['imported', ...Array<string>(5).fill('stale-save')])
  expect((await at.partsOf(site)).map(({ name }) => name)).toEqual(['Call to join'])
  // Looked at again, it is there already, and is left as it is.
  const refused = sent[done.findIndex(({ status }) => status !== 200)]!.body.id
  const now = (await at.server.ask<WaitingImport>(`${site}/imports/${refused}`)).body
  expect(now.plan.items.every(({ match }) => match?.isSame)).toBe(true)
  expect((await take(refused)).body).toEqual({ added: 0, replaced: 0, kept: now.plan.items.length })
})

test('pictures that are replaced again and again leave no more files than one replacement does', async () => {
  const [bytes, site] = [await at.exported('part=tmsky'), await at.emptySite()]
  await at.imported(bytes, site)
  const media = () => readdirSync(join(at.server.services.dataDir, 'media')).length
  const [first, counts] = [media(), [] as number[]]
  for (let i = 0; i < 3; i++) {
    await at.imported(bytes, site, ({ thing }) => (thing === 'picture' ? 'theirs' : undefined))
    counts.push(media() - first)
  }
  // The one before stays for pages that are open somewhere.
  expect(counts).toEqual([1, 1, 1])
})

test('an editor imports, and can’t replace the settings of the site; a reviewer does neither', async () => {
  const site = FIRST
  const sent = await at.send(await at.exported('all=yes'), site)
  const refused = await at.server.ask(`${site}/imports/${sent.body.id}`, {
    method: 'POST',
    body: { choices: { 'settings site': 'theirs' }, surfaces: {} },
    as: 'editor',
  })
  expect([refused.status, refused.body.code]).toEqual([403, 'not-allowed'])
  expect((await at.server.ask(`${site}/export?all=yes`, { as: 'reviewer' })).status).toBe(403)
  expect((await at.server.ask(`${site}/imports/${sent.body.id}`, { method: 'DELETE' })).status).toBe(200)
  const gone = await at.server.ask(`${site}/imports/${sent.body.id}`)
  expect([gone.status, gone.body.code]).toEqual([404, 'not-found'])
})

test('the command line exports, says what would come, and imports, as the interface does', async () => {
  const site = await at.emptySite()
  const file = join(folder, 'b.zip')
  const run = async (...args: string[]): Promise<string> => {
    const program = join(import.meta.dirname, '../dist/package-command.js')
    const env = {
      ...process.env,
      GULLYLINE_DATABASE_URL: process.env.GULLYLINE_TEST_DATABASE!.replace(
        /\/[^/]*$/,
        `/${at.server.database}`,
      ),
      GULLYLINE_DATA: at.server.services.dataDir,
    }
    const { stdout } = await promisify(execFile)(process.execPath, [program, ...args], {
      env,
    })
    return stdout
  }
  expect(await run('export', file, '--part', 'tmjoin')).toContain('1 parts')
  expect(digest(readFileSync(file))).toBe(digest(await at.exported('part=tmjoin')))
  const id = site.split('/').at(-1)!
  const looked = JSON.parse(await run('look', file, '--site', id, '--json')) as ImportPlan
  expect(looked).toEqual((await at.send(readFileSync(file), site)).body.plan)
  expect(await at.partsOf(site)).toEqual([])
  expect(await run('import', file, '--site', id)).toMatch(/^Imported: [1-9]\d* added, 0 replaced/)
  expect((await at.partsOf(site)).map(({ name }) => name)).toEqual(['Call to join'])
  await expect(run('import', join(folder, 'nothing.zip'))).rejects.toThrow('can’t be imported')
})
