/** The search of everything. */
import { expect, test, untilWhole } from './app.ts'

test('everything is found by one key, from every screen: pages, text on them, media, settings, commands', async ({
  page,
  app,
}) => {
  const find = async (typed: string): Promise<void> => {
    await page.keyboard.press('Control+Shift+Enter')
    await expect(page.getByRole('dialog', { name: 'Search everything' })).toBeVisible()
    await page.keyboard.type(typed)
  }
  const result = (name: RegExp) => page.getByRole('menuitem', { name })
  await page.goto(`${app.editor}/help`)
  await expect(page.getByRole('heading', { level: 1, name: 'Help' })).toBeVisible()
  await find('farmer whose')
  await result(/^About.*The farmer whose field/).click()
  await untilWhole(page)
  await find('group')
  await expect(result(/^Group/).first()).toBeVisible()
  await page.keyboard.press('Escape')
  await find('favicon')
  await result(/^Icon/).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Settings' })).toBeVisible()
  await find('saturn-and')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 2, name: 'saturn-and-its-rings.jpg' })).toBeVisible()
  await find('zzzz')
  await expect(page.getByText('Nothing found for “zzzz”.')).toBeVisible()
})
