import { copyFile, readFile, writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import type { EntityManager } from 'typeorm'
import { defaultRegistry, validatePage, withSettings, type Page, type Role } from '@gullyline/core'
import { demoSite, type DemoPage, type DemoPart } from '@gullyline/demo'
import { PartEntity } from '../db/document-rows.ts'
import { FileEntity, MediaEntity, SiteEntity, type MediaRow } from '../db/rows.ts'
import { addDocument, GULLYLINE } from '../documents/store.ts'
import { derivePicture, madeFrom } from '../media/derive.ts'
import { keepFile } from '../media/files.ts'
import { originalFile, pictureFolder } from '../media/folders.ts'
import { beginSite, copyFonts, insertSite } from '../sites/begin-site.ts'
import { newId } from '../http/new-id.ts'
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

/** Loads the sample site into an empty database and publishes it. Does nothing where a site exists. Says each step. */
export async function loadDemoIfEmpty(services: Services, say: (words: string) => void): Promise<void> {
  if ((await services.db.manager.count(SiteEntity)) > 0) return
  const { dataDir, pictureEffort } = services
  await copyFonts(services)
  await makeFolder(join(dataDir, 'originals'), 0o700)
  const pictures: Omit<MediaRow, 'siteId'>[] = []
  for (const [index, picture] of demoSite.pictures.entries()) {
    say(`Making pictures of the sample site, ${index + 1} of ${demoSite.pictures.length}`)
    const original = await readFile(picture.file)
    const derived = await derivePicture(original, pictureFolder(dataDir, picture.id), pictureEffort)
    // As it came, as of every picture that is uploaded.
    await copyFile(picture.file, originalFile(dataDir, picture.id, 1))
    const words = {
      name: basename(picture.file),
      alt: picture.alt,
      isDecoration: false,
      revision: 1,
      previous: null,
      madeFrom: await madeFrom(original, pictureEffort),
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
    await addDemoPeople(at.manager, dataDir)
  })
  say('Publishing the sample site')
  await publishNow(services, scope, Object.fromEntries(demoSite.pages.map((page) => [page.id, 1])))
}

/** A site with one empty page, in the sample site's look, for those who begin their own. Does nothing where a site exists. */
export async function beginSiteIfEmpty(services: Services): Promise<void> {
  if ((await services.db.manager.count(SiteEntity)) === 0) await beginSite(services)
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
