/** What everyday jobs take by mouse, counted: within what people need who do them daily. */
import { asking, expect, test, untilWhole } from './app.ts'
import { addPage, pointAt } from './building.ts'
import { blank, expectWritten, Hand, pathTo, saved } from './hand.ts'

test('a new page with a header on a picture, a big heading and a whole page body: at most 22', async ({
  page,
  app,
}) => {
  const hand = new Hand(page)
  await page.goto(app.editor)
  await hand.button('Add page')
  await hand.type('A night on the ridge')
  await hand.button('Add page', page.getByRole('dialog'))
  const canvas = await untilWhole(page)
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
