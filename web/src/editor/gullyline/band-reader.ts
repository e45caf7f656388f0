import type { MeasuredBand, Reading, Setting } from '@gullyline/core'

type Readings = ReadonlyMap<string, Reading>

export interface BandsTask {
  readonly number: number
  readonly setting: Setting
  readonly bands: ReadonlyMap<string, MeasuredBand>
  /** Addresses of the pictures on the page. */
  readonly pictures: readonly string[]
}

/** What the worker answers: the readings, or why there are none. */
export type BandsAnswer = { readonly number: number } & (
  | { readonly readings: Readings }
  | { readonly trouble: string }
)

interface Waiting {
  readonly resolve: (readings: Readings) => void
  readonly reject: (reason: Error) => void
}

/** Reads bands in a worker. A task is rejected when the worker fails or is ended; the next one then has a new worker. */
export class BandReader {
  readonly #waiting = new Map<number, Waiting>()
  #worker: Worker | undefined
  #last = 0

  read(task: Omit<BandsTask, 'number'>): Promise<Readings> {
    const number = ++this.#last
    return new Promise((resolve, reject) => {
      this.#waiting.set(number, { resolve, reject })
      this.#worker ??= this.#start()
      this.#worker.postMessage({ number, ...task } satisfies BandsTask)
    })
  }

  dispose(): void {
    this.#end('The page is no longer measured.')
  }

  #start(): Worker {
    const worker = new Worker(new URL('./read-bands.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<BandsAnswer>) => {
      const waiting = this.#waiting.get(data.number)
      this.#waiting.delete(data.number)
      if ('readings' in data) waiting?.resolve(data.readings)
      else waiting?.reject(new Error(data.trouble))
    }
    worker.onerror = ({ message }) => this.#end(message)
    return worker
  }

  /** A worker whose script could not be had would take tasks for ever and answer none. */
  #end(why: string): void {
    this.#worker?.terminate()
    this.#worker = undefined
    for (const { reject } of this.#waiting.values()) reject(new Error(why))
    this.#waiting.clear()
  }
}
