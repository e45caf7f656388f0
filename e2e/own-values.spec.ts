/** Measures and colours outside the look: where the site's keeper allows them, marked; elsewhere not even offered. */
import { canvasOf, expect, openPage, test } from './app.ts'

test('a value outside the look is had only where the keeper allows it, is marked, and can be put back', async ({
  page,
  app,
}) => {
  const details = page.getByRole('complementary', { name: 'Details' })
  const above = details.getByRole('combobox', { name: 'Room above at wide' })
  const select = async () => {
    await openPage(page, app, 'Questions')
    await page
      .getByRole('treeitem', { name: /^Section: / })
      .first()
      .click()
    await expect(above).toBeVisible()
  }
  await select()
  await expect(above.getByRole('option', { name: 'Another measure…' })).toHaveCount(0)

  await test.step('the keeper allows it', async () => {
    await page.goto(app.editor)
    await page.getByRole('button', { name: 'Rules' }).click()
    await page.getByRole('checkbox', { name: 'Measures and colours outside the look' }).check()
    await page.getByRole('button', { name: 'Keep' }).click()
    await expect(page.getByRole('dialog')).toHaveCount(0)
  })

  await select()
  const section = canvasOf(page).locator('main .section').first()
  await above.selectOption({ label: 'Another measure…' })
  await page.getByRole('dialog').getByRole('textbox').fill('37')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Set it' }).click()
  await expect(above.locator('option:checked')).toHaveText('37 px, own')
  await expect(section).toHaveCSS('padding-top', '37px')

  await details.getByRole('button', { name: /^Look/ }).click()
  const background = details.getByRole('combobox', { name: 'Background' })
  await background.selectOption({ label: 'Another colour…' })
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Colour, as #rrggbb').fill('#7a7a7a')
  await page.keyboard.press('Tab')
  await expect(dialog.getByText(/least contrast on it is [\d.]+\. A page goes live with 4\.5/)).toBeVisible()
  await dialog.getByLabel('Colour, as #rrggbb').fill('#f7e2c4')
  await page.keyboard.press('Tab')
  await expect(dialog.getByText(/: all can be read/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Set it' }).click()
  await expect(section).toHaveCSS('background-color', 'rgb(247, 226, 196)')
  await expect(page.getByRole('button', { name: '2 problems' })).toBeVisible()

  await above.selectOption({ label: 'Put back' })
  await expect(above.locator('option:checked')).not.toHaveText(/own/)
  await details.getByRole('button', { name: 'Background: set here. Put back' }).click()
  await expect(section).not.toHaveCSS('background-color', 'rgb(247, 226, 196)')
  await expect(page.getByRole('button', { name: /problem/ })).toHaveCount(0)
})
