/** Measures every figure and prints it; see docs/architecture.md. With `--json` it prints one JSON list and nothing else. */
import { startApplication } from './application.ts'
import { actFigures } from './figures/acts.ts'
import { coreFigures } from './figures/core.ts'
import { dragFigure } from './figures/drag.ts'
import { editorSizeFigure } from './figures/editor-size.ts'
import { httpFigure } from './figures/http.ts'
import { openingFigure } from './figures/opening.ts'
import { publishedSizeFigure } from './figures/published-size.ts'
import { typingFigure } from './figures/typing.ts'
import { uploadsFigure } from './figures/uploads.ts'
import type { Figure } from './measure.ts'

const asJson = process.argv.includes('--json')

/** `--only d` measures one figure alone, while working on it. */
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : undefined

async function main(): Promise<void> {
  const figures = only === undefined || 'abcg'.includes(only) ? coreFigures() : []
  const withApplication = [
    ['d', typingFigure],
    ['e', publishedSizeFigure],
    ['f', httpFigure],
    ['h', editorSizeFigure],
    ['ijk', actFigures],
    ['l', dragFigure],
    ['m', openingFigure],
    // Last: it is the server's greatest memory since it started.
    ['n', uploadsFigure],
  ] as const
  const wanted = withApplication.filter(([names]) => only === undefined || names.includes(only))
  const app = wanted.length > 0 ? await startApplication() : undefined
  try {
    for (const [, measure] of wanted) figures.push(...[await measure(app!)].flat())
  } finally {
    await app?.stop()
  }
  figures.sort((a, b) => a.figure.localeCompare(b.figure))
  if (asJson) {
    const list = figures.map(({ figure, ratio, limit }) => ({ figure, ratio: round(ratio), limit }))
    process.stdout.write(`${JSON.stringify(list)}\n`)
  } else for (const figure of figures) process.stdout.write(`${lineOf(figure)}\n`)
}

function lineOf({ figure, ratio, limit, about }: Figure): string {
  const verdict = ratio <= limit ? 'within' : 'OVER'
  return `(${figure}) ${String(round(ratio)).padStart(6)}  ${verdict} ${limit}  ${about}`
}

function round(ratio: number): number {
  return Number(ratio.toPrecision(3))
}

await main()
