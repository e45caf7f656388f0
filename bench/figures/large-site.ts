import { randomBytes } from 'node:crypto'
import type { DataSource } from 'typeorm'
import { ID_BYTES, idFrom, withSettings, type Page, type PageDocument } from '@gullyline/core'
import { openDatabase } from '../../server/src/db/data-source.ts'
import { packState } from '../../server/src/documents/states.ts'
import { findVersion } from '../../server/src/documents/versions.ts'
import { startApplication, type Application } from '../application.ts'
import { figureOf, median, type Figure } from '../measure.ts'
import { residentBytes } from './people.ts'

const FEW = 50
const MANY = 5_000
/** Pages stand in groups of so many, under pages of their own. */
const GROUP = 50
const ROUNDS = 15

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
      for (let round = 0; round < ROUNDS; round++)
        for (const [i, site] of sites.entries()) times[i]!.push(await act(site))
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
  const { document } = (await ask('GET', `/api/sites/tarrowmoor/pages/${page}`)) as PageDocument
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
  const groups: string[] = []
  let last = ''
  for (let from = 0; from < count; from += GROUP) {
    const ids = Array.from({ length: Math.min(GROUP, count - from) }, () => idFrom(randomBytes(ID_BYTES)))
    groups.push(ids[0]!)
    last = ids.at(-1)!
    const rows = ids.map((id, i) => {
      const parent = i === 0 ? null : ids[0]!
      const slug = i === 0 ? `group-${from}` : `page-${i}`
      return [id, parent, from + i + 100, slug, i === 0 ? `/${slug}/` : `/group-${from}/${slug}/`]
    })
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
  await ask('GET', `/api/sites/tarrowmoor/pages/${page}`)
}

async function save(site: Site): Promise<void> {
  const { ask, page, version } = site
  site.document = withSettings(site.document, { description: `Changed ${++site.acts} times` })
  await ask('PUT', `/api/sites/tarrowmoor/pages/${page}/document`, {
    base: version,
    document: site.document,
    journal: null,
  })
  site.version++
}

async function publish({ ask, page, version }: Site): Promise<void> {
  await ask('POST', `/api/sites/tarrowmoor/pages/${page}/publish`, { version })
}

async function add(site: Site): Promise<void> {
  await site.ask('POST', '/api/sites/tarrowmoor/pages', { title: `Added ${++site.acts}`, parentId: null })
}

async function move(site: Site): Promise<void> {
  const place = { parentId: site.acts++ % 2 === 0 ? null : 'tmvisit', position: 0 }
  await site.ask('POST', `/api/sites/tarrowmoor/pages/${site.page}/place`, place)
}

async function list({ ask }: Site): Promise<void> {
  await ask('GET', '/api/sites/tarrowmoor/page-list')
}
