/** Components: what each instance says for itself, how it may be styled, what it must say, and its variants. */
import { canvasOf, expect, test } from './app.ts'
import { noFindings } from './axe.ts'
import { expectSaved, makePage } from './shared-pages.ts'

test('a component: made of blocks, its fields filled in on the page and in the details, its source changed everywhere', async ({
  page,
  app,
}) => {
  const context = page.context()
  const id = await makePage(context, app, 'Cards in the fog')
  const canvas = canvasOf(page)
  await page.goto(`${app.editor}/pages/${id}`)
  await canvas.getByRole('heading', { name: 'More here' }).click()
  await page.keyboard.press('Alt+Shift+M')
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Fog card')
  await dialog.getByRole('checkbox', { name: /^Component/ }).check()
  await noFindings(page)
  await dialog.getByRole('button', { name: 'Make component' }).click()
  const cards = page.getByRole('treeitem', { name: 'Component: Fog card' })
  await expect(cards).toHaveAttribute('aria-selected', 'true')

  // By keys: a second one, whose first field is typed in at once.
  await page.keyboard.press('Control+Enter')
  await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill('Fog card')
  await page.keyboard.press('Enter')
  await expect(cards).toHaveCount(2)
  await page.keyboard.type('Said by keys')
  await page.keyboard.press('Escape')
  await expect(canvas.getByRole('heading', { name: 'Said by keys' })).toBeVisible()
  await expect(canvas.getByRole('heading', { name: 'More here' })).toHaveCount(1)

  // By mouse, where it stands.
  await canvas.getByRole('heading', { name: 'More here' }).dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Said on the page')
  await page.keyboard.press('Escape')
  await expect(canvas.getByRole('heading', { name: 'Said on the page' })).toBeVisible()
  await expect(canvas.getByRole('heading', { name: 'Said by keys' })).toBeVisible()
  // In the details, and back to what the component says.
  const details = page.getByRole('complementary', { name: 'Details' })
  await details.getByRole('textbox', { name: 'Heading' }).fill('Said in the details')
  await expect(canvas.getByRole('heading', { name: 'Said in the details' })).toBeVisible()
  await noFindings(page)
  await details.getByRole('button', { name: 'Heading: changed. Reset' }).click()
  await expect(canvas.getByRole('heading', { name: 'More here' })).toBeVisible()

  // The component itself: another name for the field, with help.
  await cards.last().click()
  await details.getByRole('button', { name: 'Edit component' }).click()
  // The instance in which the component is edited shows the component’s own words.
  await expect(canvas.getByRole('heading', { name: 'Said by keys' })).toHaveCount(0)
  await expect(canvas.getByRole('heading', { name: 'More here' })).toHaveCount(2)
  await details.getByRole('textbox', { name: 'Name of the field for Text' }).fill('Title')
  await details.getByRole('textbox', { name: 'Help for Title' }).fill('In three words')
  await canvas.getByRole('heading', { name: 'More here' }).last().dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Said by the component')
  await page.keyboard.press('Escape')
  await noFindings(page)
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(canvas.getByRole('heading', { name: 'Said by the component' })).toBeVisible()
  await expect(canvas.getByRole('heading', { name: 'Said by keys' })).toBeVisible()
  await expect(details.getByText('In three words')).toBeVisible()
  await expect(details.getByRole('textbox', { name: 'Title' })).toHaveValue('Said by keys')

  await page.keyboard.press('Control+s')
  await expectSaved(page)
  await page.reload()
  await expect(canvas.getByRole('heading', { name: 'Said by keys' })).toBeVisible()
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await dialog.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  const html = await (await fetch(`${app.site}/cards-in-the-fog/`)).text()
  for (const words of ['Said by the component', 'Said by keys']) expect(html).toContain(words)
})

test('a component: a field is required and limited, a style is let to instances, and what one says becomes a variant', async ({
  page,
  app,
}) => {
  const id = await makePage(page.context(), app, 'Rules in the fog')
  const canvas = canvasOf(page)
  const details = page.getByRole('complementary', { name: 'Details' })
  const dialog = page.getByRole('dialog')
  await page.goto(`${app.editor}/pages/${id}`)
  await canvas.getByRole('heading', { name: 'More here' }).click()
  await page.keyboard.press('Alt+Shift+M')
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Rule card')
  await dialog.getByRole('checkbox', { name: /^Component/ }).check()
  await dialog.getByRole('button', { name: 'Make component' }).click()
  const cards = page.getByRole('treeitem', { name: 'Component: Rule card' })
  await expect(cards).toHaveAttribute('aria-selected', 'true')

  // By mouse, in the component: its text is required and short, and its colour is let to instances.
  await details.getByRole('button', { name: 'Edit component' }).click()
  await canvas.getByRole('heading', { name: 'More here' }).click()
  await details.getByRole('checkbox', { name: 'Heading is required' }).check()
  await details.getByRole('spinbutton', { name: 'Most characters of Heading' }).fill('12')
  await details.getByRole('combobox', { name: 'Make a field of' }).selectOption({ label: 'Colour' })
  await expect(details.getByRole('textbox', { name: 'Name of the field for Colour' })).toHaveValue(
    'Heading: colour',
  )
  await noFindings(page)
  await page.getByRole('button', { name: 'Done' }).click()

  // What is asked for is listed until it is filled in, and publishing waits for it.
  await cards.first().click()
  await expect(details.getByText('(required)')).toBeVisible()
  await page.getByRole('button', { name: /problem/ }).click()
  await expect(page.getByRole('button', { name: /“Heading” is not filled in/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await cards.first().click()
  await details.getByRole('textbox', { name: 'Heading', exact: true }).fill('Much too long for this')
  await expect(page.getByText('“Heading” is not filled in')).toHaveCount(0)
  await expect(details.getByText('“Heading” has 22 characters; at most 12 are asked for')).toBeVisible()

  // By keys: what this one says becomes a variant, which a second one is then of.
  await details.getByRole('textbox', { name: 'Heading', exact: true }).fill('Fog')
  await details.getByRole('button', { name: 'Save as variant…' }).press('Enter')
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Foggy')
  await noFindings(page)
  await page.keyboard.press('Enter')
  await expect(details.getByRole('combobox', { name: 'Variant' })).toHaveValue(/./)
  await expect(canvas.getByRole('heading', { name: 'Fog', exact: true })).toHaveCount(1)
  await cards.first().click()
  await page.keyboard.press('Alt+Shift+ArrowDown')
  await expect(canvas.getByRole('heading', { name: 'Fog', exact: true })).toHaveCount(2)
  await details.getByRole('combobox', { name: 'Variant' }).selectOption('Default')
  await expect(canvas.getByRole('heading', { name: 'Fog', exact: true })).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await expect(canvas.getByRole('heading', { name: 'Fog', exact: true })).toHaveCount(2)
  await page.keyboard.press('Control+s')
  await dialog
    .getByRole('button', { name: 'Save', exact: true })
    .click({ timeout: 3_000 })
    .catch(() => undefined)
  await expectSaved(page)
  await page.reload()
  await expect(canvas.getByRole('heading', { name: 'Fog', exact: true })).toHaveCount(2)
  await canvas.getByRole('heading', { name: 'Fog', exact: true }).first().click()
  await expect(details.getByRole('combobox', { name: 'Variant' })).toHaveValue(/./)
  await details.getByRole('button', { name: 'Delete variant' }).click()
  await expect(canvas.getByRole('heading', { name: 'Fog', exact: true })).toHaveCount(1)
})
