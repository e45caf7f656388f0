/** The gullies of all live pages, measured by the server with the machine's Chromium, and opened from their list. */
import type { LiveGullies } from '@gullyline/core'
import { noFindings } from './axe.ts'
import { expect, test, untilWhole, type App } from './app.ts'
import { api } from './shared-pages.ts'
import type { Page } from '@playwright/test'

test.use({ isAppOwn: true })

async function known(page: Page, app: App): Promise<LiveGullies> {
  return (await (await page.context().request.get(`${api(app)}/gullies`)).json()) as LiveGullies
}

test('all live pages are measured once, those that change again, and each gully is opened where it is', async ({
  page,
  app,
}) => {
  test.slow()
  // Some are enough.
  const all = await known(page, app)
  for (const { pageId, path } of all.pages.filter(({ path }) => !/^\/($|404|instruments\/radio)/.test(path)))
    expect([
      path,
      (await page.context().request.post(`${api(app)}/pages/${pageId}/unpublish`, { data: {} })).status(),
    ]).toEqual([path, 200])
  await app.startSweeping()
  await page.goto(`${app.editor}/`)
  await page
    .getByRole('navigation', { name: 'Screens' })
    .getByRole('link', { name: 'Gullies' })
    .press('Enter')
  const main = page.getByRole('main')
  await expect(main.getByRole('status')).toHaveText(/live pages from 320 to 1920 px/, { timeout: 120_000 })
  await noFindings(page)
  const before = await known(page, app)
  expect(before.measuring).toBe('on')
  expect(before.pages.length).toBe(3)
  expect(before.pages.every(({ isCurrent, gullies }) => isCurrent && gullies !== null)).toBe(true)

  // The sample site leaves three on one page for newcomers to find, and is whole elsewhere.
  expect(before.pages.filter(({ gullies }) => gullies!.length > 0).map(({ title }) => title)).toEqual([
    'The radio dish',
  ])
  const dish = main.getByRole('region', { name: 'The radio dish' })
  await expect(dish.getByRole('listitem')).toHaveCount(3)
  const { gullies } = before.pages.find(({ title }) => title === 'The radio dish')!
  const [first] = gullies!
  await dish
    .getByRole('link', { name: /^Open The radio dish at \d+ pixels/ })
    .first()
    .click()
  await untilWhole(page)
  const width = Math.round((first!.from + first!.to) / 2)
  await expect(page.getByRole('slider', { name: 'Width of the page' })).toHaveAttribute(
    'aria-valuenow',
    String(width),
  )
  await expect(page).toHaveURL(/\/pages\/[a-z0-9]+$/)
  const selected = page.getByRole('treeitem', { selected: true })
  if (first!.nodeId !== undefined) await expect(selected).toHaveCount(1)

  // An address that nobody was given asks for no more than there is.
  const { pageId } = before.pages.find(({ title }) => title === 'The radio dish')!
  await page.goto(`${app.editor}/pages/${pageId}?width=99999&block=nosuch/nowhere`)
  await expect(page.getByRole('slider', { name: 'Width of the page' })).toHaveAttribute(
    'aria-valuenow',
    '1920',
  )
  await expect(selected).toHaveCount(0)

  // What changes for visitors is measured again, and nothing else is.
  const renamed = await page.context().request.patch(`${api(app)}/pages/${pageId}`, {
    data: { description: 'Measured again.' },
  })
  const { version } = (await renamed.json()) as { version: number }
  const published = await page
    .context()
    .request.post(`${api(app)}/pages/${pageId}/publish`, { data: { version } })
  expect(published.status(), await published.text()).toBe(200)
  await expect
    .poll(
      async () => {
        const now = await known(page, app)
        const own = now.pages.find((one) => one.pageId === pageId)!
        return own.isCurrent && own.sweptAt !== before.pages.find((one) => one.pageId === pageId)!.sweptAt
      },
      { timeout: 120_000 },
    )
    .toBe(true)
  const after = await known(page, app)
  const times = ({ pages }: LiveGullies) =>
    Object.fromEntries(pages.map(({ path, sweptAt }) => [path, sweptAt]))
  // Only pages that speak of this one are made anew with it.
  for (const path of ['/', '/404/']) expect([path, times(after)[path]]).toEqual([path, times(before)[path]])
  expect(after.pages.find((one) => one.pageId === pageId)!.gullies).toEqual(gullies)

  // All of them are measured again when somebody asks for it.
  await page.goto(`${app.editor}/gullies`)
  await main.getByRole('button', { name: 'Measure again' }).click()
  await expect(main.getByRole('status')).toHaveText(/^Measuring live pages: \d of \d done\.$/)
  await expect(main.getByRole('status')).toHaveText(/^All \d live pages were measured again\.$/, {
    timeout: 120_000,
  })
  for (const { path, sweptAt } of (await known(page, app)).pages)
    expect(sweptAt, path).not.toBe(times(after)[path])
})
