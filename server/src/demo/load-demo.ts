import { copyFile, readFile, writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import type { EntityManager } from 'typeorm'
import {
  defaultRegistry,
  getKind,
  newNode,
  PAGE_FORMAT,
  validatePage,
  withSettings,
  type JsonObject,
  type Page,
  type Role,
} from '@gullyline/core'
import { demoSite, type DemoPage, type DemoPart } from '@gullyline/demo'
import { PartEntity } from '../db/document-rows.ts'
import { FileEntity, MediaEntity, SiteEntity, type MediaRow, type SiteRow } from '../db/rows.ts'
import { addDocument, GULLYLINE } from '../documents/store.ts'
import { derivePicture } from '../media/derive.ts'
import { keepFile } from '../media/files.ts'
import { fontFolder, pictureFolder } from '../media/folders.ts'
import { newId } from '../http/new-id.ts'
import { renew } from '../db/revisions.ts'
import { makeFolder } from '../http/make-folder.ts'
import { insertPage } from '../pages/tree-acts.ts'
import { pagePaths } from '../pages/tree.ts'
import { addPerson } from '../people/store.ts'
import { publishNow } from '../publish/publish-page.ts'
import type { Services } from '../services.ts'
import { SiteScope, type SiteChange, type SiteData } from '../db/site-scope.ts'

/** The sample site's people, one for each role. Their passwords are random, and different on every machine. */
const PEOPLE: readonly { readonly login: string; readonly name: string; readonly role: Role }[] = [
  { login: 'ines', name: 'Ines', role: 'editor' },
  { login: 'moss', name: 'Moss', role: 'reviewer' },
  { login: 'tarn', name: 'Tarn', role: 'keeper' },
]

/** Where the sample accounts are written for `npm start` to print. Readable by this user alone. */
function demoAccountsFile(dataDir: string): string {
  return join(dataDir, 'demo-accounts.json')
}

/** The sample accounts' passwords by login; none where there are no sample accounts. */
export async function sampleAccounts(dataDir: string): Promise<Record<string, string>> {
  const json = await readFile(demoAccountsFile(dataDir), 'utf8').catch(() => '[]')
  const accounts = JSON.parse(json) as readonly { readonly login: string; readonly password: string }[]
  return Object.fromEntries(accounts.map(({ login, password }) => [login, password]))
}

/** Loads the sample site into an empty database and publishes it. Does nothing where a site exists. Says each step. `derive` makes the files of a picture. */
export async function loadDemoIfEmpty(
  services: Services,
  say: (words: string) => void,
  derive: typeof derivePicture = derivePicture,
): Promise<void> {
  if ((await services.db.manager.count(SiteEntity)) > 0) return
  await copyFonts(services)
  const pictures: Omit<MediaRow, 'siteId'>[] = []
  for (const [index, picture] of demoSite.pictures.entries()) {
    say(`Making pictures of the sample site, ${index + 1} of ${demoSite.pictures.length}`)
    const derived = await derive(await readFile(picture.file), pictureFolder(services.dataDir, picture.id))
    const words = {
      name: basename(picture.file),
      alt: picture.alt,
      isDecoration: false,
      revision: 1,
      previous: null,
    }
    pictures.push({ id: picture.id, ...words, ...derived })
  }
  const files = await Promise.all(
    demoSite.files.map(async ({ id, file }) => {
      const upload = {
        name: basename(file),
        bytes: await readFile(file),
        signal: new AbortController().signal,
      }
      return keepFile(services, { id, revision: 1 }, upload)
    }),
  )
  const scope = new SiteScope(services.db, demoSite.id)
  await scope.change(['pages', 'site'], async (at) => {
    await insertSite(at, demoSite)
    for (const row of pictures) await at.manager.insert(MediaEntity, { siteId: at.siteId, ...row })
    for (const row of files)
      await at.manager.insert(FileEntity, { siteId: at.siteId, previous: null, ...row })
    for (const part of demoSite.parts) await insertDemoPart(at, part)
    const paths = pagePaths(demoSite.pages.map((page) => ({ ...page, parentId: page.parentId ?? null })))
    for (const [position, page] of demoSite.pages.entries())
      await insertDemoPage(at, page, { position, address: paths[page.id]! })
    await addDemoPeople(at.manager, services.dataDir)
  })
  say('Publishing the sample site')
  await publishNow(services, scope, Object.fromEntries(demoSite.pages.map((page) => [page.id, 1])))
}

/** A site with one empty page, in the sample site's look, for those who begin their own. Does nothing where a site exists. */
export async function beginSiteIfEmpty(services: Services): Promise<void> {
  if ((await services.db.manager.count(SiteEntity)) === 0) await beginSite(services)
}

const NEW_SITE = 'New site'

/** What a site begins with. What is left out is as for the first site: the sample site's look, no name of its own, everybody. */
interface BegunSite {
  readonly name?: string
  readonly language?: string
  readonly host?: string | null
  readonly look?: object
  /** The ids of the people who work on it. */
  readonly people?: readonly string[]
}

/** Adds a site with one empty page. */
export async function beginSite(
  services: Services,
  { people, ...given }: BegunSite = {},
): Promise<SiteScope> {
  await copyFonts(services)
  const scope = new SiteScope(services.db, newId())
  await scope.change(['pages', 'parts', 'site'], async (at) => {
    const header = emptyDocument('site-header', { brand: given.name ?? NEW_SITE })
    const footer = emptyDocument('site-footer')
    const [homePageId, headerId, footerId] = [newId(), newId(), newId()] as const
    const shared = { header, footer, headerId, footerId }
    const site = { ...demoSite, ...shared, name: NEW_SITE, homePageId, navigation: [], ...given }
    await insertSite(at, site)
    await at.manager.query(
      'INSERT INTO site_people (site_id, person_id) SELECT ?, id FROM people WHERE ? OR id IN (?)',
      [at.siteId, people === undefined, people ?? ['']],
    )
    await renew(at.manager, ['people'])
    const page = { id: homePageId, title: 'Home', slug: '', description: '', document: emptyDocument('page') }
    await insertDemoPage(at, page, { position: 0, address: '/' })
  })
  return scope
}

type Optional = 'host' | 'notFoundPageId' | 'icon' | 'sharePicture'
interface NewSite
  extends Omit<SiteRow, 'id' | 'releaseId' | 'navigationLimit' | Optional>, Partial<Pick<SiteRow, Optional>> {
  readonly header: Page
  readonly footer: Page
}

async function insertSite(at: SiteData, { header, footer, ...site }: NewSite): Promise<void> {
  const { siteId: id } = at
  const { name, language, look, homePageId, headerId, footerId, navigation } = site
  const { host = null, notFoundPageId = null, icon = null, sharePicture = null } = site
  const set = { host, notFoundPageId, icon, sharePicture, navigation, releaseId: null }
  await at.manager.insert(SiteEntity, { id, name, language, look, homePageId, headerId, footerId, ...set })
  const by = GULLYLINE
  await addDocument(at, { id: headerId, type: 'header', document: header, by })
  await addDocument(at, { id: footerId, type: 'footer', document: footer, by })
}

function emptyDocument(kind: string, content: JsonObject = {}): Page {
  const root = newId()
  return {
    format: PAGE_FORMAT,
    root,
    nodes: { [root]: newNode(getKind(defaultRegistry, kind), { content }) },
  }
}

async function copyFonts({ dataDir }: Services): Promise<void> {
  await makeFolder(fontFolder(dataDir))
  for (const file of demoSite.fontFiles) await copyFile(file, join(fontFolder(dataDir), basename(file)))
}

async function addDemoPeople(manager: EntityManager, dataDir: string): Promise<void> {
  const accounts = PEOPLE.map((person) => ({ ...person, password: `${newId()}-${newId()}` }))
  for (const account of accounts) await addPerson(manager, account)
  await writeFile(demoAccountsFile(dataDir), JSON.stringify(accounts, undefined, 2), { mode: 0o600 })
}

async function insertDemoPage(
  at: SiteChange,
  page: DemoPage,
  { position, address }: { readonly position: number; readonly address: string },
): Promise<void> {
  const { id, slug, title, description, inNavigation = slug !== '', more } = page
  const document = withSettings(page.document, { title, description, inNavigation, ...more })
  assertValid(document, title)
  const under = slug === '' ? address : address.slice(0, -(slug.length + 1))
  const place = { id, parentId: page.parentId ?? null, position, slug, under }
  await insertPage(at, place, document, GULLYLINE)
}

async function insertDemoPart(at: SiteData, { id, document, ...facts }: DemoPart): Promise<void> {
  await addDocument(at, { id, type: 'shared', document, by: GULLYLINE })
  await at.manager.insert(PartEntity, { id, siteId: at.siteId, ...facts, taken: facts.name, binnedAt: null })
}

function assertValid(document: Page, title: string): void {
  const [problem] = validatePage(document, defaultRegistry)
  if (problem)
    throw new Error(`The sample page "${title}" is not valid: ${problem.pointer} ${problem.message}`)
}
