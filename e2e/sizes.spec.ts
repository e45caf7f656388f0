/** The sizes of a site: their names and bounds, what is set at each, and copying an arrangement from one to another. */
import type { SiteInfo } from '@gullyline/core'
import { canvasOf, expect, test } from './app.ts'
import { addPage } from './building.ts'
import { asking } from './app.ts'
import type { Page } from '@playwright/test'

const sizesOf = (page: Page) => page.getByRole('region', { name: 'Screen sizes' })
const row = (page: Page, i: number) => sizesOf(page).getByRole('listitem').nth(i)

async function saveSizes(page: Page): Promise<void> {
  await sizesOf(page).getByRole('button', { name: 'Save screen sizes' }).click()
  await expect(sizesOf(page).getByRole('status')).toHaveText(/The sizes were saved/)
}

test('a size is divided, named, used, taken out and brought back, and no page loses anything by it', async ({
  page,
  app,
}) => {
  const look = async () =>
    ((await (await page.request.get(`${app.editor}/api/sites/tarrowmoor`)).json()) as SiteInfo).look
  const first = await look()
  await page.goto(`${app.editor}/settings`)
  const sizes = sizesOf(page)
  await sizes.getByRole('button', { name: 'Divide wide' }).click()
  await row(page, 1).getByRole('textbox', { name: 'Name' }).fill('laptop')
  await row(page, 0).getByRole('textbox', { name: 'From, in px' }).fill('1199')
  await expect(sizes.getByRole('alert')).toHaveText(/begin at least 20 px apart/)
  await expect(sizes.getByRole('button', { name: 'Save screen sizes' })).toBeDisabled()
  await row(page, 0).getByRole('textbox', { name: 'From, in px' }).fill('1500')
  // What was typed stays when the screen is left and opened again.
  await page.reload()
  await expect(row(page, 1).getByRole('textbox', { name: 'Name' })).toHaveValue('laptop')
  await saveSizes(page)

  await addPage(page, app, 'Sized', 'plain')
  const ruler = page.getByRole('region', { name: 'Ruler' })
  const width = page.getByRole('slider', { name: 'Width of the page' })
  await ruler.getByRole('button', { name: 'laptop', exact: true }).click()
  await expect(width).toHaveAttribute('aria-valuetext', /laptop/)
  const heading = asking(canvasOf(page), 'First part')
  await heading.click()
  const details = page.getByRole('complementary', { name: 'Details' })
  await details.getByRole('button', { name: 'Text size: set per size' }).click()
  const at = (size: string) => details.getByRole('combobox', { name: `Text size at ${size}` })
  await at('laptop').selectOption({ label: 'Lead' })
  await expect(at('medium')).toHaveAccessibleDescription('Text size: Lead, as laptop')
  const size = () => heading.evaluate((one) => parseFloat(getComputedStyle(one).fontSize))
  const lead = await size()
  await ruler.getByRole('button', { name: 'wide', exact: true }).click()
  await expect.poll(size).not.toBe(lead)
  await page.keyboard.press('Control+s')
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: /^Saved/ })
      .first(),
  ).toBeVisible()

  await page.goto(`${app.editor}/settings`)
  await sizes.getByRole('button', { name: 'Delete laptop' }).press('Enter')
  await saveSizes(page)
  expect((await look()).sizes.map(({ name }) => name)).toEqual(['wide', 'medium', 'narrow'])
  await sizes.getByRole('button', { name: 'Restore laptop' }).click()
  await expect(row(page, 1).getByRole('textbox', { name: 'From, in px' })).toHaveValue('1200')
  await saveSizes(page)
  // Other tests go by the sizes that the site began with.
  const back = await page.request.put(`${app.editor}/api/sites/tarrowmoor/settings`, {
    data: { look: first, was: { look: await look() } },
  })
  expect(back.status()).toBe(200)
})

test('an arrangement is copied from one size to another by keyboard, and reset, and other sizes stay', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Copied', 'plain')
  const heading = asking(canvasOf(page), 'First part')
  await heading.click()
  const details = page.getByRole('complementary', { name: 'Details' })
  await details.getByRole('button', { name: 'Text size: set per size' }).click()
  const at = (size: string) => details.getByRole('combobox', { name: `Text size at ${size}` })
  await at('medium').selectOption({ label: 'Lead' })
  await expect(at('narrow')).toHaveAccessibleDescription('Text size: Lead, as medium')

  await page
    .getByRole('region', { name: 'Ruler' })
    .getByRole('button', { name: 'narrow', exact: true })
    .click()
  await heading.click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Alt+Shift+A')
  const dialog = page.getByRole('dialog', { name: 'Arrangement at narrow' })
  await dialog.getByRole('radio', { name: 'Copy from wide' }).check()
  await expect(dialog.getByRole('status')).toHaveText(
    '1 block changes at narrow. All other sizes stay as they are.',
  )
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await expect(at('narrow')).toHaveAccessibleDescription(/, changed$/)
  await expect(at('narrow')).not.toHaveAccessibleDescription(/Lead/)
  await expect(at('medium')).toHaveAccessibleDescription('Text size: Lead, changed')

  await page.keyboard.press('Alt+Shift+A')
  await dialog.getByRole('radio', { name: 'Reset: inherit from medium' }).check()
  await dialog.getByRole('radio', { name: 'The whole page' }).check()
  await dialog.getByRole('button', { name: 'Reset' }).click()
  await expect(at('narrow')).toHaveAccessibleDescription('Text size: Lead, as medium')
  await page.keyboard.press('Control+z')
  await expect(at('narrow')).toHaveAccessibleDescription(/, changed$/)
})

test('what was set at a size is reset for one value, one block and one section, by mouse and by keyboard', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Reset', 'plain')
  const canvas = canvasOf(page)
  const heading = asking(canvas, 'First part')
  const details = page.getByRole('complementary', { name: 'Details' })
  await heading.click()
  await details.getByRole('button', { name: 'Text size: set per size' }).click()
  const narrow = details.getByRole('combobox', { name: 'Text size at narrow' })
  const expectInherited = () => expect(narrow).not.toHaveAccessibleDescription(/Lead/)
  const change = async (): Promise<void> => {
    await narrow.selectOption({ label: 'Lead' })
    await expect(narrow).toHaveAccessibleDescription('Text size: Lead, changed')
  }
  await page
    .getByRole('region', { name: 'Ruler' })
    .getByRole('button', { name: 'narrow', exact: true })
    .click()

  // One value, in the table of sizes.
  await change()
  await narrow.selectOption({ label: 'Inherited' })
  await expectInherited()
  await change()
  await narrow.focus()
  await page.keyboard.type('inh')
  await expectInherited()

  const dialog = page.getByRole('dialog', { name: 'Arrangement at narrow' })
  const reset = dialog.getByRole('radio', { name: 'Reset: inherit from medium' })
  // One block, by the menu; and by keys.
  await change()
  await heading.click({ button: 'right' })
  await page.getByRole('menuitem', { name: 'Copy or reset arrangement…' }).click()
  await expect(dialog.getByRole('radio', { name: /^Selected heading/ })).toBeChecked()
  await reset.click()
  await dialog.getByRole('button', { name: 'Reset' }).click()
  await expect(dialog).toBeHidden()
  await expectInherited()
  await change()
  await page.getByRole('treeitem', { name: 'Heading: First part' }).press('Alt+Shift+A')
  await reset.press('Space')
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await expectInherited()

  // The section around it, with all blocks inside.
  await change()
  await page.getByRole('treeitem', { name: 'Heading: First part' }).press('Escape')
  await page.keyboard.press('Alt+Shift+A')
  await expect(dialog.getByRole('radio', { name: /^Selected section, with all blocks inside/ })).toBeChecked()
  await reset.press('Space')
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await heading.click()
  await expectInherited()
})
