import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Context, Handler } from 'hono'
import { getCookie } from 'hono/cookie'
import { SESSION_COOKIE } from '../people/access.ts'

/** What the screen of one page asks for, one after another, once its scripts run. */
const ASKED_FOR = ['/api/session', '/api/site', '/api/pages', '/api/pages/ID', '/api/pages/ID/journal']
const PAGE_SCREEN = /^\/pages\/([a-z0-9]{1,24})$/

/**
 * The one HTML page of the editor, for the address of any screen. For the screen of a page it names what will be asked
 * for (HTML standard, "Link type preload"), so that the data come while the scripts do.
 */
export function editorPage(webDir: string): Handler {
  return async (context) => {
    const html = await readFile(join(webDir, 'index.html'), 'utf8')
    return context.html(html.replace('</head>', `${preloads(context)}</head>`))
  }
}

/** None for somebody who is not signed in: all of it would be refused. */
function preloads(context: Context): string {
  const id = PAGE_SCREEN.exec(context.req.path)?.[1]
  if (id === undefined || getCookie(context, SESSION_COOKIE) === undefined) return ''
  return ASKED_FOR.map(
    (path) => `<link rel="preload" as="fetch" crossorigin href="${path.replace('ID', id)}">`,
  ).join('')
}
