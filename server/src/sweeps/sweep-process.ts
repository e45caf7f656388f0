/** Measures live pages in a Chromium of its own, one after another. A process of its own: what it takes, nobody waits for. */
import { readFileSync } from 'node:fs'
import { setPriority } from 'node:os'
import type { Gully } from '@gullyline/core'
import { startChromium, sweepInChromium } from '@gullyline/measuring/chromium'

/** A page, and the files that it shows by their addresses. */
export interface ToSweep {
  readonly html: string
  readonly bounds: readonly number[]
  readonly files: readonly { readonly path: string; readonly file: string; readonly type: string }[]
}

/** What became of it. */
export type SweepAnswer = { readonly gullies: readonly Gully[] } | { readonly trouble: string }

/** As low as there is: who edits and who visits comes first. */
const LOWEST = 19

setPriority(LOWEST)
const browser = startChromium()
browser.catch(() => undefined)

process.on('message', (given: ToSweep) => {
  void sweep(given).then(
    (gullies) => process.send?.({ gullies } satisfies SweepAnswer),
    (error: unknown) => process.send?.({ trouble: String(error) } satisfies SweepAnswer),
  )
})

async function sweep({ html, bounds, files }: ToSweep): Promise<readonly Gully[]> {
  const byPath = new Map(files.map((one) => [one.path, one]))
  const fileAt = (path: string) => {
    const found = byPath.get(`/${path}`)
    try {
      return found && { type: found.type, body: readFileSync(found.file) }
    } catch {
      // A file that is gone is missing for visitors as well.
      return undefined
    }
  }
  return sweepInChromium(await browser, { html, bounds, fileAt })
}

function end(): void {
  void browser
    .then((one) => one.close())
    .catch(() => undefined)
    .finally(() => process.exit(0))
}
// Already gone while this one was starting.
if (!process.connected) end()
process.on('disconnect', end)
// A key press in the terminal reaches every process; the first one says when it is over.
process.on('SIGINT', () => undefined)
process.on('SIGTERM', () => undefined)
