/** The shelf keeps up with who types: its small pictures come when there is time for them. */
import { expect, openPage, test } from './app.ts'

// The clock of a tab can't be given back.
test.use({ isTabKept: false })

test('a picture of the shelf is drawn once nobody has typed for a moment, and not before', async ({
  page,
  app,
}) => {
  await openPage(page, app, 'Visit')
  await page.getByRole('button', { name: 'Add to page' }).click()
  const shelf = page.getByRole('region', { name: 'Shelf' })
  await expect(shelf.locator('[data-picture]').first()).toBeVisible()
  await page.keyboard.type('card')
  const first = shelf.getByRole('listitem').first()
  await expect(first.getByRole('button', { name: /^Card\b/ })).toBeVisible()
  await expect(first.locator('[data-picture]')).toBeVisible()

  // From here on time goes on when it is told to, so that no machine is too slow to be judged.
  await page.clock.install()
  await page.clock.pauseAt(Date.now() + 60_000)
  await page.keyboard.press('Control+A')
  await page.keyboard.type('table')
  const table = first.getByRole('button', { name: /^Table\b/ })
  await expect(table).toBeVisible()
  await page.waitForTimeout(500)
  await page.clock.runFor(100)
  await page.waitForTimeout(500)
  await expect(table.locator('[data-picture]')).toHaveCount(0)
  // Each letter begins the wait anew.
  await page.keyboard.press('Shift')
  await page.clock.runFor(100)
  await page.waitForTimeout(500)
  await expect(table.locator('[data-picture]')).toHaveCount(0)
  await page.clock.runFor(200)
  await expect(table.locator('[data-picture]')).toBeVisible()
})
