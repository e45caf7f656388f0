import { noFindings } from './axe.ts'
import type { SavedPart } from '@gullyline/core'
import { expect, openPage, test } from './app.ts'

test('by mouse: blocks are saved as a pattern, found by text in it, placed as a copy, renamed, deleted and restored', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  await canvas.getByRole('heading', { name: 'Getting here' }).click()
  await page.getByRole('button', { name: 'More actions', exact: true }).first().click()
  await page.getByRole('menuitem', { name: 'Save as pattern…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Save as pattern' })
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Way to the hill')
  await dialog.getByRole('combobox', { name: 'Purpose' }).selectOption('Contact')
  await dialog.getByRole('textbox', { name: 'Description' }).fill('How visitors find us')
  await noFindings(page, { within: '[role="dialog"]', withFrames: true })
  await dialog.getByRole('button', { name: 'Save pattern' }).click()
  await expect(dialog).toHaveCount(0)
  // The page has not changed.
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()

  await page.getByRole('button', { name: 'Add to page' }).click()
  await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill('getting here')
  await page.getByRole('button', { name: /^Way to the hill\./ }).click()
  // The copy is ready to be typed in.
  await expect(canvas.locator('[contenteditable="true"]')).toHaveText('Getting here')
  await page.keyboard.press('Escape')
  await expect(canvas.getByRole('heading', { name: 'Getting here' })).toHaveCount(2)
  await page.keyboard.press('Control+z')
  await expect(canvas.getByRole('heading', { name: 'Getting here' })).toHaveCount(1)

  await page.goto(`${app.editor}/library`)
  await page.getByRole('button', { name: 'Way to the hill. Contact' }).click()
  const side = page.getByRole('complementary', { name: 'Selected part' })
  await side.getByRole('textbox', { name: 'Name' }).fill('Way up the hill')
  await side.getByRole('button', { name: 'Save name' }).click()
  await expect(page.getByRole('button', { name: 'Way up the hill. Contact' })).toBeVisible()
  await noFindings(page, { withFrames: true })
  await side.getByRole('button', { name: 'Delete pattern' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Deleted the pattern' })).toBeVisible()
  await expect(page.getByText(/^No patterns yet/)).toBeVisible()
  await page.getByRole('button', { name: /^Deleted [0-9]/ }).click()
  await page.getByRole('button', { name: 'Way up the hill. Contact' }).click()
  await side.getByRole('button', { name: 'Restore pattern' }).click()
  await page.getByRole('button', { name: /^Patterns [0-9]/ }).click()
  await page.getByRole('button', { name: 'Way up the hill. Contact' }).click()
  await side.getByRole('button', { name: 'Delete pattern' }).click()
  await expect(page.getByText(/^No patterns yet/)).toBeVisible()
})

test('by keyboard: several blocks are one pattern, a name that is taken is told, and Enter on the shelf places all of it', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'About')
  const read = async () =>
    (await (
      await page.context().request.get(`${app.editor}/api/sites/tarrowmoor/parts`)
    ).json()) as SavedPart[]
  const name = async (words: string) => {
    await page.keyboard.press('Alt+Shift+P')
    const box = page.getByRole('dialog', { name: 'Save as pattern' }).getByRole('textbox', { name: 'Name' })
    await expect(box).toBeFocused()
    await page.keyboard.press('Control+a')
    await page.keyboard.type(words)
    await page.keyboard.press('Enter')
  }
  await canvas.getByRole('heading').first().click()
  await page.keyboard.press('Shift+ArrowDown')
  await name('Two of them')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  const made = (await read()).find((one) => one.name === 'Two of them')!
  expect(made.document.nodes[made.document.root]!.slots.blocks).toHaveLength(2)

  await name('two OF them')
  await expect(page.getByRole('alert')).toContainText('“two OF them” is the name of another part')
  await page.keyboard.press('Escape')

  const blocks = await canvas.locator('[data-node]').count()
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('two of them')
  await page.keyboard.press('Enter')
  await expect(canvas.locator('[data-node]')).toHaveCount(
    blocks + Object.keys(made.document.nodes).length - 1,
  )
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(canvas.locator('[data-node]')).toHaveCount(blocks)
  // Nothing is selected: the dialog says what to do first.
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Alt+Shift+P')
  const refused = page.getByRole('dialog', { name: 'Save as pattern' })
  await expect(refused).toContainText('Select the blocks or sections of the pattern first')
  await page.keyboard.press('Escape')
  await expect(refused).toHaveCount(0)
  await page.context().request.delete(`${app.editor}/api/sites/tarrowmoor/parts/${made.id}`)
})

test('two dots in an empty paragraph, a name and Enter: what is called so stands there; Escape leaves the dots', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'About')
  const texts = canvas.locator('main .text')
  const heading = canvas.locator('main h2').first()
  await heading.click()
  await page.keyboard.press('Enter')
  await page.keyboard.press('End')
  await page.keyboard.press('Enter')
  const before = await texts.count()
  await page.keyboard.type('..quote')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Said by its name')
  await expect(canvas.locator('main blockquote', { hasText: 'Said by its name' })).toBeVisible()
  // It stands in the place of the empty paragraph.
  await expect(texts).toHaveCount(before - 1)
  await page.keyboard.press('Escape')
  // What was said, the quote, the dots, and the paragraph that was started for them.
  for (let step = 0; step < 4; step++) await page.keyboard.press('Control+z')
  await expect(texts).toHaveCount(before - 1)

  await heading.click()
  await page.keyboard.press('Enter')
  await page.keyboard.press('End')
  await page.keyboard.press('Enter')
  await page.keyboard.type('..')
  await expect(page.getByRole('region', { name: 'Shelf' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'Shelf' })).toHaveCount(0)
  await expect(texts.filter({ hasText: '..' })).toHaveCount(1)
})
