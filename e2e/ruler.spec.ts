/** The page as others see it: with other settings, on other screens, at any widths side by side, and as a chart of them all. */
import { canvasOf, expect, test } from './app.ts'
import { counter, openFaults } from './gully-faults.ts'

test.use({ isMeasuring: true })

test('the page as visitors see it who set their browser, and side by side at any widths', async ({
  page,
  app,
}) => {
  await openFaults(page, app, ['focus-order'])
  const canvas = canvasOf(page)
  const sizeOf = () =>
    canvas.getByRole('heading', { level: 1 }).evaluate((one) => parseFloat(getComputedStyle(one).fontSize))
  await expect(canvas.getByRole('heading', { level: 1 })).toBeVisible()
  const before = await sizeOf()
  await page.getByRole('button', { name: 'View as visitors' }).click()
  await page.getByRole('menuitemcheckbox', { name: 'Text at 200 %' }).click()
  await page.keyboard.press('Escape')
  expect(await sizeOf()).toBeGreaterThan(1.2 * before)
  await page.getByRole('button', { name: 'View as visitors: Text at 200 %' }).click()
  await page.getByRole('menuitemcheckbox', { name: 'Text at 200 %' }).click()
  await page.keyboard.press('Escape')
  expect(await sizeOf()).toBe(before)

  await page.keyboard.press('Control+Shift+L')
  const lineUp = page.getByRole('main', { name: 'Line-up' })
  await lineUp.getByRole('textbox', { name: 'Width' }).fill('600')
  await lineUp.getByRole('button', { name: 'Add width' }).click()
  await expect(lineUp.getByRole('region', { name: 'narrow, 600 pixels' })).toBeVisible()
  // On narrow screens the columns are turned round, which is told there and not at the wide size.
  await expect(lineUp.getByRole('region', { name: 'narrow, 390 pixels' })).toContainText('1 gully', {
    timeout: 60_000,
  })
  await expect(lineUp.getByRole('region', { name: 'wide, 1440 pixels' })).not.toContainText('gully')
  const at = (name: string) => page.frameLocator(`iframe[title^="The page at ${name}"]`)
  await at('wide, 1440').getByText('Tonight').last().click()
  for (const name of ['narrow, 390', 'narrow, 600', 'wide, 1440'])
    await expect(at(name).locator('[data-node="b1"]')).toHaveCSS('outline-style', 'solid')
  // What is at the top of one is at the top of all, also once a width has gone.
  const scrolled = (name: string) =>
    at(name)
      .locator('[data-node="order"]')
      .evaluate((section) => section.getBoundingClientRect().top)
  const scrollTo = (name: string) =>
    at(name)
      .locator('[data-node="order"]')
      .evaluate((section) => {
        const view = section.ownerDocument.defaultView!
        view.scrollTo({ top: view.scrollY + section.getBoundingClientRect().top, behavior: 'instant' })
      })
  await lineUp.getByRole('button', { name: 'Remove 600' }).click()
  await expect(lineUp.getByRole('region', { name: 'narrow, 600 pixels' })).toBeHidden()
  // The same by keyboard.
  await lineUp.getByRole('textbox', { name: 'Width' }).press('Enter')
  await lineUp.getByRole('button', { name: 'Remove 600' }).press('Enter')
  await expect(lineUp.getByRole('region', { name: 'narrow, 600 pixels' })).toBeHidden()
  await at('narrow, 390')
    .locator('body')
    .evaluate(({ ownerDocument }) => {
      // So high that every section can come to the top.
      for (const frame of ownerDocument.defaultView!.parent.document.querySelectorAll('iframe'))
        if (frame.title.startsWith('The page at')) frame.contentDocument!.body.style.paddingBottom = '4000px'
    })
  await scrollTo('narrow, 390')
  await expect.poll(async () => Math.abs(await scrolled('wide, 1440'))).toBeLessThan(2)
})

test('the chart tells height, lines and pictures at every width, and a press on it shows the page there', async ({
  page,
  app,
}) => {
  await openFaults(page, app, ['last-row', 'focus-order'])
  await expect(counter(page)).toContainText('at 1,601 widths', { timeout: 60_000 })
  await counter(page).click()
  await page.getByRole('button', { name: 'Chart by width…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Page at every width' })
  const figures = async (size: string) =>
    (
      await dialog
        .getByRole('row', { name: new RegExp(`^${size} `) })
        .getByRole('cell')
        .allInnerTexts()
    ).map((text) => Number(text.replace(/\D/g, '')))
  await expect(dialog.getByRole('row', { name: /^narrow .* kB$/ })).toBeVisible()
  const [narrow, wide] = [await figures('narrow'), await figures('wide')]
  for (const figure of [...narrow, ...wide]) expect(figure).toBeGreaterThan(0)
  // The picture that is loaded is a smaller one.
  expect(narrow[3]!).toBeLessThan(wide[3]!)
  const width = page.getByRole('slider', { name: 'Width of the page' })
  const chart = dialog.getByRole('img', { name: /^Height, lines of text/ })
  const { x, y } = (await chart.boundingBox())!
  const drawn = () => chart.locator('svg').evaluate((svg) => svg.innerHTML)
  await page.mouse.move(x + 90, y + 60)
  await page.mouse.down()
  // A press counts where the curves are drawn anew before it ends, too.
  const before = await drawn()
  await page.emulateMedia({ colorScheme: 'dark' })
  await expect.poll(drawn).not.toBe(before)
  await page.mouse.up()
  await page.emulateMedia({ colorScheme: null })
  await page.keyboard.press('Escape')
  await expect(width).toHaveAttribute('aria-valuenow', /^(3|4)\d\d$/)
  // The height that is told is the one that the page has there.
  await page
    .getByRole('region', { name: 'Ruler' })
    .getByRole('button', { name: 'narrow', exact: true })
    .click()
  await width.focus()
  for (let at = 390; at > narrow[0]!; at--) await page.keyboard.press('ArrowLeft')
  await expect(width).toHaveAttribute('aria-valuenow', String(narrow[0]))
  const height = () =>
    canvasOf(page)
      .locator('body')
      .evaluate((body) => body.getBoundingClientRect().height)
  await expect.poll(async () => Math.abs((await height()) - narrow[1]!)).toBeLessThan(3)
})

test('measuring is paused and resumed, and the browser remembers it', async ({ page, app }) => {
  await openFaults(page, app, ['broken-word'])
  await expect(counter(page)).toContainText(/^\d+ gull/, { timeout: 60_000 })
  await counter(page).click()
  await page.getByRole('button', { name: 'Pause measuring' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Measuring paused' })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Measuring paused' })).toBeVisible()
  await page.keyboard.press('F8')
  await expect(page.getByText(/^Measuring is paused: resume it/)).toBeVisible()
  await page.getByRole('button', { name: 'Measuring paused' }).click()
  await page.getByRole('button', { name: 'Resume measuring' }).click()
  await page.keyboard.press('Escape')
  await expect(counter(page)).toContainText(/^\d+ gull/, { timeout: 60_000 })

  // A page that was changed later, in another tab, is measured first.
  const measured = page.getByText('at 1,601 widths')
  await expect(measured).toBeVisible({ timeout: 60_000 })
  const other = await page.context().newPage()
  await other.goto(`${app.editor}/help`)
  await other.evaluate(() => {
    const channel = new BroadcastChannel('gullyline.measuring')
    const heard = window as unknown as { heard: number }
    heard.heard = 0
    channel.onmessage = () => heard.heard++
    setInterval(() => channel.postMessage({ changedAt: Date.now() + 3_600_000 }), 100)
  })
  await canvasOf(page).getByRole('heading', { level: 1 }).dblclick()
  // That a page is edited is told at each change, and not only once it is measured after a pause.
  await page.keyboard.type('Late', { delay: 150 })
  await expect(measured).toBeHidden()
  expect(await other.evaluate(() => (window as unknown as { heard: number }).heard)).toBeGreaterThan(2)
  await page.waitForTimeout(3_000)
  await expect(measured).toBeHidden()
  await other.close()
  await expect(measured).toBeVisible({ timeout: 60_000 })
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
})
