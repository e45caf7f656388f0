/** The live pages of a site: what each was made from, and how it is drawn to be measured. */
import {
  defaultRegistry,
  drawnPage,
  ignoredGullies,
  reasonToIgnore,
  recordReads,
  renderPage,
  sizeBounds,
  withSettingsOf,
  type LiveGullies,
  type SweptLivePage,
} from '@gullyline/core'
import { getMimeType } from 'hono/utils/mime'
import type { SiteData, SiteScope } from '../db/site-scope.ts'
import { findVersions, readDocument } from '../documents/versions.ts'
import { listPages } from '../pages/store.ts'
import { ContentStore } from '../publish/content-store.ts'
import { readPageAsLive } from '../publish/live-site.ts'
import { Releases } from '../publish/manifest.ts'
import { pageContext, readAround, shownFiles } from '../publish/page-context.ts'
import type { PageRecords } from '../publish/page-records.ts'
import type { Services } from '../services.ts'
import type { ToSweep } from './sweep-process.ts'
import { listSweeps, type PageSweep } from './store.ts'

type Needed = Pick<Services, 'dataDir' | 'releases'>

/** What the pages that visitors see were made from; empty before anything was published. */
export async function liveRecords({ dataDir, releases }: Needed, siteId: string): Promise<PageRecords> {
  const known = new Releases(dataDir)
  const id = known.current(siteId)
  const names = (id !== undefined && known.manifest(id)?.records) || []
  return releases.parts.read(new ContentStore(dataDir), names)
}

/** The live pages that were not measured as they are now, in the order of the tree. */
export async function pagesToSweep(at: SiteData, records: PageRecords): Promise<readonly string[]> {
  const swept = new Map((await listSweeps(at)).map((one) => [one.pageId, one.madeFrom]))
  const pages = await listPages(at)
  return pages.flatMap(({ id }) => {
    const record = records.get(id)
    return record && swept.get(id) !== record.key ? [id] : []
  })
}

/** Draws a live page to be measured, with the files that it shows. */
export async function drawToSweep(
  { dataDir }: Needed,
  scope: SiteScope,
  pageId: string,
  records: PageRecords,
): Promise<ToSweep> {
  const { live, site, pages, library } = await scope.read(async (at) => ({
    ...(await readAround(at)),
    live: await readPageAsLive(at, pageId),
  }))
  const draft = { page: live.page, header: live.header, footer: live.footer, parts: live.parts ?? {} }
  const standing = pages.flatMap((page) => {
    const record = records.get(page.id)
    return record ? [drawnPage(withSettingsOf(page, record.settings))] : []
  })
  const context = pageContext(
    pageId,
    { draft, site, pages: standing, library },
    { prefix: '', pathOf: ({ path }) => path, purpose: 'measure' },
  )
  const recording = recordReads(context)
  const { title, description } = records.get(pageId)!.settings
  const { html } = renderPage({ ...draft, title, description }, defaultRegistry, recording.context, 'inline')
  const shown = shownFiles(recording.reads(), { library, look: context.look, dataDir })
  const files = [...shown].map(([path, file]) => ({
    path,
    file,
    type: getMimeType(path) ?? 'application/octet-stream',
  }))
  return { html, bounds: sizeBounds(context.look), files }
}

/** What is known of the gullies of all live pages, in the order of the tree. */
export async function listLiveGullies(
  at: SiteData,
  records: PageRecords,
): Promise<Pick<LiveGullies, 'pages'>> {
  const swept = new Map((await listSweeps(at)).map((one) => [one.pageId, one]))
  const live = (await listPages(at)).filter(({ id }) => records.has(id))
  // Of most pages nothing is wrong, and their documents say nothing.
  const wanted = live
    .filter(({ id }) => (swept.get(id)?.gullies ?? []).length > 0)
    .map(({ id }) => ({ documentId: id, number: records.get(id)!.version }))
  const documents = await findVersions(at, wanted, readDocument)
  const pages = live.map(({ id, title, path }): SweptLivePage => {
    const one: PageSweep | undefined = swept.get(id)
    const document = documents.get(id)
    const gullies = one?.gullies?.map((gully) => {
      const ignored = document && reasonToIgnore(ignoredGullies(document), document.root, gully)
      return ignored === undefined ? gully : { ...gully, ignored }
    })
    return {
      pageId: id,
      title,
      path,
      sweptAt: one?.sweptAt.toISOString() ?? null,
      isCurrent: one?.madeFrom === records.get(id)!.key,
      gullies: gullies ?? (one ? null : []),
    }
  })
  return { pages }
}
