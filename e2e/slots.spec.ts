/** Slots of components: declared in the source, filled where an instance stands, and on the reach map. */
import { canvasOf, expect, test } from './app.ts'
import { noFindings } from './axe.ts'
import { expectSaved, makePage } from './shared-pages.ts'

test('a slot is made in a component and filled by mouse and by keys, where each instance stands', async ({
  page,
  app,
}) => {
  const id = await makePage(page.context(), app, 'Slots in the fog')
  const canvas = canvasOf(page)
  const details = page.getByRole('complementary', { name: 'Details' })
  const dialog = page.getByRole('dialog')
  const spine = page.getByRole('tree')
  await page.goto(`${app.editor}/pages/${id}`)
  await canvas.getByRole('heading', { name: 'More here' }).click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Alt+Shift+M')
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Fog answers')
  await dialog.getByRole('checkbox', { name: /^Component/ }).check()
  await dialog.getByRole('button', { name: 'Make component' }).click()
  const cards = spine.getByRole('treeitem', { name: 'Component: Fog answers' })
  await expect(cards).toHaveAttribute('aria-selected', 'true')

  // The slot is declared at what is selected inside of the component: here, the accordion with its items.
  await details.getByRole('button', { name: 'Edit component' }).click()
  await canvas.getByText('When?').click()
  await page.keyboard.press('Escape')
  const slots = details.getByRole('region', { name: 'Slots' })
  await slots.getByRole('button', { name: 'Make it a slot' }).click()
  await slots.getByRole('textbox', { name: 'Name of the slot' }).fill('Answers')
  await slots.getByRole('textbox', { name: 'Help for Answers' }).fill('One item for each question')
  await noFindings(page)
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(cards).toHaveAttribute('aria-selected', 'true')

  // By mouse: into the slot from the details, and one item of its own. What the component has there gives way.
  await expect(details.getByText('Shows what the component has here')).toBeVisible()
  await expect(canvas.getByText('When?')).toBeVisible()
  await details.getByRole('button', { name: 'Select the slot Answers' }).click()
  await expect(details.getByText('One item for each question')).toBeVisible()
  await noFindings(page)
  await details.getByRole('button', { name: 'Add an item' }).click()
  await expect(canvas.getByText('When?')).toHaveCount(0)
  const item = spine.getByRole('treeitem', { name: /^Item/ })
  await expect(item).toHaveCount(1)
  await details.getByRole('textbox', { name: 'Label' }).fill('Is it cold?')
  await expect(canvas.getByText('Is it cold?')).toBeVisible()

  // By keys: a second instance, and another item in its slot from the shelf.
  await cards.first().click()
  await page.keyboard.press('Alt+Shift+ArrowDown')
  await expect(cards).toHaveCount(2)
  await expect(canvas.getByText('Is it cold?')).toHaveCount(2)
  await details.getByRole('button', { name: 'Select the slot Answers' }).press('Enter')
  await page.keyboard.press('Control+Enter')
  await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill('item')
  await page.keyboard.press('Enter')
  await expect(details.getByRole('textbox', { name: 'Label' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(spine.getByRole('treeitem', { name: /^Item/ })).toHaveCount(2)

  // A slot stays where it is; what is in it can go.
  const slot = spine.getByRole('treeitem', { name: 'Slot: Answers' })
  await slot.click()
  await page.keyboard.press('Delete')
  await expect(page.getByText('The slot “Answers” is part of the component')).toBeVisible()
  await expect(slot).toHaveCount(1)

  await page.keyboard.press('Control+s')
  await expectSaved(page)
  await page.reload()
  await expect(canvas.getByText('Is it cold?')).toHaveCount(2)
  // An own copy shows what it showed.
  await spine.getByRole('treeitem', { name: 'Component: Fog answers' }).last().click()
  await details.getByRole('button', { name: 'Make own copy' }).click()
  await expect(canvas.getByText('Is it cold?')).toHaveCount(2)
  await expect(cards).toHaveCount(1)
})

test('the reach map is walked from a part to its pages, and from a page to its parts, by mouse and by keys', async ({
  page,
  app,
}) => {
  await page.goto(`${app.editor}/reach-map`)
  const chart = page.getByRole('img', { name: 'Which pages show which parts' })
  await expect(chart).toBeVisible()
  await noFindings(page)
  // By mouse, on the chart itself.
  await chart.getByText(/^Opening hours \(shared section\)/).click()
  const side = page.getByRole('complementary', { name: 'Selected' })
  await expect(side.getByRole('heading', { name: 'Opening hours' })).toBeVisible()
  const shown = side.getByRole('list', { name: 'Shown on' })
  const pages = await shown.getByRole('button').allTextContents()
  expect(pages.length).toBeGreaterThan(1)
  await noFindings(page)
  // By keys: on to a page, and from there to a part.
  await shown.getByRole('button').first().press('Enter')
  await expect(side.getByRole('heading', { name: pages[0]! })).toBeVisible()
  await expect(page).toHaveURL(/\?of=/)
  const parts = side.getByRole('list', { name: 'Parts it shows' })
  await expect(parts.getByRole('button', { name: 'Opening hours' })).toBeVisible()
  await page.goBack()
  await expect(side.getByRole('heading', { name: 'Opening hours' })).toBeVisible()
  await side.getByRole('link', { name: 'Show in the library' }).click()
  await expect(page.getByRole('heading', { name: 'Opening hours', level: 2 })).toBeVisible()
  await page.getByRole('link', { name: 'Show in the reach map' }).click()
  await expect(side.getByRole('heading', { name: 'Opening hours' })).toBeVisible()
})

test('sections that are nearly alike are found, with what differs, and made one component by keys', async ({
  page,
  app,
}) => {
  const context = page.context()
  await makePage(context, app, 'Alike in the mist')
  const second = await makePage(context, app, 'Alike in the haze')
  await page.goto(`${app.editor}/library`)
  await page.getByRole('button', { name: 'Find sections that are nearly alike…' }).click()
  const dialog = page.getByRole('dialog')
  const group = dialog.getByRole('listitem').filter({ hasText: 'Alike in the mist' })
  await expect(group.getByRole('heading', { name: /sections are (the same|nearly alike)/ })).toBeVisible()
  await noFindings(page)
  // Other pages may have sections of the same shape by now: they stay as they are.
  for (const row of (await group.getByRole('row').all()).slice(1))
    await row.getByRole('checkbox').setChecked(/^Alike in the/.test((await row.innerText()).trim()))
  // One section alone is no group.
  const left = group.getByRole('checkbox', { name: 'Alike in the haze' })
  await left.uncheck()
  await expect(group.getByRole('button', { name: /^Make one/ })).toBeDisabled()
  await left.check()
  await group.getByRole('textbox', { name: 'Name' }).fill('Mist and haze')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Made “Mist and haze” of sections on \d pages/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).press('Enter')
  await page.goto(`${app.editor}/pages/${second}`)
  await expect(page.getByRole('tree').getByRole('treeitem', { name: /Mist and haze/ })).toBeVisible()
  await expect(canvasOf(page).getByRole('heading', { name: 'More here' })).toBeVisible()
})
