/**
 * One tab that the tests of a worker use one after another. Opened again in the same process, the editor takes half the
 * work: its code is compiled, and its files are at hand.
 */
import type { Browser, Page } from '@playwright/test'

/** Where a tab rests between tests: a file of the editor's own origin, so that the process stays. */
const REST = '/mark.svg'
const LISTENED_TO = [
  'console',
  'dialog',
  'download',
  'filechooser',
  'framenavigated',
  'pageerror',
  'popup',
  'request',
  'requestfailed',
  'requestfinished',
  'response',
  'websocket',
  'worker',
] as const

interface Origins {
  readonly editor: string
  readonly site: string
}

export class KeptTab {
  readonly #browser: Browser
  #page: Page | undefined

  constructor(browser: Browser) {
    this.#browser = browser
  }

  /** Gives the tab at rest, in a browser that nobody has used. */
  async open({ editor }: Origins): Promise<Page> {
    if (this.#page?.isClosed() !== false) {
      await this.close()
      this.#page = await (await this.#browser.newContext()).newPage()
      await this.#page.goto(editor + REST)
    }
    return this.#page
  }

  /** Forgets what a test left in the tab and in its browser. What can't be taken back needs a tab of its own. */
  async clear({ editor, site }: Origins): Promise<void> {
    const page = this.#page
    if (!page || page.isClosed()) return
    const context = page.context()
    for (const event of LISTENED_TO) page.removeAllListeners(event)
    context.removeAllListeners('page')
    const others = context.pages().filter((other) => other !== page)
    await Promise.all(others.map((other) => other.close()))
    await page.unrouteAll({ behavior: 'ignoreErrors' })
    await context.unrouteAll({ behavior: 'ignoreErrors' })
    await context.setOffline(false)
    await page.mouse.up()
    // First, since leaving may write once more.
    await page.goto(editor + REST)
    await page.evaluate(() => sessionStorage.clear())
    const protocol = await context.newCDPSession(page)
    for (const origin of [editor, site])
      await protocol.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' })
    await protocol.detach()
    await context.clearCookies()
    await context.clearPermissions()
    await page.emulateMedia({ media: null, colorScheme: null, reducedMotion: null, forcedColors: null })
  }

  async close(): Promise<void> {
    await this.#page?.context().close()
    this.#page = undefined
  }
}
