import { canvasOf, expect, openPage, test } from './app.ts'

test('without a pointer: find a block, add beside it by name, type, move, look, undo and save', async ({
  page,
  app,
}) => {
  await page.goto(`${app.editor}/pages/tmvisit`)
  const canvas = canvasOf(page)
  await expect(canvas.getByRole('heading', { name: 'Visit us' })).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('treeitem', { name: 'Section: Opening hours', exact: true })).toHaveAttribute(
    'aria-selected',
    'true',
  )
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('heading')
  await page
    .getByRole('region', { name: 'Shelf' })
    .getByRole('button', { name: /^Heading\./ })
    .focus()
  await page.keyboard.press('Enter')
  // What was just added can be typed in at once.
  await page.keyboard.type('Before you set out')
  await page.keyboard.press('Escape')
  await expect(canvas.getByRole('heading', { name: 'Before you set out' })).toBeVisible()
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.getByRole('contentinfo').getByRole('status')).toHaveText(
    /^Moved heading “Before you set out” (after|to the beginning)/,
  )
  await page.keyboard.press('Alt+PageUp')
  await expect(page.getByRole('slider', { name: 'Width of the page' })).toHaveAttribute(
    'aria-valuenow',
    '820',
  )
  await page.keyboard.press('Control+Shift+Enter')
  await page.keyboard.type('line-up')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('main', { name: 'Line-up' })).toBeVisible()
  await page.keyboard.press('Control+Shift+L')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('a block is copied on one page and pasted on another, with ids of its own', async ({ page, app }) => {
  const visit = await openPage(page, app, 'Visit')
  await visit.getByText('Come as you are, but come warm.').click()
  await page.keyboard.press('Control+c')
  const about = await openPage(page, app, 'About')
  await about.getByRole('heading', { name: 'How it began' }).click()
  await page.keyboard.press('Control+v')
  await page.keyboard.press('Control+v')
  await expect(about.getByText('Come as you are, but come warm.')).toHaveCount(2)
  await page.keyboard.press('Control+x')
  await expect(about.getByText('Come as you are, but come warm.')).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('Escape ends a drag and nothing else: what was selected stays selected', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Visit')
  await canvas.getByRole('heading', { name: 'Getting here' }).click()
  const box = (await canvas.getByRole('heading', { name: 'Getting here' }).boundingBox())!
  await page.mouse.move(box.x + 20, box.y + 10)
  await page.mouse.down()
  await page.mouse.move(box.x + 60, box.y - 60, { steps: 4 })
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await expect(page.getByRole('treeitem', { name: 'Heading: Getting here' })).toHaveAttribute(
    'aria-selected',
    'true',
  )
})

test('commands are reached from a focused button too, which does not take their keys for a press', async ({
  page,
  app,
}) => {
  await openPage(page, app, 'About')
  await page.getByRole('button', { name: 'Publish', exact: true }).focus()
  await page.keyboard.press('Control+Shift+Enter')
  await expect(page.getByRole('dialog', { name: 'Search everything' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
})

test('two blocks are put in a row and taken out again, and undo leads back', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Visit')
  await canvas.getByRole('heading', { name: 'Getting here' }).click()
  const parentOf = (name: string) =>
    canvas
      .getByRole('heading', { name })
      .evaluate((heading) => heading.parentElement!.className.split(' ')[0])
  const before = await parentOf('Getting here')
  await page.keyboard.press('Alt+Shift+W')
  await expect(page.getByRole('contentinfo').getByRole('status')).toHaveText(
    'Wrapped heading “Getting here” in a row',
  )
  await expect.poll(() => parentOf('Getting here')).toBe('row')
  await page.keyboard.press('Alt+U')
  await expect.poll(() => parentOf('Getting here')).toBe(before)
  await page.keyboard.press('Control+z')
  await expect.poll(() => parentOf('Getting here')).toBe('row')
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('blocks go to other programs as HTML and text, and words of other programs come in as blocks', async ({
  page,
  app,
}) => {
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'], { origin: app.editor })
  const canvas = await openPage(page, app, 'Visit')
  await canvas.getByRole('heading', { name: 'Opening hours' }).click()
  await page.keyboard.press('Control+c')
  await expect(page.getByRole('contentinfo').getByRole('status')).toHaveText(/^Copied heading/)
  const copied = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read()
    const read = async (type: string) => (await item!.getType(type)).text()
    return { html: await read('text/html'), text: await read('text/plain') }
  })
  expect(copied.text).toBe('Opening hours')
  expect(copied.html).toContain('<h2>Opening hours</h2>')

  await page.evaluate(async () => {
    const html =
      '<h2 style="color:red">From afar</h2><p>Come <b>warm</b>.</p><script>document.title = "evil"</script>' +
      '<table><tr><th>What</th><th>When</th></tr><tr><td>Dome</td><td>Nightfall</td></tr></table>'
    const blob = new Blob([html], { type: 'text/html' })
    await navigator.clipboard.write([new ClipboardItem({ 'text/html': blob })])
  })
  await page.keyboard.press('Control+v')
  await expect(canvas.getByRole('heading', { name: 'From afar' })).toBeVisible()
  await expect(canvas.locator('strong', { hasText: 'warm' })).toBeVisible()
  await expect(canvas.getByRole('columnheader', { name: 'When' })).toBeVisible()
  await expect(canvas.getByRole('cell', { name: 'Nightfall' })).toBeVisible()
  await expect(page).not.toHaveTitle('evil')
  await page.keyboard.press('Control+z')
  await expect(canvas.getByRole('heading', { name: 'From afar' })).toHaveCount(0)
  await expect(canvas.getByRole('cell', { name: 'Nightfall' })).toHaveCount(0)

  // While words are typed: a list of LibreOffice Writer keeps its levels, a table of Markdown stands after the words.
  await canvas.getByText('Two pairs of socks').first().dblclick()
  const put = (type: string, words: string) =>
    page.evaluate(
      async ([as, text]) => {
        const blob = new Blob([text!], { type: as! })
        await navigator.clipboard.write([new ClipboardItem({ [as!]: blob })])
      },
      [type, words],
    )
  await put('text/html', '<ul><li><p>torch</p></ul><ul><ul><li><p>red light</p></ul></ul>')
  await page.keyboard.press('Control+End')
  await page.keyboard.press('Control+v')
  await expect(canvas.locator('li li', { hasText: 'red light' })).toBeVisible()
  await put('text/plain', '| Bus | At |\n|---|---|\n| 9 | noon |')
  await page.keyboard.press('Control+v')
  await expect(canvas.getByRole('columnheader', { name: 'Bus' })).toBeVisible()
  await expect(canvas.getByRole('cell', { name: 'noon' })).toBeVisible()
})

test('from a field of the details, Escape leads to the page with what was typed, and undo puts it back', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  const heading = canvas.getByRole('heading', { name: 'Opening hours' })
  await heading.click()
  const words = page.getByRole('textbox', { name: 'Text' })
  await words.fill('Something else')
  await expect(canvas.getByRole('heading', { name: 'Something else' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(words).not.toBeFocused()
  await expect(words).toHaveValue('Something else')
  await page.keyboard.press('Control+z')
  await expect(words).toHaveValue('Opening hours')
  await page.keyboard.press('Alt+Shift+ArrowDown')
  await expect(heading).toHaveCount(2)

  for (const name of ['Search settings', 'Search blocks']) {
    const find = page.getByRole('textbox', { name })
    await find.fill('nothing is called so')
    await page.keyboard.press('Escape')
    await expect(find).toHaveValue('')
    await page.keyboard.press('Escape')
    await expect(find).not.toBeFocused()
  }
  await page.keyboard.press('Control+z')
  await expect(heading).toHaveCount(1)

  // Left by other keys, what was typed is journaled.
  await heading.click()
  await words.fill('When we are open')
  await page.keyboard.press('Tab')
  await expect(canvas.getByRole('heading', { name: 'When we are open' })).toBeVisible()
})
