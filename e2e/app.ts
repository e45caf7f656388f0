/** The real application for browser tests: its own MariaDB, its own ports, the production build, the sample site. */
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  test as base,
  expect,
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
  /** Drops what a test before left unsaved: the server would offer it to this one. */
  forgetJournals(): Promise<void>
}

async function startApp(): Promise<App & { stop(): Promise<void> }> {
  const home = await mkdtemp(join(tmpdir(), 'gullyline-e2e-'))
  await copySampleHome(home)
  const [databasePort, editorPort, sitePort] = [await freePort(), await freePort(), await freePort()]
  let database: Database
  let server: RunningServer
  const environment = () => ({
    GULLYLINE_DATABASE_URL: database.url,
    GULLYLINE_DATA: home,
    GULLYLINE_PICTURE_EFFORT: '0',
    GULLYLINE_EDITOR_PORT: String(editorPort),
    GULLYLINE_SITE_PORT: String(sitePort),
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

/** `app` is shared by the tests of a file; any error in the browser's console fails the test. */
export const test = base.extend<{ watched: void; isMeasuring: boolean }, { app: App }>({
  // Measuring a page for its gullies is work that most tests have no use for.
  isMeasuring: [false, { option: true }],
  app: [
    // oxlint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const app = await startApp()
      await use(app)
      await app.stop()
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  watched: [
    async ({ page, app, isMeasuring }, use) => {
      if (!isMeasuring)
        await page.addInitScript(() => {
          // Frames without an origin have no storage.
          if (window.origin !== 'null') localStorage.setItem('gullyline.measuring', 'off')
        })
      await signIn(page.context(), app)
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
      await page.close()
    },
    { auto: true },
  ],
})

/** Playwright's own scripts are kept out by the sandbox of our frames; refusals of the server are told to the person. */
const EXPECTED = [
  /Blocked script execution in '[^']*' because the document's frame is sandboxed/,
  /status of 4\d\d/,
  /ERR_(CONNECTION_REFUSED|FAILED|INTERNET_DISCONNECTED|INCOMPLETE_CHUNKED_ENCODING)/,
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
  const canvas = canvasOf(page)
  await expect(canvas.getByRole('main')).toBeAttached()
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
