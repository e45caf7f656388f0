/** Sweeps a page in a Chromium of its own, for programs without a screen. */
import { existsSync } from 'node:fs'
import type { Browser, Page } from 'playwright-core'
import type { Gully } from '@gullyline/core'
import { measuringScript } from '../generated/script.js'
import type { FrameSweep } from './frame-sweep.ts'

/** Where Debian puts it. */
const PLACES = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium']
/** Nobody is asked for this name: every request is answered from memory. */
const ORIGIN = 'http://page.invalid'
/** The address of the document around the page, where no page has a file. */
const AROUND = '/.around'
/** The page's frame is as high as a screen: heights in shares of the window are as visitors see them. */
const FRAME = `<!DOCTYPE html><html lang="en"><meta charset="utf-8"><title>Measuring</title>
<div style="position:fixed;left:0;top:0;width:0;height:0;overflow:hidden;visibility:hidden;contain:strict">
<iframe title="Page" src="/" width="1280" height="900" style="border:0"></iframe></div>`
/** So often a sweep can be ended, in ms. */
const SLICE_MS = 250

/** Thrown where no Chromium is installed. */
export class NoChromium extends Error {
  constructor() {
    super('Chromium is not installed. Install it with: apt-get install chromium-headless-shell')
  }
}

export function hasChromium(): boolean {
  return PLACES.some((path) => existsSync(path))
}

/** Starts the machine's Chromium. Throws `NoChromium` where there is none. */
export async function startChromium(): Promise<Browser> {
  const executablePath = PLACES.find((path) => existsSync(path))
  if (executablePath === undefined) throw new NoChromium()
  // As root, which has no sandbox of its own to start.
  const args = process.getuid?.() === 0 ? ['--no-sandbox'] : []
  // A second's work, for this alone of all commands.
  const { chromium } = await import('playwright-core')
  return chromium.launch({ executablePath, args })
}

/** A page as one document, with what it asks for. */
export interface SweptPage {
  readonly html: string
  /** The first widths of the sizes but the narrowest, in px. */
  readonly bounds: readonly number[]
  /** A file by its address within the page; undefined where there is none. */
  readonly fileAt: (path: string) => { readonly type: string; readonly body: Buffer } | undefined
}

export interface SweepOptions {
  readonly ends?: { readonly from: number; readonly to: number }
  /** Ends the sweep early: what is known by then is given. */
  readonly signal?: AbortSignal
}

/** All gullies of a page, in the order of its bands. */
export async function sweepInChromium(
  browser: Browser,
  swept: SweptPage,
  { ends, signal }: SweepOptions = {},
): Promise<readonly Gully[]> {
  const page = await browser.newPage()
  try {
    await answerFrom(page, swept)
    await page.goto(ORIGIN + AROUND)
    await page.addScriptTag({ content: measuringScript })
    await page.evaluate(
      async (options) => {
        const own = window as unknown as MeasuringWindow
        own.sweep = await own.gullyline.FrameSweep.of(document.querySelector('iframe')!, options)
      },
      { bounds: swept.bounds, ends },
    )
    const goOn = () => page.evaluate((ms) => (window as unknown as MeasuringWindow).sweep.goOn(ms), SLICE_MS)
    while (!signal?.aborted && !(await goOn()));
    return await page.evaluate(() => (window as unknown as MeasuringWindow).sweep.gullies())
  } finally {
    await page.close()
  }
}

async function answerFrom(page: Page, { html, fileAt }: SweptPage): Promise<void> {
  await page.route('**/*', (route) => {
    const { pathname } = new URL(route.request().url())
    if (pathname === '/' || pathname === AROUND)
      return route.fulfill({
        contentType: 'text/html; charset=utf-8',
        body: pathname === '/' ? html : FRAME,
      })
    const file = fileAt(decodeURIComponent(pathname.slice(1)))
    return file ? route.fulfill({ contentType: file.type, body: file.body }) : route.fulfill({ status: 404 })
  })
}

/** What the script puts into the window, and what is kept there. */
interface MeasuringWindow {
  gullyline: typeof import('./frame-sweep.ts')
  sweep: FrameSweep
}
