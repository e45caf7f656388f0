/** The real application for browser tests: its own MariaDB, its own ports, the production build, the sample site. */
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  test as base,
  expect,
  type Browser,
  type BrowserContext,
  type FrameLocator,
  type Locator,
  type Page,
} from '@playwright/test'
import type { PageSummary, Role } from '@gullyline/core'
import { createConnection } from 'mysql2/promise'
import { startMariadb, type Database } from '../scripts/lib/mariadb.mjs'
import { freePort } from '../scripts/lib/ports.mjs'
import { copySampleHome } from '../scripts/lib/sample-home.mjs'
import './stacks.ts'
import { KeptTab } from './tab.ts'
import { startServer, type RunningServer } from '../scripts/lib/server.mjs'

interface Account {
  readonly login: string
  readonly name: string
  readonly role: Role
  readonly password: string
}

export interface App {
  readonly editor: string
  readonly site: string
  /** The sample accounts. */
  readonly accounts: readonly Account[]
  /** Kills the server as a power cut does, and starts it again. */
  crash(): Promise<void>
  /** Stops server and database and starts both again on the same data. */
  restart(): Promise<void>
  /** Measures live pages from now on. Only in a file that has the application for itself: it goes on with it. */
  startSweeping(): Promise<void>
  /** Drops what a test before left unsaved: the server would offer it to this one. */
  forgetJournals(): Promise<void>
}

async function startApp(isOwn: boolean): Promise<App & { stop(): Promise<void> }> {
  const home = await mkdtemp(join(tmpdir(), 'gullyline-e2e-'))
  await copySampleHome(home)
  const [databasePort, editorPort, sitePort, devicePort] = [
    await freePort(),
    await freePort(),
    await freePort(),
    await freePort(),
  ]
  let database: Database
  let server: RunningServer
  let isSweeping = false
  const environment = () => ({
    GULLYLINE_DATABASE_URL: database.url,
    GULLYLINE_DATA: home,
    GULLYLINE_PICTURE_EFFORT: '0',
    GULLYLINE_EDITOR_PORT: String(editorPort),
    GULLYLINE_SITE_PORT: String(sitePort),
    GULLYLINE_DEVICE_PORT: String(devicePort),
    GULLYLINE_SWEEP: isSweeping ? 'yes' : 'no',
    GULLYLINE_WEB_DIR: join(import.meta.dirname, '../web/dist'),
  })
  const start = async (): Promise<void> => {
    database = await startMariadb(join(home, 'database'), databasePort)
    await startServerAgain()
  }
  const startServerAgain = async (): Promise<void> => {
    server = startServer(environment())
    await server.ready
  }
  const stop = async (): Promise<void> => {
    await server.stop()
    await database.stop()
  }
  await start()
  return {
    editor: `http://127.0.0.1:${editorPort}`,
    site: `http://localhost:${sitePort}`,
    accounts: JSON.parse(await readFile(join(home, 'demo-accounts.json'), 'utf8')) as Account[],
    crash: async () => {
      await server.kill()
      await startServerAgain()
    },
    restart: async () => {
      await stop()
      await start()
    },
    startSweeping: async () => {
      if (!isOwn) throw new Error('Others use this application: set isAppOwn')
      isSweeping = true
      await server.stop()
      await startServerAgain()
    },
    forgetJournals: async () => {
      const connection = await createConnection(database.url)
      await connection.query('DELETE FROM journal_entries')
      await connection.end()
    },
    stop: async () => {
      await stop()
      await rm(home, { recursive: true, force: true })
    },
  }
}

interface OfTest {
  readonly watched: void
  readonly isMeasuring: boolean
  readonly isTabKept: boolean
}

interface OfWorker {
  readonly app: App
  readonly isAppOwn: boolean
  readonly keptTab: KeptTab
}

/** `app` is shared by the tests of a worker; any error in the browser's console fails the test. */
export const test = base.extend<OfTest, OfWorker>({
  // A file that changes what others rely on has an application for itself.
  isAppOwn: [false, { option: true, scope: 'worker' }],
  // Measuring a page for its gullies is work that most tests have no use for.
  isMeasuring: [false, { option: true }],
  // Not for tests that begin with an empty page, or do to it what can't be taken back: scripts that run in every document.
  isTabKept: [true, { option: true }],
  keptTab: [
    async ({ browser }, use) => {
      const tab = new KeptTab(browser)
      await use(tab)
      await tab.close()
    },
    { scope: 'worker' },
  ],
  page: async ({ app, browser, keptTab, isTabKept, viewport }, use) => {
    if (!isTabKept) {
      const context = await browser.newContext()
      await use(await context.newPage())
      await context.close()
      return
    }
    const page = await keptTab.open(app)
    await page.setViewportSize(viewport!)
    await use(page)
    await keptTab.clear(app)
  },
  context: async ({ page }, use) => use(page.context()),
  app: [
    async ({ isAppOwn }, use) => {
      const app = await startApp(isAppOwn)
      await use(app)
      await app.stop()
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  watched: [
    async ({ page, app, isMeasuring, isTabKept }, use) => {
      if (!isMeasuring && isTabKept)
        await page.evaluate(() => localStorage.setItem('gullyline.measuring', 'off'))
      else if (!isMeasuring) await doNotMeasure(page.context())
      await comeBack(page.context(), app)
      // Not right after a test: what a page sends as it is closed comes a moment later.
      await app.forgetJournals()
      const errors: string[] = []
      page.on('pageerror', (error) => errors.push(error.message))
      page.on('console', (message) => {
        if (message.type() === 'error' && !EXPECTED.some((pattern) => pattern.test(message.text())))
          errors.push(message.text())
      })
      await use()
      expect(errors).toEqual([])
    },
    { auto: true },
  ],
})

/** Playwright's own scripts are kept out by the sandbox of our frames; refusals of the server are told to the person. */
const EXPECTED = [
  /Blocked script execution in '[^']*' because the document's frame is sandboxed/,
  /status of 4\d\d/,
  // What a test puts into a page to see that it does not run.
  /^(Executing inline|Loading the script|Running the JavaScript URL).* violates the following Content Security Policy/,
  // What kept a screen from being shown is told on it as well.
  /Failed to fetch a file of a module/,
  /ERR_(CONNECTION_REFUSED|CONNECTION_RESET|EMPTY_RESPONSE|FAILED|INTERNET_DISCONNECTED|INCOMPLETE_CHUNKED_ENCODING)/,
]

export { expect }

/** Where these words are asked for on the canvas. */
export function asking(within: FrameLocator | Locator, prompt: string): Locator {
  return within.locator(`[data-prompt="${prompt}"]`)
}

/** Signs a browser in as somebody of this role. Done without the screen, which has tests of its own. */
export async function signIn(context: BrowserContext, app: App, role: Role = 'keeper'): Promise<void> {
  const { login, password } = app.accounts.find((one) => one.role === role)!
  const answer = await context.request.post(`${app.editor}/api/session`, { data: { login, password } })
  expect(answer.status()).toBe(201)
}

/** The browser of somebody else, who is signed in. Measuring a page for its gullies is work that most tests have no use for. */
export async function otherBrowser(browser: Browser, app: App, role?: Role): Promise<BrowserContext> {
  const context = await browser.newContext()
  await doNotMeasure(context)
  await signIn(context, app, role)
  return context
}

async function doNotMeasure(context: BrowserContext): Promise<void> {
  await context.addInitScript(() => {
    // Frames without an origin have no storage.
    if (window.origin !== 'null') localStorage.setItem('gullyline.measuring', 'off')
  })
}

/** The cookies of the keeper who signed in first, by the application. */
const signedIn = new WeakMap<App, Awaited<ReturnType<BrowserContext['cookies']>>>()

/** Opens a browser as the keeper, who is still signed in unless a test has ended that. */
async function comeBack(context: BrowserContext, app: App): Promise<void> {
  const known = signedIn.get(app)
  if (known) await context.addCookies(known)
  if (known && (await context.request.get(`${app.editor}/api/session`)).ok()) return
  await signIn(context, app)
  signedIn.set(app, await context.cookies())
}

/** The page inside the canvas. */
export function canvasOf(page: Page): FrameLocator {
  return page.frameLocator('iframe[title^="The page,"]')
}

/** Opens a page of the site at its address in the editor, and waits until it can be worked on. */
export async function openPage(page: Page, app: App, title: string): Promise<FrameLocator> {
  const pages = (await (
    await page.context().request.get(`${app.editor}/api/sites/tarrowmoor/pages`)
  ).json()) as PageSummary[]
  await page.goto(`${app.editor}/pages/${pages.find((one) => one.title === title)!.id}`)
  return untilWhole(page)
}

/** Waits for all of the page that is opened: the end of a long one comes after its beginning was painted. */
export async function untilWhole(page: Page): Promise<FrameLocator> {
  const canvas = canvasOf(page)
  await expect(canvas.getByRole('contentinfo')).toBeAttached()
  return canvas
}

/** The centre of an element inside the canvas, in the coordinates of the window. */
export async function centreOf(
  locator: ReturnType<FrameLocator['locator']>,
): Promise<{ x: number; y: number; height: number }> {
  await locator.scrollIntoViewIfNeeded()
  const box = await locator.boundingBox()
  if (!box) throw new Error('The element is not laid out')
  return { x: box.x + box.width / 2, y: box.y + box.height / 2, height: box.height }
}

/** Drags as a hand does: presses, moves in steps, and lets go unless `hold` is given. */
export async function drag(
  page: Page,
  from: { x: number; y: number },
  to: { x: number; y: number },
  hold = false,
): Promise<void> {
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 })
  await page.mouse.move(to.x, to.y, { steps: 4 })
  if (!hold) await page.mouse.up()
}
