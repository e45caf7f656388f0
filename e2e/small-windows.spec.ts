/** Small windows: a screen of 1280 by 800 at twice its size, and long words on a phone (WCAG 2.2, 1.4.10 Reflow). */
import type { PageSummary } from '@gullyline/core'
import type { Page } from '@playwright/test'
import { canvasOf, expect, openPage, test } from './app.ts'

test.use({ viewport: { width: 640, height: 400 } })

const overflow = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)

test('at twice its size every screen fits its window, and its main act is in view', async ({ page, app }) => {
  for (const [path, heading, act] of [
    ['/', 'Pages', 'Add page'],
    ['/media-library', 'Media', 'Upload'],
    ['/navigation', 'Navigation', 'Add link'],
    ['/settings', 'Settings', /choose/i],
    ['/sites-and-people', 'Sites and people', undefined],
    ['/bin', 'Bin', undefined],
    ['/help', 'Help', undefined],
  ] as const) {
    await page.goto(app.editor + path)
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible()
    expect([path, await overflow(page)]).toEqual([path, 0])
    if (act === undefined) continue
    const button = page.getByRole('button', { name: act }).first()
    await button.scrollIntoViewIfNeeded()
    await expect(button).toBeInViewport({ ratio: 1 })
  }
})

test('at twice its size a page is added, edited and saved, and its details lie over it when they are wanted', async ({
  page,
  app,
}) => {
  await page.goto(app.editor)
  await page.getByRole('button', { name: 'Add page' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add page' })
  await expect(dialog.getByRole('button', { name: 'Add page' })).toBeInViewport({ ratio: 1 })
  await dialog.getByRole('button', { name: 'Cancel' }).click()
  const canvas = await openPage(page, app, 'Schools')
  const details = page.getByRole('complementary', { name: 'Details' })
  await expect(page.getByRole('button', { name: 'Show details' })).toBeInViewport({ ratio: 1 })
  await expect(details).toHaveCount(0)
  for (const name of ['Line-up', 'Save', 'Publish'])
    await expect(page.getByRole('button', { name, exact: true })).toBeInViewport({ ratio: 1 })
  await expect(page.getByRole('button', { name: /^All commands/ })).toBeInViewport({ ratio: 1 })
  await canvas.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('Alt+Enter')
  await expect(details).toBeInViewport({ ratio: 1 })
  const text = details.getByRole('textbox', { name: 'Text', exact: true })
  const before = await text.inputValue()
  await text.fill('Schools, seen small')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeInViewport({ ratio: 1 })
  await expect(canvasOf(page).getByRole('heading', { level: 1 })).toHaveText('Schools, seen small')
  await text.fill(before)
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Hide details' }).click()
  await expect(details).toHaveCount(0)
})

/** Longer than a phone is wide, in one word that is hyphenated nowhere. */
const LONG = 'Donaudampfschifffahrtsgesellschaftskapitänswitwenrente'

test('on a phone no live page is wider than the screen, were every text one long word', async ({
  page,
  app,
}) => {
  await page.setViewportSize({ width: 320, height: 640 })
  const pages = (await (
    await page.context().request.get(`${app.editor}/api/sites/tarrowmoor/pages`)
  ).json()) as PageSummary[]
  const live = pages.filter(({ path, liveSince }) => liveSince !== null && path !== '/404/')
  expect(live.length).toBeGreaterThan(10)
  for (const { path } of live) {
    await page.goto(app.site + path)
    await page.evaluate((long) => {
      const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
      while (texts.nextNode()) {
        const { currentNode: text } = texts
        const isShown = !text.parentElement?.closest('svg, script, style')
        if (isShown && text.textContent?.trim()) text.textContent = long
      }
    }, LONG)
    expect([path, await overflow(page)]).toEqual([path, 0])
  }
})
