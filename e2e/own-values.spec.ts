/** Measures and colours outside the look: where the site's keeper allows them, marked; elsewhere not even offered. */
import { canvasOf, expect, openPage, test } from './app.ts'

test('a value outside the look is had only where the administrator allows it, is marked, and can be put back', async ({
  page,
  app,
}) => {
  const details = page.getByRole('complementary', { name: 'Details' })
  const above = details.getByRole('combobox', { name: 'Space above' })
  const select = async () => {
    await openPage(page, app, 'Questions')
    await page
      .getByRole('treeitem', { name: /^Section: / })
      .first()
      .click()
    await expect(above).toBeVisible()
  }
  await select()
  await expect(above.getByRole('option', { name: 'Custom size…' })).toHaveCount(0)

  await test.step('the administrator allows it', async () => {
    await page.goto(`${app.editor}/settings`)
    const saved = page.waitForResponse('**/api/sites/tarrowmoor/settings')
    await page.getByRole('checkbox', { name: 'Allow custom sizes and colours' }).check()
    expect((await saved).status()).toBe(200)
  })

  await select()
  const section = canvasOf(page).locator('main .section').first()
  await above.selectOption({ label: 'Custom size…' })
  await page.getByRole('dialog').getByRole('textbox').fill('37')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Apply' }).click()
  await expect(above.locator('option:checked')).toHaveText('37 px, custom')
  await expect(section).toHaveCSS('padding-top', '37px')

  await details.getByRole('button', { name: 'Custom colour…' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Colour, as #rrggbb').fill('#7a7a7a')
  await page.keyboard.press('Tab')
  await expect(
    dialog.getByText(/lowest contrast of text on it is [\d.]+\. A page can be published with 4\.5/),
  ).toBeVisible()
  await dialog.getByLabel('Colour, as #rrggbb').fill('#f7e2c4')
  await page.keyboard.press('Tab')
  await expect(dialog.getByText(/: readable/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Apply' }).click()
  await expect(section).toHaveCSS('background-color', 'rgb(247, 226, 196)')
  await expect(page.getByRole('button', { name: '2 problems' })).toBeVisible()

  await above.selectOption({ label: 'Reset' })
  await expect(above.locator('option:checked')).not.toHaveText(/custom/)
  await details.getByRole('button', { name: 'Background: changed. Reset' }).click()
  await expect(section).not.toHaveCSS('background-color', 'rgb(247, 226, 196)')
  await expect(page.getByRole('button', { name: /problem/ })).toHaveCount(0)
})
