import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Context, Handler } from 'hono'
import { getCookie } from 'hono/cookie'
import { uprightFonts, type Look } from '@gullyline/core'
import { transact } from '../db/transact.ts'
import { cookieName } from '../people/access.ts'
import type { Services } from '../services.ts'
import { findSite } from '../sites/store.ts'

/** What the screen of one page asks for, one after another, once its scripts run. */
const ASKED_FOR = ['/api/session', '/api/site', '/api/pages', '/api/pages/ID', '/api/pages/ID/journal']
const PAGE_SCREEN = /^\/pages\/([a-z0-9]{1,24})$/

/**
 * The one HTML page of the editor, for the address of any screen. For the screen of a page it names what will be asked
 * for (HTML standard, "Link type preload"): data come while the scripts do, and the page is laid out once, in its own
 * fonts.
 */
export function editorPage(webDir: string, services: Services): Handler {
  return async (context) => {
    const html = await readFile(join(webDir, 'index.html'), 'utf8')
    return context.html(html.replace('</head>', `${await preloads(context, services)}</head>`))
  }
}

/** None for somebody who is not signed in: all of it would be refused. */
async function preloads(context: Context, services: Services): Promise<string> {
  const id = PAGE_SCREEN.exec(context.req.path)?.[1]
  if (id === undefined || getCookie(context, cookieName(services)) === undefined) return ''
  return [
    ...ASKED_FOR.map((path) => preload('fetch', path.replace('ID', id))),
    ...(await fontsOf(services)).map((file) => preload('font', `/fonts/${encodeURIComponent(file)}`)),
  ].join('')
}

function preload(as: 'fetch' | 'font', href: string): string {
  return `<link rel="preload" as="${as}" crossorigin href="${href}">`
}

/** The fonts of the site. None while there is no site: the screen says so itself. */
async function fontsOf({ db, answers }: Services): Promise<string[]> {
  const make = async (): Promise<string[]> => uprightFonts((await transact(db, findSite)).look as Look)
  return JSON.parse(await answers.get('fonts', make).catch(() => '[]')) as string[]
}
