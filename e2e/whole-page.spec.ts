/** How much it takes to make a whole page: counted, by mouse and by keyboard. */
import type { Page } from '@playwright/test'
import { asking, canvasOf, expect, test } from './app.ts'
import { addPage } from './building.ts'

/**
 * From a blank page to the kind of page that the sample site has as About: a hero, text beside a picture, a quote,
 * three cards and a call to action. Counted are acts of the hand; the limit is the issue's.
 */
test('a whole page from a blank one takes at most 40 mouse actions', async ({ page, app }) => {
  let count = 0
  const click = async (locator: ReturnType<Page['locator']>): Promise<void> => {
    count++
    await locator.click()
  }
  await addPage(page, app, 'About the hut', 'blank')
  const canvas = canvasOf(page)
  const shelf = async (name: RegExp): Promise<void> => {
    await click(page.getByRole('button', { name: 'Add to page' }))
    await click(page.getByRole('region', { name: 'Shelf' }).getByRole('button', { name }))
  }
  await shelf(/^Hero\./)
  await click(page.getByRole('button', { name: 'Picture: choose' }))
  await click(page.getByRole('dialog').getByRole('button', { name: /dome with its slit open/ }))
  for (const pattern of [/^Text and picture/, /^Statement/, /^Three cards/, /^Call to action/]) {
    await click(
      page
        .getByRole('navigation', { name: 'Path to the selected block' })
        .getByRole('button', { name: 'Page' }),
    )
    await shelf(pattern)
  }
  await click(canvas.locator('.picture').last())
  await click(page.getByRole('button', { name: 'Picture: choose' }))
  await click(page.getByRole('dialog').getByRole('button', { name: /Moon half lit/ }))
  for (const name of ['Read more', 'Get in touch']) {
    await click(asking(canvas, name))
    await click(page.getByRole('combobox', { name: 'Link' }))
    await click(page.getByRole('option', { name: /\/visit\/$/ }))
  }
  // Nothing on it keeps it from going live.
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByRole('dialog', { name: /^Publish “About the hut”/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(canvas.locator('.card')).toHaveCount(3)
  expect(count).toBeLessThanOrEqual(40)
})

/** The same, without a pointer: with its pictures, and where its buttons lead. */
test('a whole page from a blank one takes at most 60 keys besides the words', async ({ page, app }) => {
  await addPage(page, app, 'About the hut, by keys', 'blank')
  const canvas = canvasOf(page)
  let count = 0
  const press = async (...keys: readonly string[]): Promise<void> => {
    for (const key of keys) await page.keyboard.press(key)
    count += keys.length
  }
  const shelf = async (name: string): Promise<void> => {
    await press('Control+Enter')
    await page.keyboard.type(name)
    await press('Enter')
    await expect(page.getByRole('region', { name: 'Shelf' })).toHaveCount(0)
  }
  const selected = (kind: string) => expect(page.getByRole('heading', { level: 2, name: kind })).toBeVisible()
  const choosePicture = async (name: string): Promise<void> => {
    await press('Alt+Enter')
    await expect(page.getByRole('textbox', { name: 'Search pictures' })).toBeFocused()
    await page.keyboard.type(name)
    await press('Enter')
    await expect(page.getByRole('button', { name: 'Picture: replace' })).toBeFocused()
    await press('Escape')
  }
  const leadTo = async (name: string): Promise<void> => {
    await press('Alt+Enter')
    const leads = page.getByRole('combobox', { name: 'Link' })
    await expect(leads).toBeFocused()
    await page.keyboard.type(name)
    await press('Enter')
    await expect(leads).toHaveValue(name)
    await press('Escape')
  }
  await shelf('Hero')
  await selected('Hero')
  await choosePicture('dome with its slit')
  await press('ArrowRight', 'Enter', 'Control+a')
  await page.keyboard.type('The hut and its people')
  await press('Escape')
  await shelf('Text and pic')
  await press('ArrowRight', 'ArrowRight', 'End')
  await selected('Picture')
  await choosePicture('Moon half lit')
  await press('Home', 'ArrowRight', 'End')
  await selected('Button')
  await leadTo('Visit')
  await shelf('Statement')
  await shelf('Three cards')
  await shelf('Call to action')
  await press('ArrowRight', 'ArrowRight', 'End')
  await selected('Button')
  await leadTo('Visit')
  await press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await expect(canvas.getByRole('heading', { name: 'The hut and its people' })).toBeVisible()
  await expect(canvas.locator('main > *')).toHaveCount(5)
  await expect(canvas.locator('.card')).toHaveCount(3)
  await expect(canvas.getByRole('img')).toHaveCount(2)
  await expect(canvas.locator('main a[href*="/visit/"]')).toHaveCount(2)
  expect(count).toBeLessThanOrEqual(60)
})
