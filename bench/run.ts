/** Measures every figure and prints it; see docs/architecture.md. With `--json` it prints one JSON list and nothing else. */
import { startApplication } from './application.ts'
import { actFigures } from './figures/acts.ts'
import { coreFigures } from './figures/core.ts'
import { dragFigures } from './figures/drag.ts'
import { editorSizeFigure } from './figures/editor-size.ts'
import { httpFigure } from './figures/http.ts'
import { headerFigure, largeSiteFigures, reachFigure } from './figures/large-site.ts'
import { openingFigure } from './figures/opening.ts'
import { packageFigure } from './figures/packages.ts'
import { publishedSizeFigure } from './figures/published-size.ts'
import { peopleFigures } from './figures/people.ts'
import { largePageFigure, typingFigures } from './figures/typing.ts'
import { derivationFigure, sweepFigures } from './figures/sweep.ts'
import { tabMemoryFigure } from './figures/tab-memory.ts'
import { uploadsFigure } from './figures/uploads.ts'
import { versionFigures } from './figures/versions.ts'
import type { Figure } from './measure.ts'

const asJson = process.argv.includes('--json')

/** Figures that need no application, each group measured in one go. */
const OF_CORE = 'abcgDEF'
const OF_VERSIONS = 'uv'
const OF_SWEEPS = 'IJ'
const OF_GRIDS = 'K'

/** `--only d` or `--only b,c` measures these figures alone, while working on them; undefined for all. */
function readOnly(all: string): readonly string[] | undefined {
  const at = process.argv.indexOf('--only')
  if (at < 0) return undefined
  const named = (process.argv[at + 1] ?? '').split(',')
  const unknown = named.filter((name) => name.length !== 1 || !all.includes(name))
  if (unknown.length > 0)
    throw new Error(
      `There is no figure "${unknown.join('", "')}". Figures are: ${[...all].sort().join(', ')}.`,
    )
  return named
}

async function main(): Promise<void> {
  const withApplication = [
    ['dw', typingFigures],
    ['e', publishedSizeFigure],
    ['f', httpFigure],
    ['h', editorSizeFigure],
    ['ijk', actFigures],
    ['lBL', dragFigures],
    ['M', tabMemoryFigure],
    ['A', largePageFigure],
    ['m', openingFigure],
    ['xy', peopleFigures],
    ['H', packageFigure],
    // Last of this application: it is the server's greatest memory since it started.
    ['n', uploadsFigure],
    ['opqrstC', largeSiteFigures],
    ['G', reachFigure],
    ['z', headerFigure],
  ] as const
  const only = readOnly(
    OF_CORE + OF_VERSIONS + OF_SWEEPS + OF_GRIDS + withApplication.map(([names]) => names).join(''),
  )
  const isWanted = (names: string) => only === undefined || only.some((name) => names.includes(name))
  const figures = isWanted(OF_CORE) ? coreFigures() : []
  if (isWanted(OF_VERSIONS)) figures.push(...(await versionFigures()))
  if (isWanted(OF_SWEEPS)) figures.push(...(await sweepFigures()))
  if (isWanted(OF_GRIDS)) figures.push(derivationFigure())
  const wanted = withApplication.filter(([names]) => isWanted(names))
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

await main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exitCode = 1
})
