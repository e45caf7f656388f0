import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { brotliCompressSync } from 'node:zlib'
import type { Application } from '../application.ts'
import { figureOf, type Figure } from '../measure.ts'

/** (e): HTML and stylesheet of the published home page, compressed, against the same page written by hand. */
export async function publishedSizeFigure(app: Application): Promise<Figure> {
  const html = await (await fetch(`${app.site}/`)).text()
  const href = /<link rel="stylesheet" href="([^"]+)"/.exec(html)![1]!
  const css = await (await fetch(app.site + href)).text()
  const byHand = (name: string) => readFile(join(import.meta.dirname, '../home', name))
  const ours = compressed(html) + compressed(css)
  const reference = compressed(await byHand('index.html')) + compressed(await byHand('home.css'))
  return figureOf('e', 1.3, 'The home page compressed, against one by hand', { ours, reference }, 'bytes')
}

function compressed(content: string | Buffer): number {
  return brotliCompressSync(content).length
}
