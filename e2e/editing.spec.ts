/** Single acts of the editor, as a hand does them. */
import type { Page } from '@playwright/test'
import { asking, canvasOf, centreOf, drag, expect, openPage, test } from './app.ts'

const dragLayer = (page: Page) => page.getByTestId('drag-layer')

test('dragging on the canvas draws the landing place, and a refused place says why', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  const heading = canvas.getByRole('heading', { name: 'What to bring' })
  await heading.scrollIntoViewIfNeeded()
  const from = await centreOf(heading)
  const goal = await centreOf(canvas.getByRole('heading', { name: 'A red light, or none' }))
  await drag(page, from, { x: goal.x, y: goal.y + goal.height }, true)
  await expect(dragLayer(page).locator('[data-landing-mark]')).toBeVisible()
  await expect(dragLayer(page).getByRole('status')).toHaveText(/heading/)
  await page.keyboard.press('Escape')
  await expect(dragLayer(page)).toHaveCount(0)
  await page.mouse.up()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()

  await canvas.locator('header').scrollIntoViewIfNeeded()
  const lead = await centreOf(canvas.getByText('Come as you are, but come warm.'))
  const band = await centreOf(canvas.locator('header'))
  await drag(page, lead, band, true)
  await expect(dragLayer(page).getByRole('status')).toHaveText(
    /can't stand directly on a page: it takes sections/,
  )
  await page.mouse.up()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('dragging in the spine moves sections, and refuses a block where only sections stand', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  const spine = page.getByRole('navigation', { name: 'Spine' })
  const row = (name: string | RegExp) => spine.getByRole('treeitem', { name })
  await row('Section: What to bring').click()
  const block = await row(/^Heading: What to bring/).boundingBox()
  const section = await row('Section: Opening hours').boundingBox()
  await drag(page, { x: block!.x + 40, y: block!.y + 10 }, { x: section!.x + 40, y: section!.y + 3 }, true)
  await expect(dragLayer(page).getByRole('status')).toHaveText(/heading can't stand directly on a page/)
  await page.mouse.up()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()

  const bring = await row('Section: What to bring').boundingBox()
  await drag(page, { x: bring!.x + 40, y: bring!.y + 10 }, { x: section!.x + 40, y: section!.y + 3 })
  await expect(page.getByText('1 edit not saved')).toBeVisible()
  const titles = await canvas
    .locator('main > section')
    .evaluateAll((all) => all.map((one) => one.querySelector('h1,h2')?.textContent))
  expect(titles.slice(0, 3)).toEqual(['Visit us', 'What to bring', 'Opening hours'])
})

test('a thing from the shelf can be dragged to a place on the page', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Questions')
  await page.getByRole('button', { name: 'Add to page' }).click()
  const card = await centreOf(page.getByRole('button', { name: /^Button\./ }))
  const goal = await centreOf(canvas.getByText('If yours is not here'))
  await drag(page, card, { x: goal.x, y: goal.y + goal.height })
  const added = asking(canvas.locator('section').first(), 'Read more')
  await expect(added).toBeVisible()
})

test('sizes: a value set at narrow changes narrow alone, and can be put back', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Visit')
  const heading = canvas.getByRole('heading', { name: 'Opening hours' })
  await heading.click()
  await page.getByRole('button', { name: 'Alignment: set per size' }).click()
  await page.getByLabel('Alignment at narrow').selectOption('center')
  const align = () => heading.evaluate((element) => getComputedStyle(element).textAlign)
  expect(await align()).toBe('start')
  await page.getByRole('button', { name: 'narrow' }).click()
  await expect.poll(align).toBe('center')
  await page.getByLabel('Alignment at narrow').selectOption({ label: 'Inherited' })
  await expect.poll(align).toBe('start')
  await page.getByRole('slider', { name: 'Width of the page' }).press('End')
  await expect(page.getByRole('slider', { name: 'Width of the page' })).toHaveAttribute(
    'aria-valuenow',
    '1920',
  )
  await expect
    .poll(() => heading.evaluate((element) => element.ownerDocument.defaultView!.innerWidth))
    .toBe(1920)
})

test('words: a list and a link to a page are typed in place and come out as such', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Questions')
  await canvas.getByText('If yours is not here').dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('See how to visit us')
  await page.keyboard.press('Control+a')
  await page.getByRole('button', { name: 'Link', exact: true }).click()
  await page.getByRole('combobox', { name: 'Link' }).fill('visit')
  await page.getByRole('option', { name: /\/visit\/$/ }).click()
  await page.getByRole('button', { name: 'List', exact: true }).click()
  await page.keyboard.press('Escape')
  const link = canvas.getByRole('listitem').getByRole('link', { name: 'See how to visit us' })
  await expect(link).toHaveAttribute('href', '/visit/')
  // A link on the canvas does not carry the frame away.
  await link.click()
  await expect(canvas.getByRole('main')).toBeVisible()
})

test('words: every mark comes out as its element, and plain words have none', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'About')
  const text = canvas.locator('.text p').nth(1)
  await text.dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('H2O on a plate')
  for (const [name, tag] of [
    ['Bold', 'strong'],
    ['Italic', 'em'],
    ['Strikethrough', 's'],
    ['Subscript', 'sub'],
    ['Superscript', 'sup'],
    ['Code', 'code'],
  ] as const) {
    await page.keyboard.press('Control+a')
    await page
      .getByRole('toolbar', { name: 'Text formatting' })
      .getByRole('button', { name, exact: true })
      .click()
    await expect(canvas.locator(`.text p ${tag}`, { hasText: 'H2O on a plate' })).toBeVisible()
    await page.getByRole('button', { name: 'Clear formatting' }).click()
    await expect(canvas.locator(`.text p ${tag}`, { hasText: 'H2O on a plate' })).toHaveCount(0)
  }
  await page.keyboard.press('Control+a')
  await page.getByRole('button', { name: 'Code', exact: true }).click()
  await page.keyboard.press('Escape')
  await expect(canvas.locator('.text code', { hasText: 'H2O on a plate' })).toHaveCSS(
    'font-family',
    /monospace/,
  )
})

test('markup and script addresses stay words, and never become elements', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Questions')
  await canvas.getByRole('heading', { level: 1 }).dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('<img src=x onerror=alert(1)>')
  await page.keyboard.press('Escape')
  await expect(canvas.getByRole('heading', { level: 1 })).toHaveText('<img src=x onerror=alert(1)>')
  await canvas.getByRole('link', { name: 'Write to us' }).click()
  await page.getByLabel('Address').fill('javascript:alert(1)')
  await expect(page.getByText('This kind of address can’t be used.')).toBeVisible()
  await expect(canvas.getByRole('link', { name: 'Write to us' })).toHaveAttribute(
    'href',
    'mailto:door@tarrowmoor.example',
  )
})

test('problems are counted, listed, marked in the spine, and lead to the spot', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Questions')
  await expect(page.getByRole('button', { name: /problem/ })).toHaveCount(0)
  await canvas.getByRole('heading', { name: 'Can children come?' }).click()
  await page.getByLabel('Text', { exact: true }).fill('')
  await page.keyboard.press('Enter')
  await page.getByRole('treeitem', { name: 'Section: Questions' }).click()
  await page.getByRole('button', { name: '1 problem' }).click()
  await page
    .getByRole('dialog', { name: 'Problems of this page' })
    .getByRole('button', { name: /The placeholder “New heading” still stands here/ })
    .click()
  await expect(page.getByRole('list', { name: 'Problems of this block' })).toContainText(
    'The placeholder “New heading” still stands here: it will not be published',
  )
  await expect(
    page
      .getByRole('navigation', { name: 'Spine' })
      .getByRole('img', { name: /The placeholder “New heading”/ }),
  ).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /problem/ })).toHaveCount(0)
})

test('title, description and navigation are set where the page is, and a missing description is found', async ({
  page,
  app,
}) => {
  await openPage(page, app, 'Visit')
  const settings = page.getByRole('region', { name: 'Page settings' })
  await settings.getByRole('textbox', { name: /^Description/ }).fill('')
  await settings.getByRole('textbox', { name: 'Title' }).focus()
  await expect(page.getByRole('button', { name: '1 problem' })).toBeVisible()
  await settings.getByRole('textbox', { name: /^Description/ }).fill('How to come, and when')
  await expect(page.getByRole('button', { name: /problem/ })).toHaveCount(0)
  await settings.getByRole('textbox', { name: 'Title' }).fill('Come and visit')
  await expect(page.getByRole('heading', { level: 1, name: 'Come and visit' })).toBeVisible()
  await settings.getByRole('checkbox', { name: 'Show in navigation' }).click()
  await expect(
    canvasOf(page).getByRole('navigation').getByRole('link', { name: 'Come and visit' }),
  ).toHaveCount(0)
  // Part of the page like its blocks: undone, saved and there again.
  await settings.getByRole('textbox', { name: 'Title' }).press('Escape')
  await page.keyboard.press('Control+z')
  await expect(settings.getByRole('checkbox', { name: 'Show in navigation' })).toBeChecked()
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { level: 1, name: 'Come and visit' })).toBeVisible()
  await settings.getByRole('textbox', { name: 'Title' }).fill('Visit')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('leaving with edits that are not saved asks first', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Questions')
  await canvas.getByRole('heading', { name: 'Can children come?' }).click()
  await page.keyboard.press('Delete')
  await page.getByRole('link', { name: 'Tarrowmoor Observatory' }).click()
  const question = page.getByRole('alertdialog')
  await expect(question).toContainText('One edit is not saved')
  await question.getByRole('button', { name: 'Stay here' }).click()
  await expect(page.getByText('1 edit not saved')).toBeVisible()
  await page.getByRole('link', { name: 'Tarrowmoor Observatory' }).click()
  await question.getByRole('button', { name: 'Discard changes' }).click()
  await expect(page.getByRole('heading', { name: 'Pages' })).toBeVisible()
})

test('a save that fails keeps every edit, says so, and can be tried again', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Questions')
  await canvas.getByRole('heading', { name: 'Is it warm inside?' }).click()
  await page.keyboard.press('Alt+ArrowUp')
  await page.keyboard.press('Delete')
  await page.route('**/document', (route) => route.abort())
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('alert')).toHaveText('Not saved yet, trying again')
  await expect(canvas.getByRole('heading', { name: 'Is it warm inside?' })).toHaveCount(0)
  await page.unroute('**/document')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('a page can be added and renamed, and starts with the site’s header and footer', async ({
  page,
  app,
}) => {
  await page.goto(app.editor)
  await page.getByRole('button', { name: 'Add page' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill('Getting here')
  await page.getByRole('combobox', { name: 'Parent page' }).fill('visit')
  await page.getByRole('option', { name: /\/visit\/$/ }).click()
  await page.getByRole('radio', { name: /^Blank/ }).check({ force: true })
  await page.getByRole('dialog').getByRole('button', { name: 'Add page' }).click()
  const canvas = canvasOf(page)
  await expect(canvas.getByRole('banner')).toBeVisible()
  await page.getByRole('button', { name: 'Add to page' }).click()
  await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill('heading')
  await page.keyboard.press('Enter')
  // What is called so comes before what only speaks of it, and a block on an empty page gets a section around it.
  // It can be typed in at once.
  await page.keyboard.type('How to walk')
  await page.keyboard.press('Escape')
  await expect(canvas.getByRole('heading', { name: 'How to walk' })).toBeVisible()
  await expect(canvas.locator('main > section')).toHaveCount(1)
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.getByRole('link', { name: 'Tarrowmoor Observatory' }).click()
  await page.getByRole('button', { name: 'More actions: Getting here' }).click()
  await page.getByRole('menuitem', { name: /^Rename/ }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill('How to get here')
  await page.keyboard.press('Enter')
  const row = page.getByRole('row', { name: /How to get here/ })
  await expect(row).toContainText('/visit/getting-here/')
  await expect(row).toContainText('Draft')
})

test('problems come to the foot of the details, and move nothing that is about to be pressed', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Questions')
  // By its id: other tests leave copies of it.
  await canvas.locator('[data-node="ql"]').click()
  const details = page.getByRole('complementary', { name: 'Details' })
  const search = details.getByLabel('Search settings')
  await expect(search).toBeVisible()
  const before = await search.boundingBox()
  await details.getByRole('textbox', { name: 'Text', exact: true }).fill('')
  await expect(details.getByRole('list', { name: 'Problems of this block' })).toBeVisible()
  expect(await search.boundingBox()).toEqual(before)
})
