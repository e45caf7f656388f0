import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Context, Handler } from 'hono'
import { getCookie } from 'hono/cookie'
import { uprightFonts, type Look } from '@gullyline/core'
import { allSites, type SiteScope } from '../db/site-scope.ts'
import { cookieName } from '../people/access.ts'
import type { Services } from '../services.ts'
import { findSite } from '../documents/site-row.ts'

/** What of a site the screen of one page asks for, one after another, once its scripts run. */
const ASKED_FOR = ['', '/pages/ID', '/pages/ID/journal']
/** Screens of other sites than the first have the site's id before their address. */
const PAGE_SCREEN = /^(?:\/sites\/([a-z0-9]{1,24}))?\/pages\/([a-z0-9]{1,24})$/

/**
 * The one HTML page of the editor, for the address of any screen. For the screen of a page it names what will be asked
 * for (HTML standard, "Link type preload"): data come while the scripts do, and the page is laid out once, in its own
 * fonts. It also says which frame is shown until then.
 */
export function editorPage(webDir: string, services: Services): Handler {
  return async (context) => {
    const html = await readFile(join(webDir, 'index.html'), 'utf8')
    const isPage = PAGE_SCREEN.test(context.req.path)
    const links = (await preloads(context, services)) + (isPage ? await scriptsOfEditor(webDir) : '')
    const frame = isSignedIn(context, services) ? ` data-frame="${isPage ? 'page' : 'site'}"` : ''
    return context.html(
      html.replace('</head>', `${links}</head>`).replace('<div id="app"', `<div id="app"${frame}`),
    )
  }
}

interface Chunk {
  readonly file: string
  readonly name?: string
  readonly imports?: readonly string[]
}

/** What the build says of its files; see `manifest` in web/vite.config.ts. */
const MANIFEST = '.vite/manifest.json'
/** The name there of the file that a page opens with. */
const OPENS_WITH = 'editing'

/** The scripts of the editor, which come at once and not after those that ask for them; none where nothing was built. */
async function scriptsOfEditor(webDir: string): Promise<string> {
  const json = await readFile(join(webDir, MANIFEST), 'utf8').catch(() => '{}')
  const chunks = JSON.parse(json) as Readonly<Record<string, Chunk>>
  const files = new Set<string>()
  const add = (name: string): void => {
    const chunk = chunks[name]
    if (!chunk || files.has(chunk.file)) return
    files.add(chunk.file)
    for (const one of chunk.imports ?? []) add(one)
  }
  for (const [key, { name }] of Object.entries(chunks)) if (name === OPENS_WITH) add(key)
  return [...files].map((file) => `<link rel="modulepreload" crossorigin href="/${file}">`).join('')
}

/** None for somebody who is not signed in: all of it would be refused. */
async function preloads(context: Context, services: Services): Promise<string> {
  const [, named, id] = PAGE_SCREEN.exec(context.req.path) ?? []
  if (id === undefined || !isSignedIn(context, services)) return ''
  // None while there is no site: the screen says so itself.
  const site = (await allSites(services.db)).find(({ siteId }) => named === undefined || siteId === named)
  if (!site) return ''
  return [
    preload('fetch', '/api/session'),
    ...ASKED_FOR.map((path) => preload('fetch', `/api/sites/${site.siteId}${path.replace('ID', id)}`)),
    ...(await fontsOf(site, services)).map((file) => preload('font', `/fonts/${encodeURIComponent(file)}`)),
  ].join('')
}

/** As far as can be told without asking for the session: somebody else gets the form to sign in, which has no frame. */
function isSignedIn(context: Context, services: Services): boolean {
  return getCookie(context, cookieName(services)) !== undefined
}

function preload(as: 'fetch' | 'font', href: string): string {
  return `<link rel="preload" as="${as}" crossorigin href="${href}">`
}

/** The fonts of a site. */
async function fontsOf(site: SiteScope, { revisions, answers }: Services): Promise<string[]> {
  const revision = (await revisions.now()).get(`${site.siteId}/site`) ?? ''
  const make = async (): Promise<string[]> => uprightFonts((await site.read(findSite)).look as Look)
  return JSON.parse(await answers.get(`fonts of ${site.siteId}`, revision, make)) as string[]
}
