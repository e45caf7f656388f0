/** Measures the live pages of all sites in the background: those that changed since they were measured, one after another. */
import { fork, type ChildProcess } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { hasChromium } from '@gullyline/measuring/chromium'
import { LockHeld, withNamedLock } from '../db/named-lock.ts'
import { allSites, type SiteScope } from '../db/site-scope.ts'
import { Releases } from '../publish/manifest.ts'
import type { Services } from '../services.ts'
import { drawToSweep, liveRecords, pagesToSweep } from './live-pages.ts'
import { countForgotten, keepSweep } from './store.ts'
import type { SweepAnswer, ToSweep } from './sweep-process.ts'

/** So often is looked whether a live page changed. */
const LOOK_EVERY_MS = 3_000
/** A page that takes longer is given up. */
const LONGEST_MS = 120_000

/** The process that measures, beside the server where that was built. */
const PROGRAM = join(import.meta.dirname, 'sweep-process.js')

/** Whether live pages can be measured here: only where the server was built. */
export function canSweep(): boolean {
  return existsSync(PROGRAM)
}

/** Starts measuring. Returns how to stop it, which waits for no page that is under way. */
export function startSweeps(services: Services): () => Promise<void> {
  const stopping = new AbortController()
  const running = hasChromium() ? look(services, PROGRAM, stopping.signal) : Promise.resolve()
  return async () => {
    stopping.abort()
    await running
  }
}

async function look(services: Services, program: string, signal: AbortSignal): Promise<void> {
  /** The states of sites in which there was nothing left to measure. */
  const done = new Map<string, string>()
  const sweepChanged = async (): Promise<void> => {
    const states = await statesOf(services)
    const changed = [...states].filter(([{ siteId }, state]) => done.get(siteId) !== state)
    if (changed.length === 0) return
    const scopes = changed.map(([scope]) => scope)
    // Of servers on one database, one measures.
    await withNamedLock(services.db, { name: 'sweep', patienceS: 0 }, () =>
      sweepSites(services, scopes, program, signal),
    )
    for (const [{ siteId }, state] of changed) done.set(siteId, state)
  }
  while (!signal.aborted) {
    await wait(LOOK_EVERY_MS, undefined, { signal, ref: false }).catch(() => undefined)
    if (signal.aborted) return
    await sweepChanged().catch((error: unknown) => {
      if (!(error instanceof LockHeld) && !signal.aborted)
        services.log.error({ err: error }, 'Live pages could not be measured')
    })
  }
}

/** Another value of a site after each release, and after somebody asked to have it measured again. */
async function statesOf({ db, dataDir }: Services): Promise<ReadonlyMap<SiteScope, string>> {
  const releases = new Releases(dataDir)
  const states = new Map<SiteScope, string>()
  for (const scope of await allSites(db))
    states.set(scope, `${releases.current(scope.siteId)} ${await scope.read(countForgotten)}`)
  return states
}

/** Measures all that changed of some sites, with one browser, which ends once there is nothing left. */
async function sweepSites(
  services: Services,
  scopes: readonly SiteScope[],
  program: string,
  signal: AbortSignal,
): Promise<void> {
  let process: SweepProcess | undefined
  try {
    for (const scope of scopes) {
      const found = await liveRecords(services, scope.siteId)
      for (const pageId of await scope.read((at) => pagesToSweep(at, found))) {
        // Anew for each: what goes live meanwhile is measured as it is by then.
        const records = await liveRecords(services, scope.siteId)
        const madeFrom = records.get(pageId)?.key
        if (signal.aborted || madeFrom === undefined) continue
        process ??= new SweepProcess(program)
        const gullies = await sweepPage(services, { scope, pageId, records, process, signal })
        if (!signal.aborted) await scope.read((at) => keepSweep(at, { pageId, madeFrom, gullies }))
      }
    }
  } finally {
    process?.stop()
  }
}

interface OnePage {
  readonly scope: SiteScope
  readonly pageId: string
  readonly records: Awaited<ReturnType<typeof liveRecords>>
  readonly process: SweepProcess
  readonly signal: AbortSignal
}

async function sweepPage(services: Services, { scope, pageId, records, process, signal }: OnePage) {
  try {
    return await process.sweep(await drawToSweep(services, scope, pageId, records), signal)
  } catch (error) {
    if (!signal.aborted) services.log.warn({ err: error, page: pageId }, 'A live page could not be measured')
    return undefined
  }
}

class SweepProcess {
  readonly #program: string
  #child: ChildProcess | undefined

  constructor(program: string) {
    this.#program = program
  }

  /** All gullies of a page. Rejects where it can't be measured, takes too long, or is no longer wanted. */
  async sweep(given: ToSweep, signal: AbortSignal) {
    const child = (this.#child ??= this.#start())
    const limit = AbortSignal.any([signal, AbortSignal.timeout(LONGEST_MS)])
    try {
      const answer = await new Promise<SweepAnswer>((resolve, reject) => {
        child.once('message', resolve)
        child.once('exit', () => reject(new Error('The process that measures pages ended')))
        child.once('error', reject)
        limit.addEventListener('abort', () => reject(new Error('Measuring took too long, or is not wanted')))
        child.send(given)
      })
      if ('trouble' in answer) throw new Error(answer.trouble)
      return answer.gullies
    } catch (error) {
      // Whatever it is at, the next page gets another one.
      this.stop()
      throw error
    } finally {
      child.removeAllListeners('message').removeAllListeners('exit')
    }
  }

  #start(): ChildProcess {
    const child = fork(this.#program)
    // One that comes after a page was given up concerns nobody; without a listener it would end the server.
    child.on('error', () => undefined)
    return child
  }

  stop(): void {
    const child = this.#child
    this.#child = undefined
    if (!child) return
    if (child.connected) child.disconnect()
    setTimeout(() => child.kill('SIGKILL'), 2_000).unref()
  }
}
