/** Building whole pages: the tree, navigation, templates, items, pictures. By mouse and by keyboard. */
import sharp from 'sharp'
import { asking, canvasOf, expect, test } from './app.ts'
import { noFindings } from './axe.ts'
import { add, addPage, addPageByHand, goTo, row } from './building.ts'

test('the tree: pages are moved by keyboard and by hand, copied, deleted and brought back', async ({
  page,
  app,
}) => {
  await page.goto(app.editor)
  await expect(row(page, 'News')).toBeVisible()
  const order = () => page.getByRole('row').getByRole('link').allTextContents()
  const before = await order()

  await row(page, 'News').getByRole('link').focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect.poll(order).not.toEqual(before)
  await page.keyboard.press('Alt+ArrowDown')
  await expect.poll(order).toEqual(before)
  await page.keyboard.press('Alt+Shift+ArrowRight')
  await expect(row(page, 'News')).toContainText('/instruments/news/')
  await page.getByRole('button', { name: 'More actions: News' }).click()
  await page.getByRole('menuitem', { name: /^Move up a level/ }).click()
  await expect(row(page, 'News')).toContainText('/news/')
  await expect.poll(order).toEqual(before)

  await row(page, 'The radio dish').dragTo(row(page, 'Questions').getByRole('gridcell').first(), {
    sourcePosition: { x: 40, y: 24 },
  })
  await expect(row(page, 'The radio dish')).toContainText('/questions/radio-dish/')
  await page.getByRole('button', { name: 'More actions: The radio dish' }).click()
  await page.getByRole('menuitem', { name: /^Duplicate/ }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Duplicate' }).click()
  await expect(row(page, 'The radio dish (copy)')).toContainText('Draft')

  await page.getByRole('button', { name: 'More actions: The radio dish (copy)' }).click()
  await page.getByRole('menuitem', { name: /^Delete/ }).click()
  await noFindings(page)
  await page.getByRole('dialog').getByRole('button', { name: 'Delete' }).click()
  await expect(row(page, 'The radio dish (copy)')).toHaveCount(0)
  await goTo(page, 'Bin')
  await page.getByRole('button', { name: 'Restore The radio dish (copy)' }).click()
  await expect(page.getByText('Restored “The radio dish (copy)”.')).toBeVisible()
  await expect(page.getByText('The bin is empty.')).toBeVisible()
  await noFindings(page)
  await goTo(page, 'Pages')
  await expect(row(page, 'The radio dish (copy)')).toBeVisible()
  await noFindings(page)
})

test('the navigation has an order of its own, and lines that lead elsewhere', async ({ page, app }) => {
  await page.goto(app.editor)
  await goTo(page, 'Navigation')
  const lines = page.getByRole('grid', { name: 'Navigation links in order' }).getByRole('row')
  await expect(lines.first()).toContainText('Visit')
  await page.getByRole('textbox', { name: 'Text' }).fill('Shop')
  await page.getByRole('textbox', { name: 'Address' }).fill('https://shop.example/')
  await page.getByRole('button', { name: 'Add link' }).click()
  await expect(lines.filter({ hasText: 'Shop' })).toHaveCount(1)
  await noFindings(page)
  expect(await (await fetch(app.site)).text()).toContain('href="https://shop.example/"')
  await page.getByRole('button', { name: 'Delete Shop' }).click()
  await expect(lines.filter({ hasText: 'Shop' })).toHaveCount(0)
})

test('a page is put into the navigation and taken out of it where the navigation is arranged', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Hut times', 'blank')
  await page.goto(`${app.editor}/navigation`)
  const lines = page.getByRole('grid', { name: 'Navigation links in order' }).getByRole('row')
  await expect(lines.filter({ hasText: 'Hut times' })).toHaveCount(1)
  await page.getByRole('button', { name: 'Hide Hut times' }).click()
  await expect(lines.filter({ hasText: 'Hut times' })).toHaveCount(0)
  await expect(page.getByText('the navigation without “Hut times” once the page is published')).toBeVisible()
  const other = page.getByRole('combobox', { name: 'Page', exact: true })
  await other.fill('hut t')
  await page.keyboard.press('Enter')
  await expect(lines.filter({ hasText: 'Hut times' })).toHaveCount(1)
  await noFindings(page)
  await page.getByRole('link', { name: 'Open page' }).click()
  await expect(page.getByRole('checkbox', { name: 'Show in navigation' })).toBeChecked()
})

test('a template is chosen by its picture, and another keeps all that was written', async ({ page, app }) => {
  await addPageByHand(page, app.editor, 'Night of the Moon', /^With a side column/)
  const canvas = canvasOf(page)
  await expect(canvas.getByRole('heading', { name: 'Night of the Moon' })).toBeVisible()
  await asking(canvas, 'First part').click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Template: Side column…' }).click()
  await page.getByRole('radio', { name: /^Article/ }).check({ force: true })
  await expect(page.getByRole('dialog')).toContainText('Everything on the page fits this template')
  await noFindings(page)
  await page.getByRole('button', { name: 'Use this template' }).click()
  await expect(asking(canvas.locator('article'), 'First part')).toBeVisible()

  await page.getByRole('button', { name: 'Template: Article…' }).click()
  await page.getByRole('radio', { name: /^Landing/ }).check({ force: true })
  await expect(page.getByRole('dialog')).toContainText('One part of the page has no place in it')
  await page.getByRole('button', { name: 'Use this template' }).click()
  await expect(page.getByRole('navigation', { name: 'Spine' })).toContainText(
    'Not in this template: not published',
  )
  await expect(canvas.getByRole('navigation', { name: 'Site' })).toHaveCount(0)
  await expect(asking(canvas, 'Second part')).toBeVisible()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(asking(canvas, 'First part')).toBeVisible()
  await expect(canvas.locator('.page-side')).toContainText('On this page')
})

test('fields of a template: what is missing is listed, leads to its place, and keeps the page from going live', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'A meteor', 'article')
  // Who wrote it is asked for, and does not keep anybody waiting.
  await expect(asking(canvasOf(page), 'Who wrote it')).toBeVisible()
  const heading = page.getByRole('textbox', { name: 'Article heading' })
  await heading.fill('')
  await heading.press('Enter')
  await page.getByRole('button', { name: /problem/ }).click()
  await page.getByRole('button', { name: /field “Article heading” is empty/ }).click()
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  const dialog = page.getByRole('dialog', { name: '1 problem to fix before publishing' })
  await expect(dialog).toContainText('The page’s field “Article heading” is empty')
  await dialog.getByRole('button', { name: 'Close' }).click()
  await heading.fill('A meteor over the moor')
  await page.getByRole('textbox', { name: 'Author' }).fill('Moss')
  await page.getByRole('textbox', { name: 'Author' }).press('Enter')
  await expect(canvasOf(page).getByText('Moss')).toBeVisible()
  await expect(canvasOf(page).getByRole('heading', { name: 'A meteor over the moor' })).toBeVisible()
})

test('items are added, put in order, copied and removed; empty ones and unchanged copies are told', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Asked often', 'questions')
  const canvas = canvasOf(page)
  await asking(canvas, 'First question').click()
  await page.getByRole('textbox', { name: 'Label' }).fill('First question')
  await page.getByRole('treeitem', { name: 'Text: Its answer.' }).first().click()
  await page.keyboard.press('Enter')
  await page.keyboard.type('Yes.')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  const items = page.getByRole('grid', { name: 'The items of this block' })
  await expect(items.getByRole('row')).toHaveCount(3)

  await page.getByRole('button', { name: 'Duplicate First question' }).click()
  await expect(items.getByRole('row')).toHaveCount(4)
  await page.getByRole('button', { name: 'Drag First question' }).nth(1).focus()
  await page.keyboard.press('Enter')
  for (let i = 0; i < 6; i++) {
    if ((await page.locator(':focus').getAttribute('aria-label'))?.match(/after Third question/i)) break
    await page.keyboard.press('ArrowDown')
  }
  await page.keyboard.press('Enter')
  await expect(items.getByRole('row').last()).toContainText('First question')
  await items
    .getByRole('row')
    .nth(1)
    .dragTo(items.getByRole('row').first(), {
      sourcePosition: { x: 60, y: 16 },
      targetPosition: { x: 80, y: 2 },
    })
  await expect(items.getByRole('row').first()).toContainText('Second question')
  await page.keyboard.press('Control+z')
  await expect(items.getByRole('row').first()).toContainText('First question')

  await page.getByRole('button', { name: 'Add an item' }).click()
  await page.getByRole('button', { name: /problems/ }).click()
  const problems = page.getByRole('dialog', { name: 'Problems of this page' })
  await expect(problems).toContainText('says the same as another one here')
  await problems.getByRole('button', { name: /The placeholder “New item” still stands here/ }).click()
  await expect(page.getByRole('textbox', { name: 'Label' })).toHaveAttribute('placeholder', 'New item')
  await page
    .getByRole('navigation', { name: 'Path to the selected block' })
    .getByRole('button', { name: 'Accordion and tabs' })
    .click()
  await page.getByRole('button', { name: 'Delete New item' }).click()
  await expect(items.getByRole('row')).toHaveCount(4)
  await noFindings(page)
})

test('pictures are added, refused with the reason, described, cropped where they are used, and found', async ({
  page,
  app,
}) => {
  const picture = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#315' } })
    .jpeg()
    .toBuffer()
  await page.goto(`${app.editor}/media-library`)
  await page.getByLabel('Files to upload').setInputFiles([
    { name: 'purple-night.jpg', mimeType: 'image/jpeg', buffer: picture },
    { name: 'not-a-picture.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('hello') },
  ])
  const uploads = page.getByRole('list', { name: 'Uploads' })
  await expect(uploads.getByRole('alert')).toContainText('neither a picture nor a drawing')
  const alt = uploads.getByRole('textbox', { name: 'Alternative text of purple-night.jpg' })
  await alt.fill('A purple night')
  await alt.blur()
  await page.getByRole('textbox', { name: 'Search media' }).fill('purple')
  await expect(page.getByRole('list', { name: 'Pictures' }).getByRole('button')).toHaveCount(1)
  await page.getByRole('list', { name: 'Pictures' }).getByRole('button').click()
  await expect(page.getByText('Not used on any page.')).toBeVisible()
  await noFindings(page)

  await addPage(page, app, 'With a picture', 'plain')
  const canvas = canvasOf(page)
  await asking(canvas, 'Write here.').click()
  await add(page, 'Picture')
  await page.getByRole('button', { name: 'Picture: choose' }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /A purple night/ })
    .click()
  await expect(canvas.getByRole('img', { name: 'A purple night' })).toBeVisible()
  await page.getByRole('button', { name: 'Picture: crop and focus' }).click()
  const dialog = page.getByRole('dialog', { name: 'Crop and focus' })
  const shown = dialog.getByRole('img')
  await expect.poll(async () => (await shown.boundingBox())?.width ?? 0).toBeGreaterThan(300)
  const whole = (await shown.boundingBox())!
  await page.mouse.move(whole.x + whole.width * 0.25, whole.y + whole.height * 0.25)
  await page.mouse.down()
  await page.mouse.move(whole.x + whole.width * 0.75, whole.y + whole.height * 0.75, { steps: 8 })
  await page.mouse.up()
  await dialog.getByRole('button', { name: 'Apply' }).click()
  await expect
    .poll(() =>
      canvas.locator('.picture picture').evaluate((box) => {
        const image = box.querySelector('img')!
        return Math.round((image.getBoundingClientRect().width / box.getBoundingClientRect().width) * 10)
      }),
    )
    .toBe(20)

  // By keyboard: the whole of it again, then from the middle, narrower by its right edge, and another focus point.
  const opener = page.getByRole('button', { name: 'Picture: crop and focus' })
  await opener.press('Enter')
  await dialog.getByRole('button', { name: 'Show the whole picture' }).press('Enter')
  await dialog.getByRole('button', { name: 'Crop to the middle' }).press('Enter')
  const edge = dialog.getByRole('button', { name: 'Right edge' })
  for (let i = 0; i < 5; i++) await edge.press('ArrowLeft')
  await dialog.getByRole('button', { name: 'Focus point', exact: true }).press('Enter')
  const point = dialog.getByRole('button', { name: /^Focus point: 50 % from the left/ })
  await point.focus()
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowUp')
  await expect(dialog.getByRole('button', { name: /^Focus point: 49 % from the left, 49 %/ })).toBeFocused()
  await dialog.getByRole('button', { name: 'Apply' }).press('Enter')
  await expect(dialog).toBeHidden()
  /** How much wider and higher all of the picture is than the part of it that is seen. */
  const seen = await canvas.locator('.picture picture').evaluate((box) => {
    const [all, part] = [box.querySelector('img')!, box].map((one) => one.getBoundingClientRect())
    return [all!.width / part!.width, all!.height / part!.height]
  })
  // The middle has 0.8 of each side; its right edge was moved in by some.
  expect(seen[0]).toBeGreaterThan(1.26)
  expect(seen[1]).toBeCloseTo(1.25, 1)
})
