import { NoChromium, startChromium, sweepInChromium } from '@gullyline/measuring/chromium'
import {
  defaultRegistry,
  EXTENSIONS,
  packageContext,
  renderPage,
  sizeBounds,
  type Gully,
  type PagePackage,
} from '@gullyline/core'
import { Unusable } from './outcome.ts'

/** What is wrong with the page of a package, at which widths. Throws `Unusable` where there is no Chromium. */
export async function sweepPackage(given: PagePackage): Promise<readonly Gully[]> {
  const context = { ...packageContext(given), purpose: 'measure' as const }
  const { html } = renderPage(given, defaultRegistry, context, 'inline')
  const browser = await startChromium().catch((error: unknown) => {
    throw error instanceof NoChromium ? new Unusable(error.message) : error
  })
  try {
    return await sweepInChromium(browser, { html, bounds: sizeBounds(given.look), fileAt: filesOf(given) })
  } finally {
    await browser.close()
  }
}

function filesOf({ media, fonts }: PagePackage) {
  const files = new Map(
    Object.entries(media).map(([id, { type, data }]) => [
      `media/${id}.${EXTENSIONS[type]}`,
      { type: String(type), data },
    ]),
  )
  for (const [name, data] of Object.entries(fonts)) files.set(`fonts/${name}`, { type: 'font/woff2', data })
  return (path: string) => {
    const file = files.get(path)
    return file && { type: file.type, body: Buffer.from(file.data, 'base64') }
  }
}
