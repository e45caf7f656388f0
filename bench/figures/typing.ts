import { chromium, type Browser, type BrowserContext, type Locator, type Page } from '@playwright/test'
import type { Application } from '../application.ts'
import { figureOf, median, type Figure } from '../measure.ts'

const LETTERS = 60
const ROUNDS = 3

/** Where letters are typed, by the selector that finds it in the frame. */
const PLACES = [
  { figure: 'd', selector: 'h2', what: 'on a page of 1,000 blocks' },
  { figure: 'w', selector: '.site-header .brand', what: 'in the header of such a page' },
] as const

/**
 * (d), (w): from a key press to the next paint, on a page of 1,000 blocks: typed on the canvas, against the letter being
 * put straight into the same DOM node, in the same frame of another tab of the editor.
 */
export async function typingFigures(app: Application): Promise<Figure[]> {
  const figures: Figure[] = []
  for (const place of PLACES) figures.push(await typingFigure(app, place))
  return figures
}

/** (A): a letter on a page of 3,000 blocks, against one on a page of 1,000. One tab at a time: another would be measured meanwhile. */
export async function largePageFigure(app: Application): Promise<Figure> {
  const { browser, context } = await openBrowser(app)
  const times = new Map([3_000, 1_000].map((blocks) => [blocks, [] as number[]]))
  for (let round = 0; round < ROUNDS; round++)
    for (const [blocks, taken] of times) {
      // A new one each time: what another tab left unsaved would be offered to this one.
      const { id } = await app.makePage(blocks)
      const page = await context.newPage()
      await page.goto(`${app.editor}/pages/${id}`)
      await page.frameLocator('iframe[title^="The page,"]').locator('h2').first().dblclick()
      // Code that has just come is slow at first, on any page.
      await typeLetters(page)
      taken.push(...(await typeLetters(page)))
      await page.close()
    }
  await browser.close()
  const [ours, reference] = [...times.values()].map(median)
  const about = 'From key press to paint on a page of 3,000 blocks, against one of 1,000'
  return figureOf('A', 1.5, about, { ours: ours!, reference: reference! })
}

async function typingFigure(
  app: Application,
  { figure, selector, what }: (typeof PLACES)[number],
): Promise<Figure> {
  const { browser, context } = await openBrowser(app)
  const { id } = await app.makePage(1_000)
  const open = async (): Promise<{ page: Page; words: Locator }> => {
    const page = await context.newPage()
    await page.goto(`${app.editor}/pages/${id}`)
    const canvas = page.frameLocator('iframe[title^="The page,"]')
    return { page, words: canvas.locator(selector).first() }
  }
  const ours = await open()
  await ours.words.dblclick()
  const reference = await open()
  await reference.words.click()
  // The frame runs no scripts, so the listener is the editor's window's. Letters alone are no command of the editor.
  await reference.page.evaluate((found) => {
    const frame = document.querySelector<HTMLIFrameElement>('iframe[title^="The page,"]')!
    const words = frame.contentDocument!.querySelector(found)!
    frame.contentWindow!.addEventListener('keydown', (event) => (words.textContent += event.key))
  }, selector)
  const times = { ours: [] as number[], reference: [] as number[] }
  for (let round = 0; round < ROUNDS; round++) {
    times.ours.push(...(await typeLetters(ours.page)))
    times.reference.push(...(await typeLetters(reference.page)))
  }
  await browser.close()
  const about = `From key press to paint ${what}, against assigning the text`
  return figureOf(figure, 2, about, { ours: median(times.ours), reference: median(times.reference) })
}

/** A browser that is signed in. */
export async function openBrowser(app: Application): Promise<{ browser: Browser; context: BrowserContext }> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    args: ['--headless', '--no-sandbox', '--disable-gpu'],
  })
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const [name, value] = app.cookie.split('=') as [string, string]
  await context.addCookies([{ name, value, url: app.editor }])
  // tsx names functions by a helper of its own, which a page does not have.
  await context.addInitScript('globalThis.__name = (value) => value')
  return { browser, context }
}

function typeLetters(page: Page): Promise<number[]> {
  return pressKeys(page, LETTERS, (i) => 'abcdefghij'[i % 10]!)
}

/** Presses keys and gives how long after each press its frame was painted, in ms. */
export async function pressKeys(page: Page, times: number, keyAt: (i: number) => string): Promise<number[]> {
  await page.bringToFront()
  // The frame is sandboxed without scripts, so the editor's own window does the listening.
  await page.evaluate(() => {
    const view = document.querySelector<HTMLIFrameElement>('iframe[title^="The page,"]')!.contentWindow!
    const store = window as unknown as { painted: number[]; stop?: () => void }
    store.stop?.()
    store.painted = []
    const onKey = (event: KeyboardEvent): void => {
      // What is held down with a key does nothing by itself.
      if (event.key === 'Alt' || event.key === 'Control') return
      const pressed = event.timeStamp + (view.performance.timeOrigin - performance.timeOrigin)
      // A message that is posted in the frame's callback is handled after the frame was painted.
      requestAnimationFrame(() => {
        const { port1, port2 } = new MessageChannel()
        port1.onmessage = () => store.painted.push(performance.now() - pressed)
        port2.postMessage(undefined)
      })
    }
    view.addEventListener('keydown', onKey as EventListener, true)
    store.stop = () => view.removeEventListener('keydown', onKey as EventListener, true)
  })
  for (let i = 0; i < times; i++) {
    await page.keyboard.press(keyAt(i))
    // Presses fall at different moments of the frame, as those of a person do.
    await page.waitForTimeout(25 + ((i * 7) % 17))
  }
  return page.evaluate(() => (window as unknown as { painted: number[] }).painted)
}
