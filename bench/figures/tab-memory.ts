import type { Application } from '../application.ts'
import { figureOf, type Figure } from '../measure.ts'
import { openBrowser } from './typing.ts'
import { peakBytes } from './uploads.ts'

const BLOCKS = 1_000
const MOST = 500 * 1024 ** 2

/** (M): the most memory that the tab's process ever held, with a page of 1,000 blocks open and all of it measured, against 500 MiB. */
export async function tabMemoryFigure(app: Application): Promise<Figure> {
  const { browser, context } = await openBrowser(app)
  const { id } = await app.makePage(BLOCKS)
  const page = await context.newPage()
  await page.goto(`${app.editor}/pages/${id}`)
  await page.getByText('at 1,601 widths').waitFor({ timeout: 600_000 })
  const session = await browser.newBrowserCDPSession()
  const { processInfo } = await session.send('SystemInfo.getProcessInfo')
  const held = processInfo.filter(({ type }) => type === 'renderer').map(({ id: pid }) => peakBytes(pid))
  await browser.close()
  const about = `The tab's memory with a page of ${BLOCKS} blocks, measured at all widths`
  const ours = Math.max(...held) / 1024 ** 2
  return figureOf('M', 1, about, { ours, reference: MOST / 1024 ** 2 }, 'MiB')
}
