/** Where scrollbars take room, as on most desktops: pages in frames are as wide as the ruler says all the same. */
import { chromium, type Browser, type Locator, type Page } from '@playwright/test'
import config from '../playwright.config.ts'
import { expect, openPage, signIn, test, type App } from './app.ts'

/** The width in px that a frame's page is laid out in, and that of its window. */
function widthsOf(frame: Locator): Promise<readonly [page: number, window: number]> {
  return frame.evaluate((element: HTMLIFrameElement) => [
    element.contentDocument!.documentElement.clientWidth,
    element.contentWindow!.innerWidth,
  ])
}

let browser: Browser

test.beforeAll(async () => {
  browser = await chromium.launch({ ...config.use!.launchOptions, ignoreDefaultArgs: ['--hide-scrollbars'] })
})
test.afterAll(() => browser.close())

/** A window of the keeper's, in the browser that shows scrollbars. */
async function openWindow(app: App): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  await signIn(context, app)
  return context.newPage()
}

test('a page is laid out at the whole width of its frame, and has its scrollbar beside it', async ({
  app,
}) => {
  const page = await openWindow(app)
  const canvas = await openPage(page, app, 'Visit')
  await expect(canvas.getByText('Keep the dome turning')).toBeAttached()
  const frame = page.getByTitle(/^The page, /)
  expect(await widthsOf(frame)).toEqual([1280, 1280])

  const area = (await page.getByRole('main', { name: 'Canvas' }).boundingBox())!
  const scrolled = (): Promise<number> => canvas.locator('html').evaluate((html) => html.scrollTop)
  const [onBar, low] = [area.x + area.width - 7, area.y + area.height - 40]
  expect(await scrolled()).toBe(0)
  // Beside the thumb: a windowful further, and back.
  await page.mouse.click(onBar, low)
  await expect.poll(scrolled).toBeGreaterThan(300)
  await page.mouse.click(onBar, area.y + 62)
  await expect.poll(scrolled).toBe(0)
  // The thumb goes with the page, and takes it along.
  await page.mouse.move(area.x + area.width / 2, low)
  await page.mouse.wheel(0, 5000)
  await expect(canvas.getByText('Keep the dome turning')).toBeInViewport()
  const end = await scrolled()
  await page.mouse.move(onBar, low)
  await page.mouse.down()
  await page.mouse.move(onBar, area.y + 60, { steps: 4 })
  await page.mouse.up()
  await expect.poll(scrolled).toBeLessThan(end / 2)

  // Where the machine is slow, it hears of having followed the page when the page has gone on: that stops nobody.
  await canvas.locator('html').evaluate((html) => html.ownerDocument.defaultView!.scrollTo(0, 200))
  const bar = page.getByRole('main', { name: 'Canvas' }).locator('[tabindex="-1"][aria-hidden]')
  await expect.poll(() => bar.evaluate(({ scrollTop }) => scrollTop)).toBeGreaterThan(0)
  const goneOn = await bar.evaluate((element) => {
    const view = document.querySelector<HTMLIFrameElement>('iframe[title^="The page,"]')!.contentWindow!
    view.scrollTo(0, 500)
    element.dispatchEvent(new Event('scroll'))
    return view.scrollY
  })
  expect(goneOn).toBe(500)

  // A press on it takes nothing away from what is being typed.
  const heading = canvas.locator('h1')
  await heading.dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type(' tonight')
  await page.mouse.click(onBar, low)
  await expect.poll(scrolled).toBeGreaterThan(300)
  await page.keyboard.type(' and on')
  await expect(heading).toHaveText(/ tonight and on$/)
  await page.keyboard.press('Escape')

  await page.context().close()
})

test('pages beside each other are as wide as they say, and have one scrollbar beside them all', async ({
  app,
}) => {
  const page = await openWindow(app)
  await openPage(page, app, 'Visit')
  await page.keyboard.press('Control+Shift+L')
  const lineUp = page.getByRole('main', { name: 'Line-up' })
  const expectScrolled = async (sides: Locator, count: number): Promise<void> => {
    await expect(sides).toHaveCount(count)
    for (const side of await sides.all())
      await expect.poll(async () => new Set(await widthsOf(side)).size).toBe(1)
    const area = (await lineUp.boundingBox())!
    const scrolled = (): Promise<number[]> =>
      sides.evaluateAll((all) => all.map((one) => (one as HTMLIFrameElement).contentWindow!.scrollY))
    await expect.poll(scrolled).toEqual(Array.from({ length: count }, () => 0))
    await page.mouse.click(area.x + area.width - 7, area.y + area.height - 40)
    await expect.poll(async () => Math.min(...(await scrolled()))).toBeGreaterThan(100)
  }
  await expectScrolled(page.getByTitle(/^The page at /), 3)
  // To its end: nothing of a page lies below the screen.
  const screen = (await lineUp.boundingBox())!
  for (const shown of await page.getByTitle(/^The page at /).all()) {
    const { y, height } = (await shown.boundingBox())!
    expect(y + height).toBeLessThan(screen.y + screen.height + 2)
  }
  // The narrowest leads. Where it is gone, the next one does.
  await page
    .getByRole('button', { name: /^Remove / })
    .first()
    .click()
  await page.mouse.move(640, 500)
  await page.mouse.wheel(0, -20_000)
  await expectScrolled(page.getByTitle(/^The page at /), 2)
  await page.getByRole('button', { name: 'With last saved' }).click()
  await expectScrolled(page.getByTitle(/^The page (now|last saved), /), 2)
  await page.context().close()
})
