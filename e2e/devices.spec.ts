/** The page on other devices: at a private address that follows what is edited, and in the simulated device. */
import jsQR from 'jsqr'
import sharp from 'sharp'
import type { Locator, Page } from '@playwright/test'
import { defaultRegistry, getKind, newNode, type PageNode } from '@gullyline/core'
import { noFindings } from './axe.ts'
import { canvasOf, expect, test, type App } from './app.ts'
import { addPageOf, makePage } from './shared-pages.ts'

async function openDialog(page: Page, app: App, title: string): Promise<Locator> {
  return openDialogOf(page, app, await makePage(page.context(), app, title))
}

async function openDialogOf(page: Page, app: App, id: string): Promise<Locator> {
  await page.goto(`${app.editor}/pages/${id}`)
  await expect(canvasOf(page).getByRole('heading', { level: 1 })).toBeVisible()
  await page.getByRole('button', { name: 'Screens' }).click()
  await page.getByRole('menuitem', { name: 'Open on another device…' }).click()
  return page.getByRole('dialog', { name: 'Open on another device' })
}

const addressIn = (dialog: Locator): Promise<string> =>
  dialog.getByRole('textbox', { name: 'Private address' }).inputValue()

/** What a decoder that knows nothing of the program reads from the screen. */
async function readCode(code: Locator): Promise<string | undefined> {
  const { data, info } = await sharp(await code.screenshot())
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data
}

test('the code leads to the page, which follows what is typed, and ends when it is told to', async ({
  page,
  app,
  browser,
}) => {
  const dialog = await openDialog(page, app, 'On a phone')
  const address = await addressIn(dialog)
  expect(await readCode(dialog.getByRole('img', { name: /QR code/ }))).toBe(address)
  await expect(dialog).toContainText('Only this computer can open it.')
  await noFindings(page)
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write'])
  await dialog.getByRole('button', { name: 'Copy' }).click()
  await expect(dialog.getByRole('button', { name: 'Copied' })).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(address)

  // Nobody is signed in on the phone.
  const phone = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  })
  const screen = await phone.newPage()
  await screen.goto(address)
  await expect(screen.getByRole('heading', { level: 1 })).toHaveText('On a phone')
  await dialog.getByRole('button', { name: 'Close' }).click()
  const heading = canvasOf(page).getByRole('heading', { level: 1 })
  await heading.dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type(', typed at a desk')
  await expect(screen.getByRole('heading', { level: 1 })).toHaveText(/, typed at a desk$/)
  await page.keyboard.press('Escape')

  // By keyboard; the address is the same for as long as it lasts.
  await page.keyboard.press('Control+Shift+Enter')
  await page.keyboard.type('another device')
  await page.keyboard.press('Enter')
  expect(await addressIn(dialog)).toBe(address)
  await dialog.getByRole('button', { name: 'End address' }).press('Enter')
  await expect(dialog.getByRole('status')).toHaveText(/has ended/)
  await expect(screen.getByRole('status')).toHaveText(/This private address has ended/)
  await dialog.getByRole('button', { name: 'Make a new address' }).click()
  await expect(dialog.getByRole('textbox', { name: 'Private address' })).not.toHaveValue(address)
  await phone.close()
})

test('the simulated device has a screen of its own, is scrolled by a finger, and hovers over nothing', async ({
  page,
  app,
}) => {
  const dialog = await openDialog(page, app, 'Under a finger')
  const opening = page.waitForEvent('popup')
  await dialog.getByRole('button', { name: 'Open simulated device' }).click()
  const device = await opening
  await device.setViewportSize({ width: 600, height: 940 })
  const inner = device.frameLocator('iframe')
  await expect(inner.getByRole('heading', { level: 1 })).toHaveText('Under a finger')
  const widthOf = () => inner.locator('html').evaluate(() => window.innerWidth)
  expect(await widthOf()).toBe(390)
  await device.getByLabel('Screen').selectOption({ label: 'Small phone' })
  await expect.poll(widthOf).toBe(360)
  await device.getByRole('button', { name: 'Rotate' }).press('Enter')
  await expect.poll(widthOf).toBe(800)
  await noFindings(device)

  // A press that moves scrolls; what it began on is not followed.
  const scrolled = () => inner.locator('html').evaluate((root) => root.scrollTop)
  const box = (await device.locator('iframe').boundingBox())!
  const at = { x: box.x + box.width / 2, y: box.y + box.height * 0.7 }
  await device.mouse.move(at.x, at.y)
  await device.mouse.down()
  await device.mouse.move(at.x, at.y - 100, { steps: 5 })
  await device.mouse.up()
  await expect.poll(scrolled).toBeGreaterThan(90)
  // One that stays opens what it is on.
  const more = inner.getByText('When?')
  await more.scrollIntoViewIfNeeded()
  await expect(inner.getByRole('heading', { name: 'In the panel' })).toBeHidden()
  const target = (await more.boundingBox())!
  await device.mouse.click(target.x + target.width / 2, target.y + target.height / 2)
  await expect(inner.getByRole('heading', { name: 'In the panel' })).toBeVisible()
  const hovering = await inner
    .locator('html')
    .evaluate((root) =>
      [...root.ownerDocument.styleSheets].some((sheet) =>
        [...sheet.cssRules].some(({ cssText }) => cssText.includes(':hover')),
      ),
    )
  expect(hovering).toBe(false)

  // It follows what is edited as well.
  await dialog.getByRole('button', { name: 'Close' }).click()
  await canvasOf(page).getByRole('heading', { level: 1 }).dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type(', still')
  await expect(inner.getByRole('heading', { level: 1 })).toHaveText('Under a finger, still')
  await device.close()
})

test('the simulated device shows what moves as people see it who asked for less motion', async ({
  page,
  app,
}) => {
  const node = (kind: string, given: Parameters<typeof newNode>[1]): PageNode =>
    newNode(getKind(defaultRegistry, kind), given)
  const said = ['first', 'second', 'third']
  const { id } = await addPageOf(page.context(), app, {
    title: 'Without motion',
    sections: ['s1'],
    nodes: {
      s1: node('section', { slots: { blocks: ['h1', 'vs'] } }),
      h1: node('heading', { content: { text: 'Without motion', level: 1 } }),
      vs: node('voices', {
        content: { label: 'Nights' },
        look: { display: 'slides' },
        sizes: { base: { shows: '1' } },
        slots: { voices: said },
      }),
      ...Object.fromEntries(said.map((one) => [one, node('voice', { content: { said: one, who: 'Ada' } })])),
    },
  })
  const dialog = await openDialogOf(page, app, id)
  const opening = page.waitForEvent('popup')
  await dialog.getByRole('button', { name: 'Open simulated device' }).click()
  const device = await opening
  const inner = device.frameLocator('iframe')
  const list = inner.getByRole('list', { name: /^Nights/ })
  const next = inner.getByRole('button', { name: 'Next' })
  const scrolling = () => inner.locator('html').evaluate((root) => getComputedStyle(root).scrollBehavior)
  /** Where a step on goes through, in px. */
  const stops = async (): Promise<number[]> => {
    const seen = list.evaluate(
      (element) =>
        new Promise<number[]>((resolve) => {
          const places: number[] = []
          element.addEventListener('scroll', () => places.push(element.scrollLeft))
          element.addEventListener('scrollend', () => resolve(places), { once: true })
        }),
    )
    await next.click()
    return seen
  }
  const still = device.getByRole('button', { name: 'Reduced motion' })
  await expect(still).toHaveAttribute('aria-pressed', 'false')
  // The page's styles come after its frame.
  await expect.poll(scrolling).toBe('smooth')
  expect((await stops()).length).toBeGreaterThan(1)
  await still.press('Enter')
  await expect(still).toHaveAttribute('aria-pressed', 'true')
  await expect.poll(scrolling).toBe('auto')
  expect(await stops()).toHaveLength(1)
  await still.click()
  await expect.poll(scrolling).toBe('smooth')
  await device.close()
})
