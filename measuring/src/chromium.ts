/** Sweeps a page in a Chromium of its own, for programs without a screen. */
import { existsSync } from 'node:fs'
import type { Browser, Page } from 'playwright-core'
import {
  PageSweep,
  readBand,
  type Gully,
  type MeasuredBand,
  type Pixels,
  type PixelsOf,
  type SweepJob,
} from '@gullyline/core'
import { measuringScript } from '../generated/script.js'

/** Where Debian puts it. */
const PLACES = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium']
/** Nobody is asked for this name: every request is answered from memory. */
const ORIGIN = 'http://page.invalid'
const HEIGHT = 900

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
  const page = await browser.newPage({ viewport: { width: 1280, height: HEIGHT } })
  try {
    await answerFrom(page, swept)
    await page.goto(`${ORIGIN}/`)
    await page.addScriptTag({ content: measuringScript })
    const nodes = await begin(page, swept.bounds)
    const pixels = await pixelsOf(page)
    const sweep = new PageSweep(swept.bounds, ends)
    sweep.show(new Map(nodes.map((node, i) => [String(i), node])))
    for (let job = sweep.next(); job && !signal?.aborted; job = sweep.next()) {
      const { setting } = job
      const measured = await measure(page, job)
      sweep.take(job, new Map(measured.map(([key, band]) => [key, readBand(band, pixels, setting)])))
    }
    return sweep.gullies()
  } finally {
    await page.close()
  }
}

async function answerFrom(page: Page, { html, fileAt }: SweptPage): Promise<void> {
  await page.route('**/*', (route) => {
    const { pathname } = new URL(route.request().url())
    if (pathname === '/') return route.fulfill({ contentType: 'text/html; charset=utf-8', body: html })
    const file = fileAt(decodeURIComponent(pathname.slice(1)))
    return file ? route.fulfill({ contentType: file.type, body: file.body }) : route.fulfill({ status: 404 })
  })
}

/** What the script puts into the page's window. */
type Measuring = typeof import('./index.ts')
interface MeasuredWindow {
  gullyline: Measuring
  measurer: InstanceType<Measuring['BandMeasurer']>
}

/** Takes the bands of the page, numbered from the top; gives the node that each is. */
async function begin(page: Page, bounds: readonly number[]): Promise<readonly string[]> {
  return page.evaluate(async (given) => {
    const own = window as unknown as MeasuredWindow
    const { BandMeasurer, bandsOf, nodeOfBand } = own.gullyline
    await document.fonts.ready
    const bands = bandsOf(document.body)
    own.measurer = new BandMeasurer(document, given)
    own.measurer.show(new Map(bands.map((band, i) => [String(i), band])))
    return bands.map(nodeOfBand)
  }, bounds)
}

async function measure(page: Page, job: SweepJob): Promise<readonly (readonly [string, MeasuredBand])[]> {
  await page.setViewportSize({ width: job.width, height: HEIGHT })
  // As one string: a tree is checked value by value on its way here, which takes longer than measuring it.
  const text = await page.evaluate(
    (given) => JSON.stringify([...(window as unknown as MeasuredWindow).measurer.measure(given)]),
    job,
  )
  return JSON.parse(text) as (readonly [string, MeasuredBand])[]
}

/** The pixels of every picture on the page, by the address of its smallest file. */
async function pixelsOf(page: Page): Promise<PixelsOf> {
  const text = await page.evaluate(async () => {
    const { picturesOf, readPixels } = (window as unknown as MeasuredWindow).gullyline
    const read = await Promise.all(
      picturesOf(document).map(async (source) => {
        const pixels = await readPixels(source)
        return [source, pixels && { ...pixels, data: [...pixels.data] }] as const
      }),
    )
    return JSON.stringify(read)
  })
  const found = JSON.parse(text) as (readonly [string, { width: number; height: number; data: number[] }?])[]
  return Object.fromEntries(
    found.map(([source, read]): [string, Pixels | undefined] => [
      source,
      read && { ...read, data: Uint8ClampedArray.from(read.data) },
    ]),
  )
}
