/** The gullyline: a page with faults of many rules, each found on the ruler, gone to and mended by an offered change. */
import { RULES } from '@gullyline/core'
import { canvasOf, expect, test } from './app.ts'
import { counter, FAULTS, openFaults } from './gully-faults.ts'
import { expectSaved } from './shared-pages.ts'

test.use({ isMeasuring: true })

const titleOf = (rule: string) => RULES.get(rule)!.title

test('a page with faults of many rules is mended by what is offered, and saved with none left', async ({
  page,
  app,
}) => {
  // Each fault is one more sweep of the page.
  test.slow()
  const rules = Object.keys(FAULTS)
  await openFaults(page, app, rules)
  await expect(counter(page)).toBeVisible({ timeout: 60_000 })
  await counter(page).click()
  const list = page.getByRole('dialog', { name: 'Gullies of this page' })
  for (const rule of rules) await expect(list.getByText(titleOf(rule), { exact: true }).first()).toBeVisible()
  await page.keyboard.press('Escape')
  for (let left = 40; left > 0; left--) {
    await expect(counter(page)).toBeVisible({ timeout: 60_000 })
    if ((await counter(page).textContent())?.startsWith('No gullies')) break
    // The focus that comes back from the dialog before closes a list that is opened meanwhile.
    await expect(async () => {
      if (!(await list.isVisible())) await counter(page).click({ timeout: 5_000 })
      await list.getByRole('button', { name: /^Fix/ }).first().click({ timeout: 5_000 })
    }).toPass()
    const dialog = page.getByRole('dialog', { name: /^Fix “/ })
    const apply = dialog.getByRole('button', { name: /^Apply/ })
    await expect(apply, (await dialog.textContent()) ?? '').toBeEnabled({ timeout: 30_000 })
    await apply.click()
    await expect(dialog).toBeHidden()
  }
  await expect(counter(page)).toContainText('No gullies')
  await page.keyboard.press('Control+S')
  await expectSaved(page)
})

test('a gully is gone to by keys and by the line, ignored with a reason that stays with the page, and shown again', async ({
  page,
  app,
}) => {
  const id = await openFaults(page, app, ['small-text'])
  await expect(counter(page)).toContainText('1 gully', { timeout: 60_000 })
  const width = page.getByRole('slider', { name: 'Width of the page' })
  await canvasOf(page).getByText('Bring a red torch').waitFor()
  await page.keyboard.press('F8')
  await expect(width).toHaveAttribute('aria-valuenow', '1120')
  const details = page.getByRole('complementary', { name: 'Details' })
  await expect(details.getByRole('list', { name: 'Problems of this block' })).toContainText('is 9 px high')
  await width.press('Home')
  await page
    .getByRole('img', { name: /^Gullyline with/ })
    .locator('path')
    .first()
    .click()
  await expect(width).toHaveAttribute('aria-valuenow', '1120')

  await counter(page).click()
  await page.getByRole('button', { name: `Ignore ${titleOf('small-text')}` }).click()
  await page.getByRole('textbox', { name: 'Reason' }).fill('It is a seal')
  await page.keyboard.press('Enter')
  await expect(counter(page)).toContainText('No gullies')
  await page.keyboard.press('Control+S')
  await expectSaved(page)
  await page.goto(`${app.editor}/pages/${id}`)
  await expect(counter(page)).toContainText('No gullies', { timeout: 60_000 })
  await counter(page).click()
  const list = page.getByRole('dialog', { name: 'Gullies of this page' })
  await list.getByRole('button', { name: 'Ignored' }).click()
  await expect(list).toContainText('It is a seal')
  await list.getByRole('button', { name: /Show .* again/ }).click()
  await page.keyboard.press('Escape')
  await expect(counter(page)).toContainText('1 gully')
})

test('what a save has broken is told after it, and before the page goes live', async ({ page, app }) => {
  await openFaults(page, app, [])
  await expect(counter(page)).toContainText('No gullies', { timeout: 60_000 })
  await canvasOf(page).getByRole('heading', { name: 'Broken' }).dblclick()
  await page.keyboard.press('Control+A')
  await page.keyboard.type('Spectroheliographically')
  await page.keyboard.press('Escape')
  await expect(counter(page)).toContainText('1 gully', { timeout: 60_000 })
  await page.keyboard.press('Control+S')
  await expectSaved(page)
  await expect(page.getByText(/^Saved\. 1 gully is new since the last save: Word broken/)).toBeVisible()
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  const note = page.getByRole('dialog').getByRole('region', { name: 'Gullies of this page' })
  await expect(note).toContainText('“Spectroheliographically” has no room')
  await expect(note).toContainText('this gully, which is new:')
  // Once it is live, the same is no news.
  await page.getByRole('dialog').getByRole('button', { name: 'Publish', exact: true }).click()
  await page.getByRole('dialog', { name: 'Published' }).getByRole('button', { name: 'Close' }).click()
  await canvasOf(page).getByRole('heading', { name: 'Spectroheliographically' }).dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type('s')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+S')
  await expectSaved(page)
  await expect(counter(page)).toContainText('1 gully', { timeout: 60_000 })
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(note).toContainText('None is new: the live page has them already.', { timeout: 60_000 })
})
