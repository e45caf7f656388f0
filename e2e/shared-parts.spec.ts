/** Shared sections: made from a selection, edited where they stand, shown on several pages, and taken from them again. */
import { canvasOf, drag, centreOf, expect, openPage, test } from './app.ts'
import { noFindings } from './axe.ts'
import { expectSaved, makePage, partsOf } from './shared-pages.ts'
import { wordsOfPictures } from './small-pictures.ts'

test('by mouse: made of a section, placed on a second page, edited there where it stands, and live on both', async ({
  page,
  app,
}) => {
  const context = page.context()
  const [first, second] = [
    await makePage(context, app, 'First fog'),
    await makePage(context, app, 'Second fog'),
  ]
  const canvas = canvasOf(page)
  await page.goto(`${app.editor}/pages/${first}`)
  await canvas.getByRole('heading', { name: 'More here' }).click()
  await page
    .getByRole('navigation', { name: 'Path to the selected block' })
    .getByRole('button')
    .nth(1)
    .click()
  await page.getByRole('button', { name: 'More actions', exact: true }).first().click()
  await page.getByRole('menuitem', { name: 'Make shared section…' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Fog notice')
  await noFindings(page)
  await dialog.getByRole('button', { name: 'Make shared section' }).click()
  await expect(page.getByRole('treeitem', { name: 'Shared section: Fog notice' })).toHaveAttribute(
    'aria-selected',
    'true',
  )
  await expect(canvas.getByRole('heading', { name: 'More here' })).toBeVisible()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expectSaved(page)

  await page.goto(`${app.editor}/pages/${second}`)
  await canvas.getByRole('heading', { name: 'Second fog' }).waitFor()
  await page.getByRole('button', { name: 'Add to page' }).click()
  await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill('fog notice')
  await page.getByRole('button', { name: /^Fog notice\./ }).click()
  const instance = page.getByRole('treeitem', { name: 'Shared section: Fog notice' })
  await expect(instance).toHaveAttribute('aria-selected', 'true')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expectSaved(page)
  const details = page.getByRole('complementary', { name: 'Details' })
  await expect(details).toContainText('Fog notice: on 2 pages, 0 live')

  // One press selects the whole of it, two work in it.
  const words = canvas.getByRole('heading', { name: 'More here' }).last()
  await words.click()
  await expect(instance).toHaveAttribute('aria-selected', 'true')
  await words.dblclick()
  await expect(page.getByRole('note').filter({ hasText: 'Fog notice: on 2 pages' }).first()).toBeVisible()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Closed in fog')
  await noFindings(page)
  await page.keyboard.press('Control+s')
  const asked = page.getByRole('dialog', { name: 'Save the shared section, too?' })
  await expect(asked).toContainText('First fog')
  await asked.getByRole('button', { name: 'Compare First fog' }).click()
  await expect(asked.locator('figcaption')).toHaveText(['First fog: as it is', 'First fog: with your change'])
  await expect
    .poll(async () => (await wordsOfPictures(asked)).map((words) => words.includes('Closed in fog')))
    .toEqual([false, true])
  await noFindings(page)
  await asked.getByRole('button', { name: 'Save everywhere' }).click()
  await expectSaved(page)

  await page.getByRole('button', { name: 'Done' }).click()
  for (const id of [second, first]) {
    await page.goto(`${app.editor}/pages/${id}`)
    await expect(canvas.getByRole('heading', { name: 'Closed in fog' })).toBeVisible()
    await page.getByRole('button', { name: 'Publish', exact: true }).click()
    await dialog.getByRole('button', { name: 'Publish', exact: true }).click()
    await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
    await page.getByRole('button', { name: 'Close', exact: true }).click()
  }
  for (const path of ['first-fog', 'second-fog'])
    expect(await (await fetch(`${app.site}/${path}/`)).text()).toContain('Closed in fog')

  // Newer than what visitors see: offered with the page, and left out where it is not wanted.
  await canvas.getByRole('heading', { name: 'Closed in fog' }).dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Closed in thick fog')
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await dialog.getByRole('checkbox', { name: /Fog notice/ }).uncheck()
  await dialog.getByRole('button', { name: 'Save and publish' }).click()
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  expect(await (await fetch(`${app.site}/first-fog/`)).text()).not.toContain('thick fog')
  await page.getByRole('button', { name: 'Close', exact: true }).click()
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await dialog.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  expect(await (await fetch(`${app.site}/second-fog/`)).text()).toContain('thick fog')
})

test('by keyboard: blocks shared in an accordion item, worked in, undone, cut loose, and replaced by another one', async ({
  page,
  app,
}) => {
  const context = page.context()
  const id = await makePage(context, app, 'Keys in the fog')
  const canvas = canvasOf(page)
  await page.goto(`${app.editor}/pages/${id}`)
  const make = async (words: string, name: string): Promise<void> => {
    await canvas.getByText(words, { exact: true }).first().click()
    await page.keyboard.press('Alt+Shift+M')
    await expect(page.getByRole('dialog')).toBeVisible()
    await page.keyboard.press('Control+a')
    await page.keyboard.type(name)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('dialog')).toHaveCount(0)
    await expect(page.getByRole('treeitem', { name: `Shared section: ${name}` })).toBeVisible()
  }
  await canvas.getByText('When?').click()
  await make('In the panel', 'Answer by keys')
  await make('More here', 'Words by keys')
  // Back in the accordion item.
  await canvas.getByText('In the panel', { exact: true }).click()
  await page.keyboard.press('Enter')
  const path = page.getByRole('navigation', { name: 'Path to the selected block' })
  await expect(path).toContainText('Answer by keys')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Every clear night')
  await page.keyboard.press('Escape')
  await expect(canvas.getByText('Every clear night', { exact: true })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('treeitem', { name: 'Shared section: Answer by keys' })).toHaveAttribute(
    'aria-selected',
    'true',
  )
  await page.keyboard.press('Control+z')
  await expect(canvas.getByText('In the panel', { exact: true })).toBeVisible()
  await page.keyboard.press('Control+Shift+z')
  await expect(canvas.getByText('Every clear night', { exact: true })).toBeVisible()

  // A second instance follows every letter of the first.
  await page.keyboard.press('Alt+Shift+ArrowDown')
  await expect(canvas.getByText('Every clear night', { exact: true })).toHaveCount(2)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('End')
  await page.keyboard.type(' from nine')
  await expect(canvas.getByText('Every clear night from nine', { exact: true })).toHaveCount(2)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')

  // Cut loose, it is the page's own again.
  await page.keyboard.press('Alt+Shift+U')
  await expect(page.getByRole('treeitem', { name: 'Shared section: Answer by keys' })).toHaveCount(1)
  await expect(canvas.getByText('Every clear night from nine', { exact: true })).toHaveCount(2)
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('treeitem', { name: 'Shared section: Answer by keys' })).toHaveCount(2)

  // Another one in its place.
  await page.getByRole('treeitem', { name: 'Shared section: Answer by keys' }).last().click()
  const details = page.getByRole('complementary', { name: 'Details' })
  await details.getByRole('combobox', { name: 'Replace by' }).fill('Words by')
  await page.getByRole('option', { name: 'Words by keys' }).click()
  await expect(canvas.getByText('More here', { exact: true })).toHaveCount(2)
  await expect(canvas.getByText('Every clear night from nine', { exact: true })).toHaveCount(1)

  await page.keyboard.press('Control+s')
  await expectSaved(page)
  const saved = await partsOf(context, app)
  expect(saved.find(({ name }) => name === 'Answer by keys')!.words).toBe('Every clear night from nine')
  expect(saved.find(({ name }) => name === 'Words by keys')!.reach).toEqual({ pages: 1, live: 0 })
})

test('one put into itself is refused with its name; dragged from the shelf to another place, it stands there', async ({
  page,
  app,
}) => {
  const id = await makePage(page.context(), app, 'Ring of fog')
  const canvas = canvasOf(page)
  await page.goto(`${app.editor}/pages/${id}`)
  await canvas.getByRole('heading', { name: 'More here' }).click()
  await page.keyboard.press('Alt+Shift+M')
  await page.getByRole('textbox', { name: 'Name' }).fill('Ring piece')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await canvas.getByRole('heading', { name: 'More here' }).dblclick()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+Enter')
  await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill('Ring piece')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'can’t stand in itself' })).toContainText(
    '“Ring piece” shows “Ring piece”',
  )
  await expect(canvas.getByRole('heading', { name: 'More here' })).toHaveCount(1)

  await page.getByRole('button', { name: 'Done' }).click()
  await page.getByRole('button', { name: 'Add to page' }).click()
  await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill('Ring piece')
  const from = await centreOf(page.getByRole('button', { name: /^Ring piece\./ }))
  const title = canvas.getByRole('heading', { name: 'Ring of fog' })
  const box = (await title.boundingBox())!
  await drag(page, from, { x: box.x + box.width / 3, y: box.y + box.height - 3 })
  await expect(canvas.getByRole('heading', { name: 'More here' })).toHaveCount(2)
})

test('edits of one that were not saved are offered after the tab is gone, and done again', async ({
  page,
  app,
}) => {
  const context = page.context()
  const id = await makePage(context, app, 'Lost in the fog')
  await page.goto(`${app.editor}/pages/${id}`)
  const canvas = canvasOf(page)
  await canvas.getByRole('heading', { name: 'More here' }).click()
  await page.keyboard.press('Alt+Shift+M')
  await page.getByRole('textbox', { name: 'Name' }).fill('Lost piece')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await canvas.getByRole('heading', { name: 'More here' }).dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type(' than before')
  await expect(page.getByText('Draft saved')).toBeVisible()
  page.on('dialog', (dialog) => void dialog.accept())
  await page.reload()
  await page.getByRole('button', { name: 'Continue editing' }).click()
  await expect(canvas.getByRole('heading', { name: 'More here than before' })).toBeVisible()
  await expect(
    page.getByRole('treeitem', { name: /Lost in the fog|Lost piece|More here/ }).first(),
  ).toBeVisible()
  await page.keyboard.press('Control+s')
  await expectSaved(page)
  const piece = (await partsOf(context, app)).find(({ name }) => name === 'Lost piece')!
  expect(piece.words).toBe('More here than before')
})

test('the library deletes one after asking what comes in its place', async ({ page, app }) => {
  const context = page.context()
  const id = await makePage(context, app, 'Fog in the library')
  const canvas = canvasOf(page)
  await page.goto(`${app.editor}/pages/${id}`)
  for (const [words, name] of [
    ['More here', 'Library piece'],
    ['In the panel', 'Library other'],
  ] as const) {
    if (words === 'In the panel') await canvas.getByText('When?').click()
    await canvas.getByText(words, { exact: true }).first().click()
    await page.keyboard.press('Alt+Shift+M')
    await page.getByRole('textbox', { name: 'Name' }).fill(name)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('dialog')).toHaveCount(0)
  }
  await page.keyboard.press('Control+s')
  await expectSaved(page)

  await page.goto(`${app.editor}/library`)
  await page.getByRole('button', { name: /^Shared sections/ }).click()
  await page.getByRole('button', { name: /^Library piece\./ }).click()
  const side = page.getByRole('complementary', { name: 'Selected part' })
  await expect(side.getByRole('link', { name: 'Fog in the library' })).toBeVisible()
  await noFindings(page)
  await side.getByRole('button', { name: 'Delete shared section' }).click()
  const dialog = page.getByRole('dialog', { name: 'Delete “Library piece”?' })
  await noFindings(page)
  await dialog.getByRole('radio', { name: 'Show another shared section' }).check()
  await dialog.getByRole('combobox').selectOption('Library other')
  await dialog.getByRole('button', { name: 'Delete shared section' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Deleted the shared section' })).toBeVisible()
  await page.goto(`${app.editor}/pages/${id}`)
  await expect(canvas.getByText('In the panel', { exact: true })).toHaveCount(2)
  await expect(canvas.getByText('More here', { exact: true })).toHaveCount(0)

  await page.goto(`${app.editor}/library`)
  await page.getByRole('button', { name: /^Shared sections/ }).click()
  await page.getByRole('button', { name: /^Library other\./ }).click()
  await side.getByRole('button', { name: 'Delete shared section' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Delete shared section' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'an own copy of it stays' })).toBeVisible()
  await openPage(page, app, 'Fog in the library')
  await expect(canvas.getByText('In the panel', { exact: true })).toHaveCount(2)
  await expect(page.getByRole('treeitem', { name: /^Shared section/ })).toHaveCount(0)
})
