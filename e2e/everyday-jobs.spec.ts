/** What everyday jobs take, counted: by mouse within what people need who do them daily, by keys within half as much again. */
import type { FrameLocator, Locator, Page } from '@playwright/test'
import { asking, canvasOf, expect, test, type App } from './app.ts'
import { addPage, pointAt } from './building.ts'

/** Acts of the hand. Text typed in one go is one; a choice from a native list is two, opening it and choosing. */
class Hand {
  count = 0
  readonly page: Page

  constructor(page: Page) {
    this.page = page
  }

  async click(locator: Locator): Promise<void> {
    this.count++
    await locator.click()
  }

  async clickTwice(locator: Locator): Promise<void> {
    this.count++
    await locator.dblclick()
  }

  async type(text: string): Promise<void> {
    this.count++
    await this.page.keyboard.type(text)
  }

  async press(...keys: readonly string[]): Promise<void> {
    this.count += keys.length
    for (const key of keys) await this.page.keyboard.press(key)
  }

  async choose(locator: Locator, label: string): Promise<void> {
    this.count += 2
    await locator.selectOption({ label })
  }

  /** Presses a button of the editor by its name. */
  async button(name: string | RegExp, within: Page | Locator = this.page): Promise<void> {
    await this.click(
      within.getByRole('button', { name, ...(typeof name === 'string' ? { exact: true } : {}) }),
    )
  }

  /** Places something from the shelf, opened by the button on the bar. */
  async place(name: RegExp): Promise<void> {
    await this.button('Add to page')
    await this.button(name, this.page.getByRole('region', { name: 'Shelf' }))
  }

  /** Places something from the shelf, found by typing. */
  async placeByKeys(name: string): Promise<void> {
    await this.press('Control+Enter')
    await this.type(name)
    await this.press('Enter')
    await expect(this.page.getByRole('region', { name: 'Shelf' })).toHaveCount(0)
  }

  async picture(name: RegExp): Promise<void> {
    await this.button('Picture: choose')
    await this.button(name, this.page.getByRole('dialog'))
  }

  /** Types over what a block asks for. */
  async fill(canvas: FrameLocator, prompt: string, text: string): Promise<void> {
    await this.clickTwice(asking(canvas, prompt).first())
    await this.type(text)
  }
}

/** A blank page, whose making is not counted. */
async function blank(page: Page, app: App, title: string) {
  await addPage(page, app, title, 'blank')
  return { hand: new Hand(page), canvas: canvasOf(page) }
}

const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible()
const pathTo = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Path to the selected block' }).getByRole('button', { name })

test('a new page with a header on a picture, a big heading and a whole page body: at most 22', async ({
  page,
  app,
}) => {
  const hand = new Hand(page)
  await page.goto(app.editor)
  await hand.button('Add page')
  await hand.type('A night on the ridge')
  await hand.button('Add page', page.getByRole('dialog'))
  const canvas = canvasOf(page)
  await expect(canvas.getByRole('main')).toBeAttached()
  await hand.place(/^Hero\./)
  await hand.picture(/dome with its slit open/)
  await hand.fill(canvas, 'What this page is about', 'A night on the ridge')
  await hand.choose(page.getByRole('combobox', { name: 'Text size', exact: true }), 'Headline')
  await hand.click(pathTo(page, 'Page'))
  await hand.button('Add to page')
  await hand.click(page.getByRole('region', { name: 'Shelf' }).getByText('Whole pages'))
  await hand.button(/^Event page/, page.getByRole('region', { name: 'Shelf' }))
  await hand.button('Save')
  await saved(page)
  await expect(canvas.locator('main > *')).not.toHaveCount(1)
  await expect(canvas.locator('.hero img')).toHaveCount(1)
  expect(hand.count).toBeLessThanOrEqual(22)
})

test('an accordion of two items with formatted text, shown as tabs and back: at most 20', async ({
  page,
  app,
}) => {
  const { hand, canvas } = await blank(page, app, 'Answers')
  await hand.button('Add to page')
  await hand.type('accordion')
  await hand.button(/^Accordion and tabs/, page.getByRole('region', { name: 'Shelf' }))
  await hand.fill(canvas, 'First question', 'Is it warm?')
  await hand.fill(canvas, 'Its answer.', 'No, **never** inside the dome.')
  await hand.fill(canvas, 'Second question', 'Is it dark?')
  await hand.fill(canvas, 'Its answer.', 'As **dark** as it gets.')
  await hand.click(asking(canvas, 'Third question'))
  await hand.press('Delete')
  await hand.click(pathTo(page, 'Accordion and tabs'))
  await hand.click(page.getByText('Horizontal tabs'))
  await expect(canvas.locator('.panels-tabs')).toHaveCount(1)
  await hand.click(page.getByText('Accordion', { exact: true }))
  await expect(canvas.locator('.panels-tabs')).toHaveCount(0)
  await expect(canvas.locator('.panel')).toHaveCount(2)
  await expect(canvas.locator('.panel strong')).toHaveText(['never', 'dark'])
  expect(hand.count).toBeLessThanOrEqual(20)
})

test('text, a picture and a ready section, one moved and one removed: at most 12', async ({ page, app }) => {
  const { hand, canvas } = await blank(page, app, 'Three things')
  await hand.place(/^Text\./)
  await hand.type('Some words.')
  await hand.place(/^Picture\./)
  await hand.picture(/Moon half lit/)
  await hand.place(/^Call to action\./)
  await hand.press('Alt+ArrowUp')
  await expect(canvas.locator('main > *').first()).not.toContainText('Some words.')
  await hand.press('Delete')
  await expect(canvas.locator('main > *')).toHaveCount(1)
  await expect(canvas.getByText('Some words.')).toBeVisible()
  await expect(canvas.locator('.picture img')).toHaveCount(1)
  expect(hand.count).toBeLessThanOrEqual(12)
})

test('sections with columns, five pictures and four testimonials: at most 45', async ({ page, app }) => {
  const { hand, canvas } = await blank(page, app, 'What people saw')
  await hand.place(/^Columns\./)
  await hand.fill(canvas, 'First', 'With your eyes')
  await hand.fill(canvas, 'Write here.', 'Six constellations.')
  await hand.fill(canvas, 'Second', 'With a telescope')
  await hand.fill(canvas, 'Write here.', 'The rings, and their shadow.')
  await hand.click(pathTo(page, 'Page'))
  await hand.place(/^Gallery\./)
  await hand.button('Add several…')
  const dialog = page.getByRole('dialog')
  for (const name of [/dome with its slit/, /Moon half lit/, /banded planet/, /Eleven bright/, /small lamps/])
    await hand.button(name, dialog)
  await hand.button('Add 5 pictures', dialog)
  await hand.click(pathTo(page, 'Page'))
  await hand.place(/^Testimonials\./)
  await hand.button('Add a testimonial')
  await hand.click(page.getByRole('treeitem', { name: /^Testimonials/ }))
  await hand.fill(canvas, 'What one of them said.', 'It moved.')
  await hand.fill(canvas, 'What another said.', 'So many.')
  await hand.fill(canvas, 'And a third.', 'So quiet.')
  await hand.fill(canvas, 'What they said.', 'We come every year.')
  await hand.button('Save')
  await saved(page)
  await expect(canvas.locator('.gallery img')).toHaveCount(5)
  await expect(canvas.locator('.voice')).toHaveCount(4)
  expect(hand.count).toBeLessThanOrEqual(45)
})

/** Typed as people write it in plain text: a heading, a quote and bold words. */
const WRITTEN = ['## Opening hours', 'We open at **dusk** each Friday.', '> Come early.'] as const

async function write(hand: Hand): Promise<void> {
  hand.count++
  for (const [i, line] of WRITTEN.entries()) {
    if (i > 0) await hand.page.keyboard.press('Enter')
    await hand.page.keyboard.type(line)
  }
}

async function expectWritten(canvas: FrameLocator): Promise<void> {
  await expect(canvas.getByRole('heading', { level: 2, name: 'Opening hours' })).toBeVisible()
  await expect(canvas.locator('blockquote')).toHaveText('Come early.')
  const text = canvas.getByRole('main').locator('.text')
  await expect(text.locator('strong')).toHaveText('dusk')
  await expect(text.locator('a')).toHaveText('Friday')
}

test('words, bold, a heading, a quote, a link, saved: at most 8', async ({ page, app }) => {
  const { hand, canvas } = await blank(page, app, 'Hours')
  await hand.place(/^Text\./)
  await write(hand)
  const word = await pointAt(canvas.getByRole('main').locator('.text'), 'Friday', 'middle')
  hand.count++
  await page.mouse.dblclick(word.x, word.y)
  await hand.button('Link', page.getByRole('toolbar', { name: 'Text formatting' }))
  await hand.type('visit')
  await hand.click(page.getByRole('option', { name: /\/visit\/$/ }))
  await hand.button('Save')
  await saved(page)
  await expectWritten(canvas)
  expect(hand.count).toBeLessThanOrEqual(8)
})

test('a new page out of the navigation that it begins in, and a link to another site: at most 9', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Hut hours', 'blank')
  const hand = new Hand(page)
  const isShown = page.getByRole('checkbox', { name: 'Show in navigation' })
  await expect(isShown).toBeChecked()
  await hand.click(isShown)
  await hand.button('Save')
  await saved(page)
  await hand.click(page.getByRole('banner').getByRole('link').first())
  await hand.click(
    page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Navigation' }),
  )
  await hand.click(page.getByRole('textbox', { name: 'Text' }))
  await hand.type('Shop')
  await hand.click(page.getByRole('textbox', { name: 'Address' }))
  await hand.type('shop.example')
  await hand.button('Add link')
  const lines = page.getByRole('grid', { name: 'Navigation links in order' }).getByRole('row')
  await expect(lines.filter({ hasText: 'https://shop.example' })).toHaveCount(1)
  await expect(lines.filter({ hasText: 'Hut hours' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Delete Shop' }).click()
  await expect(lines.filter({ hasText: 'Shop' })).toHaveCount(0)
  expect(hand.count).toBeLessThanOrEqual(9)
})

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
  await expect(page.getByRole('menuitem').first()).toHaveAttribute('data-focused', 'true')
  await hand.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Add page' })).toBeVisible()
  await hand.type('A night by keys')
  await hand.press('Enter')
  const canvas = canvasOf(page)
  await expect(canvas.getByRole('main')).toBeAttached()
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
  await expect(canvasOf(page).getByRole('main')).toBeAttached()
  const isShown = page.getByRole('checkbox', { name: 'Show in navigation' })
  await expect(isShown).toBeChecked()
  await hand.press('Alt+Enter', 'Tab', 'Tab', 'Space')
  await expect(isShown).not.toBeChecked()
  await hand.press('Control+s')
  await saved(page)
  await hand.press('Control+Shift+Enter')
  await hand.type('navigation link')
  await expect(page.getByRole('menuitem').first()).toHaveAttribute('data-focused', 'true')
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
