/** The pictures of docs/screenshots, taken of the sample site: `npm run screenshots`. */
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { defaultRegistry, renderPage } from '@gullyline/core'
import { contactSheet } from './contact-sheet.ts'
import { canvasOf, expect, openPage, signIn, test, type App } from './app.ts'

test.use({ isMeasuring: true, isAppOwn: true })

const folder = join(import.meta.dirname, '../docs/screenshots')
/** Time for pictures inside frames to be decoded and for motion to end. */
const SETTLE_MS = 900

test('pictures of every main view', async ({ page, app }) => {
  const take = async (name: string): Promise<void> => {
    await page.waitForTimeout(SETTLE_MS)
    await page.screenshot({ path: join(folder, `${name}.png`) })
  }
  await app.startSweeping()
  await page.context().clearCookies()
  await page.goto(app.editor)
  await expect(page.getByRole('heading', { name: 'Sign in to Gullyline' })).toBeVisible()
  await signIn(page.context(), app)
  await page.goto(app.editor)
  await expect(page.getByRole('heading', { name: 'Pages' })).toBeVisible()
  await take('pages')
  await page.getByRole('button', { name: 'Add page' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill('Night of the Moon')
  await page.keyboard.press('Escape')
  await page.goto(`${app.editor}/media-library`)
  await page.getByRole('list', { name: 'Pictures' }).getByRole('button').first().click()
  await take('media')
  await page.goto(`${app.editor}/settings`)
  await expect(page.getByRole('heading', { level: 1, name: 'Settings' })).toBeVisible()
  await page.getByRole('button', { name: 'Divide narrow' }).scrollIntoViewIfNeeded()
  await take('settings')
  const canvas = await openPage(page, app, 'Tarrowmoor Observatory')
  await canvas.getByRole('heading', { name: 'The Moon at first quarter' }).click()
  await take('editor')
  const radio = await openPage(page, app, 'The radio dish')
  await radio.getByRole('heading', { name: 'A week of listening' }).click()
  const counter = page.getByRole('button', { name: /at 1,601 widths/ })
  await counter.click()
  await take('gullyline')
  await page.getByRole('button', { name: 'Chart by width…' }).click()
  await expect(page.getByRole('row', { name: /^narrow .* kB$/ })).toBeVisible()
  await take('chart')
  await page.keyboard.press('Escape')
  const nights = await openPage(page, app, 'Open nights')
  await nights.getByText('Ten minutes in the dark').click()
  await page.keyboard.press('Alt+N')
  const stone = (await nights.locator('.grid .cells > *').nth(1).boundingBox())!
  await page.mouse.move(stone.x + 150, stone.y + 8)
  await page.mouse.down()
  await page.mouse.move(stone.x - 70, stone.y + 10, { steps: 10 })
  await take('grid')
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await openPage(page, app, 'Tarrowmoor Observatory')
  await page.getByRole('button', { name: 'Add to page' }).click()
  // As many as are in view: each is drawn when there is time.
  await expect(page.getByRole('region', { name: 'Shelf' }).locator('[data-picture]').nth(20)).toBeVisible()
  await take('shelf')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Line-up' }).click()
  await take('line-up')
  const visit = await openPage(page, app, 'Visit')
  await visit.getByText('when the sky is clear').dblclick()
  await page.keyboard.press('Escape')
  await take('shared-section')
  await page.keyboard.press('Escape')
  await visit.getByRole('heading', { level: 1 }).dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Come at dusk')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Line-up' }).click()
  await page.getByRole('button', { name: 'With live' }).click()
  await expect(page.getByText('1 block differs.')).toBeVisible()
  await take('comparison')
  await page.getByRole('button', { name: 'Back to the page' }).click()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  const tonight = await openPage(page, app, 'Tonight’s sky')
  await tonight.getByRole('heading', { name: 'Saturn' }).click()
  await take('component')
  await page.goto(`${app.editor}/gullies`)
  await expect(page.getByRole('status')).toHaveText(/live pages from 320 to 1920 px/, { timeout: 180_000 })
  await take('live-gullies')
  await page.goto(`${app.editor}/reach-map?of=tmhours`)
  await expect(page.getByRole('list', { name: 'Shown on' })).toBeVisible()
  await take('reach-map')
  await page.goto(`${app.editor}/library?part=tmjoin`)
  await expect(page.getByRole('list', { name: 'Pages that show it' })).toBeVisible()
  await take('library')
  await takeImport(page, app)
  await take('import')
  await page.keyboard.press('Escape')
  await page.goto(app.site)
  await take('live-page')
})

/** A package that a second site has had before, as its administrator looks at it. */
async function takeImport(page: Page, app: App): Promise<void> {
  const { request } = page.context()
  const body = {
    name: 'Tarrow Friends',
    language: 'en',
    host: 'friends.localhost',
    like: 'tarrowmoor',
    people: [],
  }
  const { id } = (await (await request.post(`${app.editor}/api/sites`, { data: body })).json()) as {
    id: string
  }
  const pack = async (query: string): Promise<Buffer> =>
    (await request.get(`${app.editor}/api/sites/tarrowmoor/export?${query}`)).body()
  const give = async (buffer: Buffer): Promise<void> => {
    await page.getByRole('button', { name: 'Import a package…' }).click()
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Choose a file…' }).click()
    await (await chooser).setFiles({ name: 'a.zip', mimeType: 'application/zip', buffer })
    await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeEnabled()
  }
  await page.goto(`${app.editor}/sites/${id}/library`)
  await give(await pack('part=tmjoin&part=tmhours'))
  await page.getByRole('button', { name: 'Import', exact: true }).click()
  await page.getByRole('button', { name: 'Close' }).click()
  await give(await pack('page=tmvisit&part=tmsky'))
}

test('two people on one page', async ({ page, app, browser }) => {
  const other = await browser.newContext()
  await signIn(other, app, 'editor')
  const ines = await other.newPage()
  const retitle = async (on: typeof page, words: string): Promise<void> => {
    await canvasOf(on).getByRole('heading', { level: 1 }).dblclick()
    await on.keyboard.press('Control+a')
    await on.keyboard.type(words)
    await on.keyboard.press('Escape')
  }
  await openPage(page, app, 'Questions')
  await openPage(ines, app, 'Questions')
  await retitle(ines, 'What people ask us')
  await retitle(page, 'Asked at the dome')
  await ines.keyboard.press('Control+s')
  await expect(ines.getByText('Saved', { exact: true })).toBeVisible()
  await page.keyboard.press('Control+s')
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.waitForTimeout(SETTLE_MS)
  await page.screenshot({ path: join(folder, 'conflicts.png') })
  await other.close()
})

test('every block kind in all its variants', async ({ page, app }) => {
  const { page: sheet, context } = contactSheet()
  const parts = { page: sheet, title: 'Every block', description: '' }
  const { html } = renderPage(parts, defaultRegistry, context, 'inline')
  // At an address of the site, whose fonts it has, but without its policy, which allows no stylesheet inside.
  await page.route(`${app.site}/sheet`, (route) => route.fulfill({ body: html, contentType: 'text/html' }))
  await page.goto(`${app.site}/sheet`)
  await page.waitForTimeout(SETTLE_MS)
  await page.screenshot({ path: join(folder, 'contact-sheet.png'), fullPage: true })
})
