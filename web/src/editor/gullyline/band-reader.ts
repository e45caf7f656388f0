import type { MeasuredBand, Reading, Setting } from '@gullyline/core'

export interface BandsTask {
  readonly number: number
  readonly setting: Setting
  readonly bands: ReadonlyMap<string, MeasuredBand>
  /** Addresses of the pictures on the page. */
  readonly pictures: readonly string[]
}

export interface BandsAnswer {
  readonly number: number
  readonly readings: ReadonlyMap<string, Reading>
}

/** Has bands read in a worker. */
export class BandReader {
  readonly #worker = new Worker(new URL('./read-bands.worker.ts', import.meta.url), { type: 'module' })
  readonly #waiting = new Map<number, (readings: ReadonlyMap<string, Reading>) => void>()
  #last = 0

  constructor() {
    this.#worker.onmessage = ({ data: { number, readings } }: MessageEvent<BandsAnswer>) => {
      this.#waiting.get(number)?.(readings)
      this.#waiting.delete(number)
    }
  }

  read(task: Omit<BandsTask, 'number'>): Promise<ReadonlyMap<string, Reading>> {
    const number = ++this.#last
    return new Promise((resolve) => {
      this.#waiting.set(number, resolve)
      this.#worker.postMessage({ number, ...task } satisfies BandsTask)
    })
  }

  dispose(): void {
    this.#worker.terminate()
  }
}
