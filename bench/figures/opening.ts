import type { Browser } from '@playwright/test'
import type { Application } from '../application.ts'
import { figureOf, median, type Figure } from '../measure.ts'
import { openBrowser } from './typing.ts'

const ROUNDS = 25
const REFERENCE = '/bench-reference'
/** The page says by a request that it is there: a question of the browser's driver would be work in the midst of opening. */
const THERE = '/bench-there'

/**
 * (m): from asking for the address of a page of 200 blocks until what the window shows of it is painted on the canvas,
 * against the same published page with the editor's scripts added to it: until it is painted and the scripts have run.
 * Every time with a browser that has kept nothing.
 */
export async function openingFigure(app: Application): Promise<Figure> {
  const { browser } = await openBrowser(app)
  const { id, path } = await app.makePage(200)
  const shell = await (await fetch(`${app.editor}/pages/${id}`)).text()
  // All of them run there, those too that the editor runs a moment later.
  const scripts = [...shell.matchAll(/<(?:script|link)[^>]+(?:src|href)="([^"]+\.js)"[^>]*>/g)]
    .map(([, src]) => `<script type="module" crossorigin src="${src}"></script>`)
    .join('')
  const published = await (await fetch(app.site + path)).text()
  const css = await (
    await fetch(app.site + /<link rel="stylesheet" href="([^"]+)"/.exec(published)![1]!)
  ).text()
  // The scripts want a place to begin in; they find no screen of this address, and say so there.
  const withScripts = published
    .replace(/<link rel="stylesheet"[^>]*>/, `<style>${css}</style>${scripts}`)
    .replace('</body>', '<div id="app"></div></body>')
  const times = { ours: [] as number[], reference: [] as number[] }
  for (let round = 0; round < ROUNDS; round++) {
    times.reference.push(await timeOf(browser, app, REFERENCE, '#app *', withScripts))
    times.ours.push(await timeOf(browser, app, `/pages/${id}`, 'iframe[title^="The page,"]'))
  }
  await browser.close()
  const what = 'Opening a page of 200 blocks, against the published page with the same scripts'
  return figureOf('m', 1.5, what, { ours: median(times.ours), reference: median(times.reference) })
}

/** Time in ms until what `sign` names is there and painted; for a frame, until its document has the page's main part. */
async function timeOf(
  browser: Browser,
  app: Application,
  path: string,
  sign: string,
  body?: string,
): Promise<number> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  await context.addInitScript('globalThis.__name = (value) => value')
  const [name, value] = app.cookie.split('=') as [string, string]
  await context.addCookies([{ name, value, url: app.editor }])
  if (body !== undefined)
    await context.route(`**${REFERENCE}`, (route) => route.fulfill({ body, contentType: 'text/html' }))
  const givenToPage = { wanted: sign, there: THERE }
  await context.addInitScript(({ wanted, there }) => {
    const look = (): void => {
      const found = document.querySelector(wanted)
      const inner = found instanceof HTMLIFrameElement ? found.contentDocument : document
      // A page without its main part is not there yet.
      if (!found || !inner?.querySelector('main h2')) {
        requestAnimationFrame(look)
        return
      }
      const { port1, port2 } = new MessageChannel()
      port1.onmessage = () => void fetch(`${there}?ms=${performance.now()}`)
      requestAnimationFrame(() => port2.postMessage(undefined))
    }
    requestAnimationFrame(look)
  }, givenToPage)
  const page = await context.newPage()
  const told = page.waitForRequest((request) => new URL(request.url()).pathname === THERE)
  await page.goto(app.editor + path)
  const ms = Number(new URL((await told).url()).searchParams.get('ms'))
  await context.close()
  return ms
}
