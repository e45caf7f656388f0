/** A page as another device is shown it: what visitors would get of the draft, with addresses below the private one. */
import { defaultRegistry, drawnPage, recordReads, renderPage, settingsOf } from '@gullyline/core'
import type { SiteData } from '../db/site-scope.ts'
import type { JournalKey } from '../journal/store.ts'
import { pageContext, readAround, shownFiles, type ToDraw } from '../publish/page-context.ts'
import { readDraft } from './draft.ts'

/** Where links to other pages lead, below the private address: it shows one page alone. */
const ELSEWHERE = 'other-page'
export const STYLE_FILE = 'page.css'
export const SCRIPT_FILE = 'page.js'

export interface DevicePage {
  readonly html: string
  readonly css: string
  readonly script: string
  /** The files that it shows, in the data folder, by their addresses below the private one. */
  readonly files: ReadonlyMap<string, string>
}

/** Reads all that a page is drawn from, as it stands in a tab. */
export async function readToDraw(at: SiteData, key: JournalKey): Promise<ToDraw> {
  const { pages, ...around } = await readAround(at)
  return { ...around, pages: pages.map(drawnPage), draft: await readDraft(at, key) }
}

interface Below {
  /** The path of the private address, with a slash at both ends. */
  readonly base: string
  /** Another value after each change, which the page asks by whether there is a newer one. */
  readonly mark: string
  readonly dataDir: string
}

export function drawDevicePage(pageId: string, toDraw: ToDraw, { base, mark, dataDir }: Below): DevicePage {
  const { draft, library } = toDraw
  const { page, header, footer } = draft
  const { title, description } = settingsOf(page)
  const context = pageContext(pageId, toDraw, {
    prefix: base.slice(0, -1),
    pathOf: ({ id }) => (id === pageId ? base : base + ELSEWHERE),
    purpose: 'publish',
  })
  const recording = recordReads(context)
  const { html, css, script } = renderPage(
    { page, header, footer, title, description, isListed: false },
    defaultRegistry,
    recording.context,
    (_content, type) => ({ href: `${base}${type === 'css' ? STYLE_FILE : SCRIPT_FILE}?${mark}` }),
  )
  const files = shownFiles(recording.reads(), { library, look: context.look, dataDir })
  return { html: withFollowing(html, base, mark), css, script, files }
}

/** The document with the script that asks for newer ones. */
function withFollowing(html: string, base: string, mark: string): string {
  return html.replace('</head>', `<script src="${base}follow.js" data-mark="${mark}" defer></script></head>`)
}
