/** Beginning a site: what it has before anybody made anything on it. */
import { copyFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import {
  defaultRegistry,
  getKind,
  newNode,
  PAGE_FORMAT,
  withSettings,
  type JsonObject,
  type Page,
} from '@gullyline/core'
import { demoSite } from '@gullyline/demo'
import { renew } from '../db/revisions.ts'
import { SiteEntity, type SiteRow } from '../db/rows.ts'
import { SiteScope, type SiteData } from '../db/site-scope.ts'
import { addDocument, GULLYLINE } from '../documents/store.ts'
import { makeFolder } from '../http/make-folder.ts'
import { newId } from '../http/new-id.ts'
import { fontFolder } from '../media/folders.ts'
import { insertPage } from '../pages/tree-acts.ts'
import type { Services } from '../services.ts'

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
    const home = { id: homePageId, parentId: null, position: 0, slug: '', under: '/' }
    await insertPage(at, home, withSettings(emptyDocument('page'), { title: 'Home' }), GULLYLINE)
  })
  return scope
}

type Optional = 'host' | 'notFoundPageId' | 'icon' | 'sharePicture'
interface NewSite
  extends Omit<SiteRow, 'id' | 'releaseId' | 'navigationLimit' | Optional>, Partial<Pick<SiteRow, Optional>> {
  readonly header: Page
  readonly footer: Page
}

/** Adds a site with its header and its footer. */
export async function insertSite(at: SiteData, { header, footer, ...site }: NewSite): Promise<void> {
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

/** Puts the fonts of the sample site's look where looks have theirs. */
export async function copyFonts({ dataDir }: Pick<Services, 'dataDir'>): Promise<void> {
  await makeFolder(fontFolder(dataDir))
  for (const file of demoSite.fontFiles) await copyFile(file, join(fontFolder(dataDir), basename(file)))
}
