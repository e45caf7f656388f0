/** The header and the footer, edited where they stand, in one undo line and one save with the page. */
import type { BrowserContext, Page } from '@playwright/test'
import type { Page as Document, PageSummary, SiteInfo } from '@gullyline/core'
import { canvasOf, expect, openPage, otherBrowser, test, type App } from './app.ts'
import { noFindings } from './axe.ts'

const siteOf = async (context: BrowserContext, app: App): Promise<SiteInfo> =>
  (await (await context.request.get(`${app.editor}/api/sites/tarrowmoor`)).json()) as SiteInfo
const pagesOf = async (context: BrowserContext, app: App): Promise<PageSummary[]> =>
  (await (await context.request.get(`${app.editor}/api/sites/tarrowmoor/pages`)).json()) as PageSummary[]

/** Puts header and footer back as they were, live as well. */
async function putBack(context: BrowserContext, app: App, before: SiteInfo): Promise<void> {
  const { shared } = await siteOf(context, app)
  const page = (await pagesOf(context, app)).find(({ id }) => id === 'tmvisit')!
  const section = (name: 'header' | 'footer', document: Document) => ({
    id: shared[name].id,
    base: shared[name].version,
    document,
  })
  const saved = await context.request.put(`${app.editor}/api/sites/tarrowmoor/pages/tmvisit/document`, {
    data: {
      base: page.version,
      shared: [section('header', before.header), section('footer', before.footer)],
      journal: null,
    },
  })
  expect(saved.status()).toBe(200)
  const { shared: now } = await siteOf(context, app)
  const live = await context.request.post(`${app.editor}/api/sites/tarrowmoor/pages/tmvisit/publish`, {
    data: {
      version: page.version,
      shared: Object.fromEntries(Object.values(now).map((one) => [one.id, one.version])),
    },
  })
  expect(live.status()).toBe(200)
}

async function expectOnEveryPage(page: Page, app: App, brand: string, line: string): Promise<void> {
  for (const { path, liveSince } of await pagesOf(page.context(), app)) {
    if (liveSince === null || path === '/404/') continue
    const html = await (await fetch(app.site + path)).text()
    expect([path, html.includes(`>${brand}</a>`), html.includes(line)]).toEqual([path, true, true])
  }
}

async function typeBrand(page: Page, brand: string): Promise<void> {
  await canvasOf(page).locator('.site-header .brand').dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type(brand)
  await page.keyboard.press('Escape')
}

const LINE = 'Run by volunteers, kept by its friends.'

test('by mouse: header and footer are changed from a page, undone with it, saved, published, and changed on every page', async ({
  page,
  app,
}) => {
  const before = await siteOf(page.context(), app)
  const canvas = await openPage(page, app, 'Visit')
  const details = page.getByRole('complementary', { name: 'Details' })
  const pages = await pagesOf(page.context(), app)
  const reach = `on ${pages.length} pages, ${pages.filter(({ liveSince }) => liveSince !== null).length} live`

  await typeBrand(page, 'Tarrowmoor Hill')
  await expect(details).toContainText(`Header: ${reach}`)
  await noFindings(page)
  const line = canvas.locator('.site-footer .text', { hasText: LINE })
  const words = await line.innerText()
  await line.dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type(' Come and')
  // What a busy machine keeps waiting is undone as one all the same.
  await page.evaluate(() => {
    const until = performance.now() + 1_500
    while (performance.now() < until);
  })
  await page.keyboard.type(' see.')
  await page.keyboard.press('Escape')
  await expect(details).toContainText(`Footer: ${reach}`)
  // A change of the page itself, which is taken back before it is saved: other tests find the page as it was.
  const heading = canvas.getByRole('heading', { name: 'What to bring' })
  await heading.dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Bring this')
  await page.keyboard.press('Escape')
  await expect(details.getByRole('note').filter({ hasText: /on \d+ pages/ })).toHaveCount(0)

  // One undo line: the page first, then the footer, then the header; and all of it again.
  const undo = page.getByRole('button', { name: /^Undo/ })
  await undo.click()
  await expect(canvas.getByRole('heading', { name: 'What to bring' })).toBeVisible()
  await undo.click()
  await expect(line).toHaveText(words)
  await undo.click()
  await expect(canvas.locator('.site-header .brand')).toHaveText('Tarrowmoor')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: /^Redo/ }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: 'Saved the header, for every page' })).toBeVisible()
  // What is saved and not published is seen by no visitor.
  expect(await (await fetch(`${app.site}/about/`)).text()).not.toContain('Tarrowmoor Hill')

  await page.getByRole('button', { name: 'Publish' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText(`The header goes live, too. Header: ${reach}.`)
  await expect(dialog).toContainText('The footer goes live, too.')
  await dialog.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  await expectOnEveryPage(page, app, 'Tarrowmoor Hill', 'Come and see.')
  await putBack(page.context(), app, before)
})

test('a publish that goes on is cancelled: visitors see what they saw, and asked for again it is done', async ({
  page,
  app,
}) => {
  const before = await siteOf(page.context(), app)
  let isHeld = true
  let letThrough = (): void => undefined
  const held = new Promise<void>((resolve) => (letThrough = resolve))
  await page.route('**/publish', async (route) => {
    if (isHeld) await held
    // What was cancelled is asked for by nobody any more.
    await route.continue().catch(() => undefined)
  })
  await openPage(page, app, 'About')
  await typeBrand(page, 'Tarrowmoor Dale')
  const publish = page.getByRole('button', { name: 'Publish', exact: true })
  const dialog = page.getByRole('dialog')
  await publish.click()
  await dialog.getByRole('button', { name: 'Save and publish' }).click()
  await expect(dialog.getByRole('progressbar', { name: 'Publishing' })).toBeVisible()
  await expect(dialog.getByRole('button', { name: /^(Save and publish|Publish)$/ })).toBeDisabled()
  await dialog.getByRole('button', { name: 'Cancel' }).click()
  await expect(dialog).toHaveCount(0)
  await expect(page.getByRole('status').filter({ hasText: 'Publishing was cancelled' })).toBeVisible()
  // What was saved first stays saved.
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  isHeld = false
  letThrough()
  expect(await (await fetch(`${app.site}/about/`)).text()).not.toContain('Tarrowmoor Dale')
  await publish.click()
  await dialog.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  expect(await (await fetch(`${app.site}/about/`)).text()).toContain('Tarrowmoor Dale')
  await putBack(page.context(), app, before)
})

test('by keyboard: the header before the first section, the footer after the last one, in one save', async ({
  page,
  app,
}) => {
  const before = await siteOf(page.context(), app)
  const canvas = await openPage(page, app, 'About')
  const details = page.getByRole('complementary', { name: 'Details' })
  await expect(page.getByRole('treeitem', { name: 'Header' })).toBeVisible()
  const press = async (...keys: readonly string[]): Promise<void> => {
    for (const key of keys) await page.keyboard.press(key)
  }
  await press('ArrowDown', 'ArrowUp')
  await expect(details.getByRole('heading', { level: 2, name: 'Header' })).toBeVisible()
  await press('Enter', 'Control+a')
  await page.keyboard.type('Tarrowmoor Ridge')
  await press('Escape', 'ArrowDown')
  await expect(details.getByRole('heading', { level: 2, name: 'Section' })).toBeVisible()
  const footer = page.getByRole('treeitem', { name: 'Footer' })
  for (let i = 0; i < 20 && (await footer.getAttribute('aria-selected')) !== 'true'; i++)
    await press('ArrowDown')
  await expect(details).toContainText(/Footer: on \d+ pages/)
  await press('ArrowRight', 'ArrowDown', 'Enter', 'End')
  await page.keyboard.type(' All of us.')
  await press('Escape')
  // What stands on every page can be neither deleted nor moved from one of them.
  await press('Escape', 'Delete')
  await expect(page.getByRole('status').filter({ hasText: 'The footer stays where it is' })).toBeVisible()
  await press('Control+z', 'Control+z')
  await expect(canvas.locator('.site-header .brand')).toHaveText('Tarrowmoor')
  await press('Control+Shift+z', 'Control+Shift+z', 'Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await press('Alt+p')
  await page.getByRole('dialog').getByRole('button', { name: 'Publish', exact: true }).press('Enter')
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  await expectOnEveryPage(page, app, 'Tarrowmoor Ridge', 'All of us.')
  await putBack(page.context(), app, before)
})

test('a stale save of the header is merged as that of a page is; what both changed is asked about', async ({
  page,
  app,
  browser,
}) => {
  const before = await siteOf(page.context(), app)
  const canvas = await openPage(page, app, 'Visit')
  const others = await otherBrowser(browser, app, 'editor')
  const other = await others.newPage()
  const otherCanvas = await openPage(other, app, 'Questions')
  const write = async (on: Page, words: string): Promise<void> => {
    await canvasOf(on).locator('.site-header .brand').dblclick()
    await on.keyboard.press('Control+a')
    await on.keyboard.type(words)
    await on.keyboard.press('Escape')
  }
  // The other one changes the footer from another page; here it is the header: both stay.
  await otherCanvas.locator('.site-footer .text', { hasText: LINE }).dblclick()
  await other.keyboard.press('End')
  await other.keyboard.type(' From afar.')
  await other.keyboard.press('Escape')
  await other.keyboard.press('Control+s')
  await expect(other.getByText('Saved', { exact: true })).toBeVisible()
  await write(page, 'Mine')
  const lane = canvas.locator('.site-footer .text', { hasText: 'Ridge Lane' })
  await lane.dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type(', top of the hill')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await expect(lane).toContainText('top of the hill')
  await expect(canvas.locator('.site-footer .text', { hasText: LINE })).toContainText('From afar.')
  // Now both change the name in the header.
  await write(other, 'Theirs')
  await other.keyboard.press('Control+s')
  const question = other.getByRole('dialog', { name: /changed the same/ })
  await expect(question).toContainText('Mine')
  await expect(question).toContainText('Theirs')
  await question.getByRole('radio', { name: /Tarn/ }).press('Space')
  await question.getByRole('button', { name: 'Use these and save' }).click()
  await expect(otherCanvas.locator('.site-header .brand')).toHaveText('Mine')
  await others.close()
  await putBack(page.context(), app, before)
})

test('edits of the header that were not saved are offered after the tab is gone, and done again', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  await canvas.locator('.site-header .brand').dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type(' again')
  await expect(page.getByText('1 edit not saved')).toBeVisible()
  const next = await page.context().newPage()
  await page.close({ runBeforeUnload: false })
  await next.goto(`${app.editor}/pages/tmvisit`)
  await next.getByRole('alertdialog').getByRole('button', { name: 'Continue editing' }).click()
  await expect(canvasOf(next).locator('.site-header .brand')).toHaveText('Tarrowmoor again')
  await next.keyboard.press('Control+z')
  await expect(canvasOf(next).locator('.site-header .brand')).toHaveText('Tarrowmoor')
})
