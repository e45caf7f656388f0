import { build } from 'esbuild'
import { join } from 'node:path'
import { examplePackage } from '@gullyline/demo'
import { defaultRegistry, deriveArrangement, packageContext, renderPage, type Placed } from '@gullyline/core'
import { startChromium } from '@gullyline/measuring/chromium'
import { figureOf, median, type Figure } from '../measure.ts'
import type { SweepTimes, timeSweep } from '../sweep-in-page.ts'

const ROUNDS = 9
const BOUNDS = [720, 1200]

/**
 * (I): all gullies of the sample site's home page, from 320 to 1920 px, against the same layouts with nothing read. (J): the
 * gullies after a text edit, against all of them.
 */
export async function sweepFigures(): Promise<Figure[]> {
  const given = await examplePackage()
  const { html } = renderPage(
    given,
    defaultRegistry,
    { ...packageContext(given), purpose: 'measure' },
    'inline',
  )
  const { outputFiles } = await build({
    entryPoints: [join(import.meta.dirname, '../sweep-in-page.ts')],
    bundle: true,
    format: 'iife',
    target: 'es2022',
    write: false,
  })
  const browser = await startChromium()
  const page = await browser.newPage()
  await page.setContent('<iframe id="page" height="900" style="border:0"></iframe>')
  await page.addScriptTag({ content: outputFiles[0]!.text })
  const rounds: SweepTimes[] = []
  // The first is for the compiler.
  for (let round = 0; round <= ROUNDS; round++) {
    const times = await page.evaluate(
      async ([body, bounds]) => {
        const frame = document.querySelector<HTMLIFrameElement>('#page')!
        frame.srcdoc = body
        await new Promise((resolve) => frame.addEventListener('load', resolve, { once: true }))
        return (globalThis as unknown as { timeSweep: typeof timeSweep }).timeSweep(frame, bounds)
      },
      [html, BOUNDS] as const,
    )
    if (round > 0) rounds.push(times)
  }
  await browser.close()
  const of = (name: 'whole' | 'bare' | 'layouts'): number => median(rounds.map((times) => times[name]))
  const edit = median(rounds.flatMap(({ edits }) => edits))
  const layouts = `${of('layouts')} layouts`
  return [
    figureOf('I', 3, `All gullies of the home page, against its ${layouts} alone`, {
      ours: of('whole'),
      reference: of('bare'),
    }),
    figureOf('J', 0.2, 'Gullies after a text edit in any band, against all of them', {
      ours: edit,
      reference: of('whole'),
    }),
  ]
}

const CHILDREN = 500
const MOST_MS = 5

/** (K): the places of 500 blocks derived for a narrower size, against 5 ms. */
export function derivationFigure(): Figure {
  const wide = Array.from({ length: CHILDREN }, (_unused, i): Placed => {
    const row = 1 + Math.floor(i / 4)
    return { id: `n${i}`, column: 1 + 3 * (i % 4), columns: 3, row, rows: 1, layer: 0 }
  })
  const times = Array.from({ length: 400 }, () => {
    const from = performance.now()
    deriveArrangement(wide, { from: 12, to: 8, set: new Map() })
    return performance.now() - from
  })
  return figureOf('K', 1, 'A narrower size derived for a grid of 500 blocks, against 5 ms', {
    ours: median(times),
    reference: MOST_MS,
  })
}
