import { randomBytes } from 'node:crypto'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import type { DataSource } from 'typeorm'
import {
  defaultRegistry,
  ID_BYTES,
  idFrom,
  linkedPart,
  navigationLines,
  pageTree,
  renderPage,
  withCurrent,
  withSettings,
  type Library,
  type Page,
  type PageDocument,
  type PageSummary,
  type SiteInfo,
} from '@gullyline/core'
import { openDatabase } from '../../server/src/db/data-source.ts'
import { packState } from '../../server/src/documents/states.ts'
import type { SiteData } from '../../server/src/db/site-scope.ts'
import { pagesWithPart } from '../../server/src/documents/linked-parts.ts'
import {
  findVersion,
  findVersions,
  newestVersions,
  readDocument,
} from '../../server/src/documents/versions.ts'
import { startApplication, type Application } from '../application.ts'
import { figureOf, median, type Figure } from '../measure.ts'
import { residentBytes } from './people.ts'

const SITE = '/api/sites/tarrowmoor'
const FEW = 50
const MANY = 5_000
/** Pages stand in groups of so many, under pages of their own. */
const GROUP = 50
const ROUNDS = 15
/** Rounds before those: the first ones tell how long V8 takes to compile what each act runs. */
const WARMING_UP = 8

interface Site {
  readonly app: Application
  readonly ask: (method: string, path: string, body?: unknown) => Promise<unknown>
  /** A page that each act changes. */
  readonly page: string
  document: Page
  version: number
  acts: number
}

/** What an act on one page costs on a site of many pages, against the same on a site of few. */
const ACTS: readonly (readonly [figure: string, what: string, act: (site: Site) => Promise<number>])[] = [
  ['o', 'Publishing one changed page', timed(save, publish)],
  ['p', 'Saving a page', timed(nothing, save)],
  ['q', 'Opening a page', timed(save, open)],
  ['r', 'Adding a page', timed(nothing, add)],
  ['s', 'Moving a page', timed(nothing, move)],
  ['t', 'The first screen of the list of pages', timed(save, list)],
]

/** (o) to (t): sites of 5,000 pages against sites of 50; (C): the memory of their servers after that. */
export async function largeSiteFigures(): Promise<Figure[]> {
  const sites = [await siteOf(MANY), await siteOf(FEW)] as const
  try {
    const figures: Figure[] = []
    for (const [figure, what, act] of ACTS) {
      const times = sites.map(() => [] as number[])
      for (let round = -WARMING_UP; round < ROUNDS; round++)
        for (const [i, site] of sites.entries()) {
          const time = await act(site)
          if (round >= 0) times[i]!.push(time)
        }
      const [ours, reference] = times.map(median)
      figures.push(
        figureOf(figure, 1.5, `${what} on a site of ${MANY} pages, against one of ${FEW}`, {
          ours: ours!,
          reference: reference!,
        }),
      )
    }
    const [ours, reference] = await Promise.all(sites.map(({ app }) => residentBytes(app.serverPid)))
    const what = `The server's memory on a site of ${MANY} pages, against one of ${FEW}`
    const MiB = 1024 * 1024
    figures.push(figureOf('C', 2, what, { ours: ours! / MiB, reference: reference! / MiB }, 'MiB'))
    return figures
  } finally {
    for (const { app } of sites) await app.stop()
  }
}

/** Pages that show the header. */
const SHOWING = 300
const HEADER_ROUNDS = 3
/** As pages are compressed; see `ContentStore`. */
const BROTLI = { [constants.BROTLI_PARAM_QUALITY]: 9, [constants.BROTLI_PARAM_LGWIN]: 14 }

/** (z): publishing a header that changed, against making the files of all pages that show it, one after another, and nothing else. */
export async function headerFigure(): Promise<Figure> {
  const site = await siteOf(SHOWING)
  try {
    const times = { ours: [] as number[], reference: [] as number[] }
    for (let round = 0; round < HEADER_ROUNDS; round++) {
      times.ours.push(await timed(saveHeader, publishHeader)(site))
      times.reference.push(await bareRender(site))
    }
    const what = `Publishing a changed header on ${SHOWING} pages, against making the files of those pages alone`
    return figureOf('z', 1.3, what, { ours: median(times.ours), reference: median(times.reference) })
  } finally {
    await site.app.stop()
  }
}

/** Pages of the site, and parts that they show. */
const WITH_PARTS = 2_000
const PARTS = 500
const REACH_ROUNDS = 12

/** (G): where a part is shown, asked right after a save, against reading all documents and looking through them. */
export async function reachFigure(): Promise<Figure> {
  const site = await siteOf(WITH_PARTS)
  const database = await openDatabase(site.app.databaseUrl)
  try {
    const parts = await addParts(database)
    const at = { manager: database.manager, siteId: 'tarrowmoor' }
    const times = { ours: [] as number[], reference: [] as number[] }
    for (let round = 0; round < REACH_ROUNDS; round++) {
      const part = parts[(round * 37) % parts.length]!
      await save(site)
      const start = performance.now()
      await pagesWithPart(at, part)
      times.ours.push(performance.now() - start)
      if (round < 3) times.reference.push(await timeOf(() => scanned(at, part)))
    }
    const what = `Where one of ${PARTS} parts is shown on ${WITH_PARTS} pages, after a save, against scanning all`
    return figureOf('G', 0.05, what, { ours: median(times.ours), reference: median(times.reference) })
  } finally {
    await database.destroy()
    await site.app.stop()
  }
}

async function timeOf(act: () => Promise<unknown>): Promise<number> {
  const start = performance.now()
  await act()
  return performance.now() - start
}

/** Adds parts, each shown by a few pages by what is recorded of their versions. */
async function addParts(database: DataSource): Promise<readonly string[]> {
  const ids = Array.from({ length: PARTS }, () => idFrom(randomBytes(ID_BYTES)))
  const pages = await database.query<{ id: string; version: number }[]>(
    "SELECT id, version FROM documents WHERE type = 'page' AND site_id = 'tarrowmoor'",
  )
  for (const [i, id] of ids.entries()) {
    await database.query(
      "INSERT INTO documents (id, site_id, type, version) VALUES (?, 'tarrowmoor', 'shared', 1)",
      [id],
    )
    await database.query(
      "INSERT INTO parts (id, site_id, name, taken, purpose, about) VALUES (?, 'tarrowmoor', ?, ?, 'other', '')",
      [id, `Part ${i}`, `Part ${i}`],
    )
    for (const page of pages.filter((_one, n) => n % PARTS === i))
      await database.query(
        "INSERT IGNORE INTO uses (document_id, version, thing, target, count) VALUES (?, ?, 'part', ?, 1)",
        [page.id, page.version, id],
      )
  }
  return ids
}

/** The pages that show a part, found by reading all of them. */
async function scanned(at: SiteData, part: string): Promise<readonly string[]> {
  const newest = await newestVersions(at)
  const wanted = [...newest.values()].map(({ documentId, number }) => ({ documentId, number }))
  const shows = await findVersions(at, wanted, (version) =>
    Object.values(readDocument(version).nodes).some((node) => linkedPart(node, defaultRegistry) === part),
  )
  return [...shows].flatMap(([id, isShown]) => (isShown ? [id] : []))
}

async function saveHeader(site: Site): Promise<void> {
  const { ask, page, version } = site
  const { header, shared } = (await ask('GET', SITE)) as SiteInfo
  const root = header.nodes[header.root]!
  const changed = { ...root, content: { ...root.content, brand: `Tarrowmoor ${++site.acts}` } }
  const document = { ...header, nodes: { ...header.nodes, [header.root]: changed } }
  const { id, version: base } = shared.header
  await ask('PUT', `${SITE}/pages/${page}/document`, {
    base: version,
    shared: [{ id, base, document }],
    journal: null,
  })
}

async function publishHeader({ ask, page, version }: Site): Promise<void> {
  const { shared } = (await ask('GET', SITE)) as SiteInfo
  const body = { version, shared: { [shared.header.id]: shared.header.version } }
  await ask('POST', `${SITE}/pages/${page}/publish`, body)
}

/** Renders every page as it is published, compresses it for each coding, and writes the files. */
async function bareRender({ ask, document }: Site): Promise<number> {
  const info = (await ask('GET', SITE)) as SiteInfo
  const { pictures, files } = (await ask('GET', `${SITE}/library`)) as Library
  const pages = (await ask('GET', `${SITE}/pages`)) as PageSummary[]
  const { header, footer, look, navigation, name, language, liveOrigin: origin } = info
  const labelled = pages.map((page) => ({ ...page, label: page.title }))
  const lines = navigationLines(navigation, labelled)
  const shared = {
    site: { name, language, home: '/', origin, icons: [] },
    look,
    paths: Object.fromEntries(pages.map(({ id, path }) => [id, path])),
    tree: pageTree(pages),
    pictures,
    files,
    parts: {},
    fontBase: '/fonts/',
    fontNames: {},
    purpose: 'publish' as const,
  }
  const folder = await mkdtemp(join(tmpdir(), 'gullyline-bare-'))
  const start = performance.now()
  for (const { id, title, path, description } of pages) {
    const context = { ...shared, page: { id, title }, navigation: withCurrent(lines, id) }
    const parts = { page: document, header, footer, title, description, path }
    const { html } = renderPage(parts, defaultRegistry, context, () => ({ href: '/', integrity: '' }))
    const bytes = Buffer.from(html)
    await writeFile(join(folder, id), bytes)
    await writeFile(join(folder, `${id}.br`), await promisify(brotliCompress)(bytes, { params: BROTLI }))
    await writeFile(join(folder, `${id}.gz`), await promisify(gzip)(bytes, { level: 9 }))
  }
  const time = performance.now() - start
  await rm(folder, { recursive: true })
  return time
}

async function siteOf(pages: number): Promise<Site> {
  const app = await startApplication()
  const database = await openDatabase(app.databaseUrl)
  const page = await addPages(database, pages)
  await database.destroy()
  const ask: Site['ask'] = async (method, path, body) => {
    const headers = { 'content-type': 'application/json', cookie: app.cookie }
    const sent = body === undefined ? {} : { body: JSON.stringify(body) }
    const answer = await fetch(app.editor + path, { method, headers, ...sent })
    if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`)
    return answer.json()
  }
  const { document } = (await ask('GET', `${SITE}/pages/${page}`)) as PageDocument
  const site = { app, ask, page, document, version: 1, acts: 0 }
  // The first publish makes all of them.
  await save(site)
  await publish(site)
  return site
}

/** Adds pages like the sample site's visit page, published, and returns the id of one. */
async function addPages(database: DataSource, count: number): Promise<string> {
  const { document } = await findVersion({ manager: database.manager, siteId: 'tarrowmoor' }, 'tmvisit', 1)
  const { state } = await packState(withSettings(document, { inNavigation: false }), undefined)
  // All stand under one page, so that as many stand at the top as of a site of few: what moves there moves as many.
  const holder = idFrom(randomBytes(ID_BYTES))
  let last = ''
  for (let from = 0; from < count; from += GROUP) {
    const ids = Array.from({ length: Math.min(GROUP, count - from) }, () => idFrom(randomBytes(ID_BYTES)))
    last = ids.at(-1)!
    const rows: (string | number | null)[][] = ids.map((id, i) => {
      const parent = i === 0 ? holder : ids[0]!
      const slug = i === 0 ? `group-${from}` : `page-${i}`
      return [id, parent, from + i, slug, i === 0 ? `/many/${slug}/` : `/many/group-${from}/${slug}/`]
    })
    if (from === 0) rows.unshift([holder, null, 100, 'many', '/many/'])
    for (const [id, parent, position, slug, address] of rows) {
      await database.query(
        "INSERT INTO documents (id, site_id, type, version) SELECT ?, site_id, 'page', 1 FROM pages WHERE id = 'tmvisit'",
        [id],
      )
      await database.query(
        `INSERT INTO pages (id, site_id, parent_id, position, title, slug, address, description, in_navigation,
           more, words)
         SELECT ?, site_id, ?, ?, title, ?, ?, description, 0, more, words
         FROM pages WHERE id = 'tmvisit'`,
        [id, parent, position, slug, address],
      )
      await database.query(
        `INSERT INTO versions (document_id, number, state, changes, saved_at, saved_by)
         SELECT ?, 1, ?, '[]', NOW(3), 'Bench'`,
        [id, state],
      )
      await database.query(
        'INSERT INTO released_documents (document_id, release_number, version) SELECT ?, MAX(number), 1 FROM releases',
        [id],
      )
    }
  }
  // The server does not know yet of what was written past it.
  await database.query(
    "UPDATE revisions SET number = number + 1, value = 'bench' WHERE name = 'tarrowmoor/pages'",
  )
  await database.query(
    `INSERT INTO page_changes (page_id, site_id, number)
     SELECT p.id, p.site_id, r.number FROM pages p, revisions r WHERE r.name = 'tarrowmoor/pages'
     ON DUPLICATE KEY UPDATE number = VALUES(number)`,
  )
  return last
}

function timed(before: (site: Site) => Promise<unknown>, act: (site: Site) => Promise<unknown>) {
  return async (site: Site): Promise<number> => {
    await before(site)
    const start = performance.now()
    await act(site)
    return performance.now() - start
  }
}

async function nothing(): Promise<void> {
  await Promise.resolve()
}

async function open({ ask, page }: Site): Promise<void> {
  await ask('GET', `${SITE}/pages/${page}`)
}

async function save(site: Site): Promise<void> {
  const { ask, page, version } = site
  site.document = withSettings(site.document, { description: `Changed ${++site.acts} times` })
  await ask('PUT', `${SITE}/pages/${page}/document`, {
    base: version,
    document: site.document,
    journal: null,
  })
  site.version++
}

async function publish({ ask, page, version }: Site): Promise<void> {
  await ask('POST', `${SITE}/pages/${page}/publish`, { version })
}

async function add(site: Site): Promise<void> {
  await site.ask('POST', `${SITE}/pages`, { title: `Added ${++site.acts}`, parentId: null })
}

async function move(site: Site): Promise<void> {
  const place = { parentId: site.acts++ % 2 === 0 ? null : 'tmvisit', position: 0 }
  await site.ask('POST', `${SITE}/pages/${site.page}/place`, place)
}

async function list({ ask }: Site): Promise<void> {
  await ask('GET', `${SITE}/page-list`)
}
