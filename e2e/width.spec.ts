/** The width of the page and what is seen of it: by dragging, by keys, and as visitors see it who have set their browser. */
import sharp from 'sharp'
import type { Page } from '@playwright/test'
import { canvasOf, drag, expect, openPage, test } from './app.ts'
import { openFaults } from './gully-faults.ts'

const slider = (page: Page) => page.getByRole('slider', { name: 'Width of the page' })

test('the width is dragged along the ruler and set by keys, and what is selected stays in view', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  const frame = page.locator('iframe[title^="The page,"]')
  const block = canvas.getByRole('heading', { level: 2 }).last()
  await block.click()
  const isSeen = async (): Promise<boolean> => {
    const [box, around] = [await block.boundingBox(), await frame.boundingBox()]
    return box!.y >= around!.y - 1 && box!.y + box!.height <= around!.y + around!.height + 1
  }
  const handle = (await slider(page).boundingBox())!
  const from = { x: handle.x + handle.width / 2, y: handle.y + handle.height / 2 }
  const ruler = (await page.getByRole('region', { name: 'Ruler' }).boundingBox())!
  await drag(page, from, { x: ruler.x + 0.15 * ruler.width, y: from.y }, true)
  const dragged = Number(await slider(page).getAttribute('aria-valuenow'))
  expect(dragged).toBeLessThan(700)
  await expect.poll(() => canvas.locator('html').evaluate(() => window.innerWidth)).toBe(dragged)
  expect(await isSeen()).toBe(true)
  await page.mouse.up()

  await slider(page).focus()
  for (const [key, by] of [
    ['ArrowRight', 1],
    ['ArrowLeft', -1],
    ['Shift+ArrowRight', 10],
    ['Shift+ArrowLeft', -10],
  ] as const) {
    const before = Number(await slider(page).getAttribute('aria-valuenow'))
    await page.keyboard.press(key)
    await expect(slider(page)).toHaveAttribute('aria-valuenow', String(before + by))
  }
  for (const key of ['Home', 'End', 'Alt+PageUp', 'Alt+PageUp']) {
    await page.keyboard.press(key)
    expect(await isSeen(), key).toBe(true)
  }
  // With a block selected, Enter presses what has the focus.
  await page.getByRole('region', { name: 'Ruler' }).getByRole('button', { name: 'narrow' }).press('Enter')
  await expect(slider(page)).toHaveAttribute('aria-valuenow', '390')
  await expect(canvas.locator('[contenteditable="true"]')).toHaveCount(0)
  // Scrolled away from it, a person is left where they are.
  await canvas
    .locator('html')
    .evaluate(({ ownerDocument }) => ownerDocument.defaultView!.scrollTo({ top: 0, behavior: 'instant' }))
  await expect.poll(isSeen).toBe(false)
  await slider(page).press('Shift+ArrowLeft')
  expect(await isSeen()).toBe(false)
})

test('a setting and another size leave the fonts of the page as they are', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Visit')
  const html = canvas.locator('html')
  const kept = await html.evaluateHandle(async ({ ownerDocument: { fonts } }) => [...(await fonts.ready)])
  const same = (): Promise<boolean> =>
    html.evaluate(({ ownerDocument }, before) => {
      const now = [...ownerDocument.fonts]
      return now.length > 0 && now.length === before.length && now.every((font, i) => font === before[i])
    }, kept)
  expect(await same()).toBe(true)

  const section = canvas.locator('main .section').first()
  const before = await section.evaluate((element) => getComputedStyle(element).paddingTop)
  await page
    .getByRole('treeitem', { name: /^Section: / })
    .first()
    .click()
  await page
    .getByRole('complementary', { name: 'Details' })
    .getByRole('combobox', { name: 'Space above' })
    .selectOption({ index: 0 })
  await expect(section).not.toHaveCSS('padding-top', before)
  await page.getByRole('region', { name: 'Ruler' }).getByRole('button', { name: 'narrow' }).click()
  await expect(slider(page)).toHaveAttribute('aria-valuenow', '390')
  expect(await same()).toBe(true)
})

test('a page in its own size is moved by mouse, and turned and zoomed by keyboard', async ({ page, app }) => {
  await openPage(page, app, 'Visit')
  const screens = page.getByRole('button', { name: 'Screens' })
  const byKeys = async (letters: string): Promise<void> => {
    await screens.press('Enter')
    await expect(page.getByRole('menu', { name: 'Screens' })).toBeVisible()
    await page.keyboard.type(letters)
    await page.keyboard.press('Enter')
  }
  await byKeys('tablet')
  const held = await slider(page).getAttribute('aria-valuenow')
  await byKeys('rotate')
  await expect(slider(page)).not.toHaveAttribute('aria-valuenow', held!)
  await byKeys('rotate')
  await expect(slider(page)).toHaveAttribute('aria-valuenow', held!)

  await slider(page).press('End')
  await byKeys('zoom to 1')
  const frame = page.locator('iframe[title^="The page,"]')
  await expect.poll(async () => Math.round((await frame.boundingBox())!.width)).toBe(1920)
  const left = (await frame.boundingBox())!.x
  const pan = (await page.getByRole('slider', { name: 'Pan sideways' }).boundingBox())!
  const y = pan.y + pan.height / 2
  await drag(page, { x: pan.x + 8, y }, { x: pan.x + pan.width / 2, y })
  await expect.poll(async () => (await frame.boundingBox())!.x).toBeLessThan(left - 100)
  await byKeys('zoom to fit')
  await expect.poll(async () => Math.round((await frame.boundingBox())!.width)).toBeLessThan(1280)
})

test('each view of visitors is turned on by mouse and off by keyboard', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Tarrowmoor Observatory')
  const text = canvas.locator('main p').first()
  const styleOf = (selector: string, property: string) =>
    canvas
      .locator(selector)
      .first()
      .evaluate((element, name) => getComputedStyle(element).getPropertyValue(name), property)
  const size = parseFloat(await styleOf('main p', 'font-size'))
  /** What each does to the page, read off the page. */
  const views: Readonly<Record<string, () => Promise<boolean>>> = {
    'Text at 200 %': async () => parseFloat(await styleOf('main p', 'font-size')) > 1.9 * size,
    // WCAG 2.2, 1.4.12: letters 0.12 of the font size, words 0.16, lines 1.5.
    'More text spacing': async () =>
      Math.abs(parseFloat(await styleOf('main p', 'letter-spacing')) - 0.12 * size) < 0.1 &&
      Math.abs(parseFloat(await styleOf('main p', 'word-spacing')) - 0.16 * size) < 0.1 &&
      parseFloat(await styleOf('main p', 'line-height')) >= 1.5 * size - 0.1,
    'Pictures not loaded': async () => (await styleOf('main img', 'visibility')) === 'hidden',
    'Without colours': async () => (await styleOf('html', 'filter')).includes('grayscale(1)'),
    'Darkened by the browser': async () => (await styleOf('html', 'filter')).includes('invert(1)'),
    'Forced colours': async () => (await styleOf('main p', 'color')) === 'rgb(255, 255, 255)',
    'Printed without backgrounds': async () => (await styleOf('main p', 'color')) === 'rgb(0, 0, 0)',
  }
  await expect(text).toBeVisible()
  const opener = page.getByRole('button', { name: /^View as visitors/ })
  const menu = page.getByRole('menu', { name: 'View as visitors' })
  for (const [name, isSo] of Object.entries(views)) {
    expect(await isSo(), name).toBe(false)
    await opener.click()
    await menu.getByRole('menuitemcheckbox', { name }).click()
    await page.keyboard.press('Escape')
    await expect.poll(isSo, name).toBe(true)
    await opener.press('Enter')
    await page.keyboard.type(name.slice(0, 6).toLowerCase())
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
    await expect(opener).toHaveAccessibleName('View as visitors')
  }
})

test('the page is shown at widths of common screens, turned, in its own size, and as visitors see it who chose their colours', async ({
  page,
  app,
}) => {
  await openFaults(page, app, [])
  const width = page.getByRole('slider', { name: 'Width of the page' })
  const screens = page.getByRole('button', { name: 'Screens' })
  const choose = async (name: RegExp | string): Promise<void> => {
    await screens.click()
    await page.getByRole('menuitem', { name }).click()
  }
  await choose(/^Phone, 390 px/)
  await expect(width).toHaveAttribute('aria-valuenow', '390')
  await choose(/^Rotate/)
  await expect(width).toHaveAttribute('aria-valuenow', '844')
  // By keyboard: the menu, and the first of its entries.
  await screens.press('Enter')
  await page.keyboard.press('Enter')
  await expect(width).toHaveAttribute('aria-valuenow', '320')

  await choose(/^Desktop, 1920 px/)
  const frame = page.locator('iframe[title^="The page,"]')
  const drawn = async () => Math.round((await frame.boundingBox())!.width)
  expect(await drawn()).toBeLessThan(1000)
  await choose('Zoom to 100 %')
  await expect.poll(drawn).toBe(1920)
  // The name of what is selected stands where the block does, also after the page was moved.
  const heading = canvasOf(page).getByRole('heading', { name: 'Broken' })
  await heading.click({ position: { x: 20, y: 10 } })
  const name = page.getByText('Heading: Broken', { exact: true })
  const apart = async () => Math.abs((await name.boundingBox())!.x - (await heading.boundingBox())!.x)
  await expect.poll(apart).toBeLessThan(12)
  const left = async () => (await frame.boundingBox())!.x
  const before = await left()
  const pan = page.getByRole('slider', { name: 'Pan sideways' })
  await pan.focus()
  for (let i = 0; i < 40; i++) await page.keyboard.press('ArrowRight')
  expect(await left()).toBe(before - 40)
  await expect.poll(apart).toBeLessThan(12)
  await page.keyboard.press('End')
  await expect.poll(left).toBeLessThan(before - 500)
  // Its right edge is in sight.
  const canvas = page.getByRole('main', { name: 'Canvas' })
  const [box, room] = [(await frame.boundingBox())!, (await canvas.boundingBox())!]
  expect(box.x + box.width).toBeLessThanOrEqual(room.x + room.width + 1)
  await choose('Zoom to fit')
  await expect.poll(drawn).toBeLessThan(1000)

  await page.getByRole('button', { name: 'View as visitors' }).click()
  await page.getByRole('menuitemcheckbox', { name: 'Forced colours' }).click()
  await page.keyboard.press('Escape')
  await expect(canvasOf(page).getByRole('heading', { name: 'Broken' })).toHaveCSS(
    'color',
    'rgb(255, 255, 255)',
  )
})

test('a page darkened by the browser is dark where it was light, and its pictures stay as they are', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Tarrowmoor Observatory')
  const picture = canvas.getByRole('img', { name: /^The Moon half lit/ })
  const words = canvas.getByRole('heading', { name: 'The Moon at first quarter' })
  /** How light each is on the screen, from 0 to 255. */
  const seen = async (): Promise<readonly number[]> => {
    const lights: number[] = []
    for (const one of [words, picture]) {
      await one.scrollIntoViewIfNeeded()
      const { channels } = await sharp(await one.screenshot())
        .greyscale()
        .stats()
      lights.push(channels[0]!.mean)
    }
    return lights
  }
  const toggle = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: /^View as visitors/ }).click()
    await page.getByRole('menuitemcheckbox', { name }).press('Enter')
    await page.keyboard.press('Escape')
  }
  const [light, before] = await seen()
  await toggle('Darkened by the browser')
  const [dark, after] = await seen()
  expect(light).toBeGreaterThan(200)
  expect(dark).toBeLessThan(80)
  expect(Math.abs(after! - before!)).toBeLessThan(6)
  // Both at once: neither takes the other away.
  await toggle('Without colours')
  expect((await seen())[0]).toBeLessThan(80)
  await toggle('Darkened by the browser')
  expect((await seen())[0]).toBeGreaterThan(200)
})
