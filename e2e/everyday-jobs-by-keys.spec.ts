/** What everyday jobs take by keys, counted: within half as much again as by mouse. */
import { expect, test, untilWhole } from './app.ts'
import { addPage } from './building.ts'
import { blank, expectWritten, Hand, saved } from './hand.ts'

test('by keys, text, a picture and a ready section, one moved and one removed: at most 18', async ({
  page,
  app,
}) => {
  const { hand, canvas } = await blank(page, app, 'Three things by keys')
  await hand.placeByKeys('Text')
  await hand.type('Some words.')
  await hand.press('Escape')
  await hand.placeByKeys('Picture')
  await hand.press('Alt+Enter')
  await expect(page.getByRole('textbox', { name: 'Search pictures' })).toBeFocused()
  await hand.type('Moon half lit')
  await hand.press('Enter')
  await expect(page.getByRole('button', { name: 'Picture: replace' })).toBeFocused()
  await hand.press('Escape')
  await hand.placeByKeys('Call to action')
  await hand.press('Alt+ArrowUp', 'Delete')
  await expect(canvas.getByText('Some words.')).toBeVisible()
  await expect(canvas.locator('.picture img')).toHaveCount(1)
  expect(hand.count).toBeLessThanOrEqual(18)
})

/** Goes to a setting of what is selected by its name, and leaves it with the value that these keys choose. */
async function setByKeys(hand: Hand, setting: string, ...keys: readonly string[]): Promise<void> {
  await hand.press('Alt+Enter')
  await hand.type(setting)
  await expect(hand.page.getByRole('textbox', { name: 'Search settings' })).toHaveValue(setting)
  await hand.press('Tab', ...keys)
}

test('by keys, a new page with a header on a picture, a big heading and a whole page body: at most 33', async ({
  page,
  app,
}) => {
  const hand = new Hand(page)
  await page.goto(app.editor)
  await expect(page.getByRole('treegrid', { name: 'Pages of the site' })).toBeVisible()
  await hand.press('Control+Shift+Enter')
  await hand.type('add page')
  // Enter takes the first line, whether or not it is marked already.
  await expect(page.getByRole('menuitem').first()).toContainText('Add page')
  await hand.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Add page' })).toBeVisible()
  await hand.type('A night by keys')
  await hand.press('Enter')
  const canvas = await untilWhole(page)
  await hand.placeByKeys('Hero')
  await hand.press('Alt+Enter')
  await hand.type('dome with its slit open')
  await hand.press('Enter')
  await expect(page.getByRole('button', { name: 'Picture: replace' })).toBeFocused()
  await hand.press('Escape', 'ArrowRight', 'Enter')
  await hand.type('A night by keys')
  await hand.press('Escape')
  await setByKeys(hand, 'text size', 'H')
  await expect(page.getByRole('combobox', { name: 'Text size', exact: true })).toHaveValue('headline')
  await hand.press('Escape', 'Escape', 'Escape')
  await hand.placeByKeys('Event page')
  await hand.press('Control+s')
  await saved(page)
  await expect(canvas.locator('main > *')).not.toHaveCount(1)
  await expect(canvas.locator('.hero img')).toHaveCount(1)
  expect(hand.count).toBeLessThanOrEqual(33)
})

test('by keys, an accordion of two items with formatted text, shown as tabs and back: at most 30', async ({
  page,
  app,
}) => {
  const { hand, canvas } = await blank(page, app, 'Answers by keys')
  await hand.placeByKeys('accordion')
  await hand.press('ArrowRight', 'Enter')
  await hand.type('Is it warm?')
  await hand.press('Tab')
  await hand.type('No, **never** inside the dome.')
  await hand.press('Tab')
  await hand.type('Is it dark?')
  await hand.press('Tab')
  await hand.type('As **dark** as it gets.')
  await hand.press('Tab', 'Escape', 'Delete', 'Escape')
  await setByKeys(hand, 'shown as', 'Tab', 'Enter')
  await expect(canvas.locator('.panels-tabs')).toHaveCount(1)
  await hand.press('Shift+Tab', 'Enter')
  await expect(canvas.locator('.panels-tabs')).toHaveCount(0)
  await expect(canvas.locator('.panel')).toHaveCount(2)
  await expect(canvas.locator('.panel strong')).toHaveText(['never', 'dark'])
  expect(hand.count).toBeLessThanOrEqual(30)
})

test('by keys, sections with columns, five pictures and four testimonials: at most 67', async ({
  page,
  app,
}) => {
  const { hand, canvas } = await blank(page, app, 'What people saw, by keys')
  await hand.placeByKeys('Columns')
  await hand.press('ArrowRight', 'ArrowRight', 'Enter')
  await hand.type('With your eyes')
  for (const text of ['Six constellations.', 'With a telescope', 'The rings, and their shadow.']) {
    await hand.press('Tab')
    await hand.type(text)
  }
  await leaveTo(hand, 'Page')
  await hand.placeByKeys('Gallery')
  await hand.press('Alt+Enter')
  await expect(page.getByRole('textbox', { name: 'Search pictures' })).toBeFocused()
  for (const name of [
    'dome with its slit',
    'moon half lit',
    'banded planet',
    'eleven bright',
    'small lamps',
  ]) {
    await hand.type(name)
    await hand.press('Enter')
  }
  await hand.press('Shift+Tab', 'Enter')
  await expect(canvas.locator('.gallery img')).toHaveCount(5)
  await leaveTo(hand, 'Page')
  await hand.placeByKeys('Testimonials')
  await hand.press('ArrowRight', 'Enter')
  await hand.type('It moved.')
  for (const text of ['So many.', 'So quiet.']) {
    await hand.press('Tab', 'Tab')
    await hand.type(text)
  }
  await hand.press('Escape', 'Alt+Shift+ArrowDown', 'Enter', 'Control+a')
  await hand.type('We come every year.')
  await hand.press('Control+s')
  await saved(page)
  await expect(canvas.locator('.column')).toHaveCount(2)
  await expect(canvas.locator('.voice')).toHaveText([/It moved/, /So many/, /So quiet/, /We come every year/])
  expect(hand.count).toBeLessThanOrEqual(67)
})

/** Selects parents until this one is selected. */
async function leaveTo(hand: Hand, name: string): Promise<void> {
  const last = hand.page
    .getByRole('navigation', { name: 'Path to the selected block' })
    .getByRole('button')
    .last()
  const isThere = async () => (await last.count()) === 0 || (await last.textContent()) === name
  for (let presses = 0; presses < 8 && !(await isThere()); presses++) await hand.press('Escape')
}

test('by keys, words, bold, a heading, a quote, a link, saved: at most 12', async ({ page, app }) => {
  const { hand, canvas } = await blank(page, app, 'Hours by keys')
  await hand.placeByKeys('Text')
  await hand.type('## Opening hours')
  // Typed in one go with what follows it.
  hand.count--
  await page.keyboard.press('Enter')
  await hand.type('We open at **dusk** each Friday')
  await hand.press('Control+Shift+ArrowLeft', 'Control+k')
  await hand.type('visit')
  await expect(page.getByRole('option', { name: /\/visit\/$/ })).toBeVisible()
  await hand.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Link' })).toHaveCount(0)
  await hand.type('.')
  await page.keyboard.press('Enter')
  await page.keyboard.type('> Come early.')
  await hand.press('Control+s')
  await saved(page)
  await expectWritten(canvas)
  expect(hand.count).toBeLessThanOrEqual(12)
})

test('by keys, a new page out of the navigation that it begins in, and a link to another site: at most 13', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Hut hours by keys', 'blank')
  const hand = new Hand(page)
  const isShown = page.getByRole('checkbox', { name: 'Show in navigation' })
  await expect(isShown).toBeChecked()
  await hand.press('Alt+Enter', 'Tab', 'Tab', 'Space')
  await expect(isShown).not.toBeChecked()
  await hand.press('Control+s')
  await saved(page)
  await hand.press('Control+Shift+Enter')
  await hand.type('navigation link')
  // Enter takes the first line, whether or not it is marked already.
  await expect(page.getByRole('menuitem').first()).toContainText('Add navigation link')
  await hand.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Text' })).toBeFocused()
  await hand.type('Shop')
  await hand.press('Tab', 'Tab')
  await hand.type('shop.example')
  await hand.press('Enter')
  const lines = page.getByRole('grid', { name: 'Navigation links in order' }).getByRole('row')
  await expect(lines.filter({ hasText: 'https://shop.example' })).toHaveCount(1)
  await expect(lines.filter({ hasText: 'Hut hours by keys' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Delete Shop' }).click()
  await expect(lines.filter({ hasText: 'Shop' })).toHaveCount(0)
  expect(hand.count).toBeLessThanOrEqual(13)
})
