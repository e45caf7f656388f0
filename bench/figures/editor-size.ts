import type { Application } from '../application.ts'
import { figureOf, type Figure } from '../measure.ts'

/** The most JavaScript that opening a page may need, in bytes as they are sent. */
const MOST_BYTES = 260_000

/** (h): the scripts that the editor loads to open a page, as a browser that takes Brotli gets them. */
export async function editorSizeFigure(app: Application): Promise<Figure> {
  const html = await (await fetch(`${app.editor}/pages/tmhome`)).text()
  const named = [...html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map((match) => match[1]!)
  const paths = [...new Set(named)]
  const sizes = await Promise.all(
    paths.map(async (path) => {
      const answer = await fetch(app.editor + path, { headers: { 'accept-encoding': 'br' }, method: 'HEAD' })
      return Number(answer.headers.get('content-length'))
    }),
  )
  const ours = sizes.reduce((sum, size) => sum + size, 0)
  return figureOf('h', 1, 'The editor’s scripts for opening a page', { ours, reference: MOST_BYTES }, 'bytes')
}
