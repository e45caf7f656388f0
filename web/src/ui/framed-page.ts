/** Pages in frames: laid out by the browser as for visitors, and running nothing of their own. */
import type { Stylesheet } from '@gullyline/core'

/**
 * What such a frame may do. Scripts are allowed for the editor's listeners: WebKit calls none in a document whose sandbox
 * forbids scripts, and the page would hear no press and no key. Those of the page are forbidden by its policy, below.
 */
export const PAGE_SANDBOX = 'allow-same-origin allow-scripts'

/** No script of the page runs: no file, no element, no handler in an attribute, no address (Content Security Policy Level 3, "script-src"). */
const RUNS_NOTHING = `<meta http-equiv="Content-Security-Policy" content="script-src 'none'">`

/**
 * A scrollbar that takes room would lay the page out narrower than the ruler says, and than its gullies are measured at. On
 * phones none does.
 */
const NO_SCROLLBAR = '<style>html{scrollbar-width:none}</style>'

const HEAD = `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8">${RUNS_NOTHING}<title>Page</title>${NO_SCROLLBAR}`

/** The source of a frame that a page is put into afterwards. */
export const EMPTY_PAGE = `${HEAD}</head><body></body></html>`

/** The source of a frame with a page in it, which jumps where it is scrolled to. */
export function framedPage({ fonts, rules }: Stylesheet, body: string): string {
  return `${HEAD}<style>${fonts}</style><style>${rules}html{scroll-behavior:auto}</style></head>${body}`
}
