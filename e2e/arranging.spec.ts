/** Arranging what is on a page: columns, dropping, words across blocks, several selected, holding, the details. */
import { asking, canvasOf, centreOf, drag, expect, openPage, test } from './app.ts'
import { add, addPage, told } from './building.ts'

test('columns: how many, how wide, by number, by preset, by keyboard and by hand', async ({ page, app }) => {
  await addPage(page, app, 'Columns', 'plain')
  const canvas = canvasOf(page)
  await asking(canvas, 'Write here.').click()
  await add(page, 'Columns')
  const columns = canvas.locator('.column')
  await expect(columns).toHaveCount(2)
  const widths = () => columns.evaluateAll((all) => all.map((one) => one.getBoundingClientRect().width))
  const share = async () => {
    const [first = 0, ...rest] = await widths()
    return Math.round((first / (first + rest.reduce((a, b) => a + b, 0))) * 100)
  }
  await expect.poll(share).toBe(50)
  await page.getByRole('spinbutton', { name: 'Column 1, %' }).fill('30')
  await page.getByRole('spinbutton', { name: 'Column 1, %' }).press('Enter')
  await expect.poll(share).toBe(30)
  await expect(page.getByRole('spinbutton', { name: 'Column 2, %' })).toHaveValue('70')
  await page.getByRole('button', { name: '75 %, 25 %' }).click()
  await expect.poll(share).toBe(75)
  const divider = page.getByRole('separator', { name: 'Between column 1 and 2' })
  await divider.focus()
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowLeft')
  await expect.poll(share).toBe(70)
  const at = (await divider.boundingBox())!
  await page.mouse.move(at.x + 8, at.y + 20)
  await page.mouse.down()
  await page.mouse.move(at.x - 120, at.y + 20, { steps: 6 })
  await page.mouse.up()
  await expect.poll(share).toBeLessThan(65)

  const wide = await share()
  const ruler = page.getByRole('slider', { name: 'Width of the page' })
  await page.getByRole('button', { name: 'medium', exact: true }).click()
  await expect(ruler).toHaveAttribute('aria-valuenow', '820')
  await page.getByRole('spinbutton', { name: 'Column 1, %' }).fill('40')
  await page.getByRole('spinbutton', { name: 'Column 1, %' }).press('Enter')
  await expect.poll(share).toBe(40)
  await page.getByRole('button', { name: 'wide', exact: true }).click()
  await expect.poll(share).toBe(wide)
  await page.getByRole('button', { name: 'medium', exact: true }).click()
  await expect.poll(share).toBe(40)
  await divider.focus()
  await page.keyboard.press('ArrowRight')
  await expect.poll(share).toBe(41)
  await page.getByRole('button', { name: 'Inherited' }).click()
  await expect.poll(share).toBe(wide)
  await page.getByRole('button', { name: 'wide', exact: true }).click()

  await page
    .getByRole('group', { name: 'Number of columns' })
    .getByRole('button', { name: '1', exact: true })
    .click()
  await expect(columns).toHaveCount(1)
  await expect(asking(columns.first(), 'Second')).toBeVisible()
  await page
    .getByRole('group', { name: 'Number of columns' })
    .getByRole('button', { name: '4', exact: true })
    .click()
  await expect(columns).toHaveCount(4)
  await expect.poll(share).toBe(25)
})

test('a block dropped at another’s side makes columns; where its kind can’t stand, it says why', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Beside', 'plain')
  const canvas = canvasOf(page)
  await asking(canvas, 'Write here.').click()
  await add(page, 'Quote')
  const quote = await centreOf(canvas.locator('.quote'))
  const text = asking(canvas, 'Write here.')
  const box = (await text.boundingBox())!
  await drag(page, quote, { x: box.x + box.width - 6, y: box.y + box.height / 2 })
  await expect(canvas.locator('.columns .column')).toHaveCount(2)
  await expect(canvas.locator('.column').nth(1).locator('.quote')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(canvas.locator('.columns')).toHaveCount(0)
})

test('words across blocks: Enter after a heading, Backspace before a text, heading and back, pasted Markdown', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Written across', 'plain')
  const canvas = canvasOf(page)
  await asking(canvas, 'First part').dblclick()
  await page.keyboard.type('First part')
  await page.keyboard.press('Enter')
  await page.keyboard.type('A new paragraph')
  await expect(canvas.locator('.text').filter({ hasText: 'A new paragraph' })).toBeVisible()
  await page.keyboard.press('Alt+1')
  // Typing goes on in what it became, with its own tools.
  await expect(canvas.locator('h2[contenteditable="true"]', { hasText: 'A new paragraph' })).toBeVisible()
  await page.keyboard.type(', and more')
  await page.keyboard.press('Alt+0')
  const text = canvas.locator('.text [contenteditable="true"], .text[contenteditable="true"]')
  await expect(text.filter({ hasText: 'A new paragraph, and more' })).toBeVisible()
  await expect(page.getByRole('toolbar', { name: 'Text formatting' })).toBeVisible()
  await page.keyboard.press('Alt+9')
  await expect(canvas.locator('.quote', { hasText: 'A new paragraph' })).toBeVisible()
  await page.keyboard.press('Alt+0')
  await expect(canvas.locator('.quote')).toHaveCount(0)
  // The text editor sets its caret once more a moment after it has got the focus; a hand sees that and waits.
  await expect
    .poll(async () => {
      await page.keyboard.press('Home')
      await page.waitForTimeout(100)
      return canvas.locator('body').evaluate((body) => body.ownerDocument.getSelection()?.anchorOffset)
    })
    .toBe(0)
  await page.keyboard.press('Backspace')
  await page.keyboard.press('Escape')
  await expect(canvas.getByRole('heading', { name: 'First part A new paragraph, and more' })).toBeVisible()
  await page.keyboard.press('Control+z')

  await asking(canvas, 'Write here.').dblclick()
  await page.keyboard.press('Control+a')
  await canvas.locator('[contenteditable="true"]').evaluate((element) => {
    const data = new DataTransfer()
    data.setData('text/plain', 'Some **bold** words\n\n- one\n- two\n\n[bad](javascript:alert(1))')
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  })
  await expect(canvas.getByRole('main').locator('.text strong')).toHaveText('bold')
  await expect(canvas.getByRole('main').locator('.text li')).toHaveText(['one', 'two'])
  await expect(canvas.getByRole('main').locator('.text a')).toHaveCount(0)
  await canvas.locator('[contenteditable="true"]').evaluate((element) => {
    const data = new DataTransfer()
    data.setData('text/plain', 'x'.repeat(10_000_000))
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  })
  await expect(told(page).filter({ hasText: 'Not pasted' })).toBeVisible()
})

test('the bar of a text at the canvas’s edge can be reached to its last button', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Tarrowmoor Observatory')
  await canvas.getByText('We open the dome at dusk.').dblclick()
  const bar = page.getByRole('toolbar', { name: 'Text formatting' })
  await expect(bar.getByRole('button', { name: 'Bold' })).toBeInViewport({ ratio: 1 })
  await expect(bar.getByRole('button', { name: 'Link' })).toBeInViewport({ ratio: 1 })
  await bar.getByRole('button', { name: 'Link' }).click()
  await expect(page.getByRole('dialog', { name: 'Link' })).toBeVisible()
})

test('several are selected by a box and with Shift, held, and given a look; the menu has all of it', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Several', 'landing')
  const canvas = canvasOf(page)
  const first = (await canvas.getByRole('heading', { level: 1 }).boundingBox())!
  const last = (await canvas.locator('.button').boundingBox())!
  await page.keyboard.down('Shift')
  await drag(
    page,
    { x: first.x - 12, y: first.y - 8 },
    { x: first.x + first.width + 8, y: last.y + last.height + 6 },
  )
  await page.keyboard.up('Shift')
  await expect(told(page).filter({ hasText: '3 blocks selected' })).toBeVisible()

  await canvas.locator('.feature').first().click()
  await page.getByRole('group', { name: 'Variant' }).getByRole('button', { name: 'Icon in a circle' }).click()
  await page.keyboard.press('Alt+c')
  const pointer = await centreOf(canvas.locator('.feature').last())
  await page.mouse.click(pointer.x, pointer.y, { button: 'right' })
  const menu = (await page.getByRole('menu').boundingBox())!
  // Where the pointer is: it opens to one side of it, whichever has room.
  expect(Math.min(Math.abs(menu.x - pointer.x), Math.abs(menu.x + menu.width - pointer.x))).toBeLessThan(40)
  expect(menu.y - 40 < pointer.y && pointer.y < menu.y + menu.height + 40).toBe(true)
  await page.getByRole('menuitem', { name: /^Paste look/ }).click()
  await expect(
    page.getByRole('group', { name: 'Variant' }).getByRole('button', { name: 'Icon in a circle' }),
  ).toHaveAttribute('aria-pressed', 'true')

  await page.getByRole('button', { name: 'More actions' }).click()
  await page.getByRole('menuitem', { name: /^Lock(?! all)/ }).click()
  await page.keyboard.press('Delete')
  await expect(told(page).filter({ hasText: 'is locked: it can’t be changed' })).toBeVisible()
  await expect(canvas.locator('.feature')).toHaveCount(3)
  // What is refused leaves selected what was.
  await expect(page.getByRole('treeitem', { selected: true })).toHaveAccessibleName(/Third reason/)
  await page.keyboard.press('Alt+l')
  await page.keyboard.press('Delete')
  await expect(canvas.locator('.feature')).toHaveCount(2)
})

test('the details: a setting is found by typing, set, and put back', async ({ page, app }) => {
  await addPage(page, app, 'Details', 'plain')
  const canvas = canvasOf(page)
  await asking(canvas, 'Write here.').click()
  await add(page, 'Group')
  const find = page.getByRole('textbox', { name: 'Search settings' })
  await find.fill('shadow')
  await expect(page.getByRole('combobox', { name: 'Corners' })).toHaveCount(0)
  await page.getByRole('group', { name: 'Shadow' }).getByRole('button', { name: 'High' }).click()
  const shadow = () => canvas.locator('.group').evaluate((one) => getComputedStyle(one).boxShadow)
  expect(await shadow()).not.toBe('none')
  await page.getByRole('button', { name: 'Shadow: changed. Reset' }).click()
  expect(await shadow()).toBe('none')
  await find.fill('')
  await page.getByRole('textbox', { name: 'Search blocks' }).fill('first part')
  await page.getByRole('treeitem', { name: 'Heading: First part' }).click()
  await expect(page.getByRole('textbox', { name: 'Text' })).toHaveAttribute('placeholder', 'First part')
})

test('the details: each value tells where it comes from: changed here, a wider size, another setting, what stands around, the theme', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Origins', 'plain')
  const details = page.getByRole('complementary', { name: 'Details' })
  const size = (at: string) => details.getByRole('combobox', { name: `Text size at ${at}` })
  await asking(canvasOf(page), 'First part').click()
  await expect(details.getByRole('combobox', { name: 'Text size', exact: true })).toHaveAccessibleDescription(
    'Text size: Headline, by heading level 2',
  )
  await details.getByRole('button', { name: 'Text size: set per size' }).click()
  await expect(size('wide')).toHaveAccessibleDescription('Text size: Headline, by heading level 2')
  await details.getByRole('group', { name: 'Heading level' }).getByRole('button', { name: '3' }).click()
  await expect(size('wide')).toHaveAccessibleDescription('Text size: Title, by heading level 3')
  await size('medium').selectOption({ label: 'Lead' })
  await expect(size('medium')).toHaveAccessibleDescription('Text size: Lead, changed')
  await expect(size('narrow')).toHaveAccessibleDescription('Text size: Lead, as medium')

  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await add(page, 'Group')
  const find = page.getByRole('textbox', { name: 'Search settings' })
  await find.fill('background')
  const origin = details.getByRole('button', { name: /^Background: / })
  await expect(origin).toHaveAccessibleName(/, as the page$/)

  await find.fill('')
  await asking(canvasOf(page), 'Write here.').first().click()
  await find.fill('variant')
  await details.getByRole('button', { name: 'Label', exact: true }).click()
  await find.fill('colour')
  await expect(details.getByRole('button', { name: 'Colour: Accent, by variant Label' })).toBeVisible()

  await openPage(page, app, 'News')
  await page
    .getByRole('treeitem', { name: /^Section: / })
    .first()
    .click()
  await find.fill('background')
  await details.getByRole('button', { name: 'Wood at night' }).click()
  await expect(origin).toHaveAccessibleName('Background: changed, in the colours of the theme Moss. Reset')
})
