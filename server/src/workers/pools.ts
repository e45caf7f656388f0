/** Work that takes long, away from the thread that answers people: bounded in how much waits, and in how long it takes. */
import { fileURLToPath } from 'node:url'
import { MessageChannel } from 'node:worker_threads'
import { Tinypool } from 'tinypool'
import { Refused } from '../http/errors.ts'

interface PoolOptions {
  readonly file: string
  readonly threads: number
  /** How many tasks may wait; one more is refused at once. */
  readonly mostWaiting: number
  readonly memoryMb: number
}

/** A task waits for its turn and for its thread to start, which no limit of its own counts. Longer is a fault of the machine. */
const LONGEST_WAIT_MS = 60_000

/** A few threads that run one file's function. They start with the first task, and end when there is nothing to do. */
class Pool {
  readonly #options: PoolOptions
  #pool: Tinypool | undefined

  constructor(options: PoolOptions) {
    this.#options = options
  }

  /**
   * What the function gives for a task. Refuses with `busy` when too much waits; throws when it takes longer than `limitMs`
   * from when it begins.
   */
  async run<T>(task: unknown, limitMs: number): Promise<T> {
    const { file, threads, mostWaiting, memoryMb } = this.#options
    this.#pool ??= new Tinypool({
      filename: fileURLToPath(new URL('./run-timed.worker.mjs', import.meta.url)),
      minThreads: 0,
      maxThreads: threads,
      maxQueue: mostWaiting,
      idleTimeout: 30_000,
      // What they run is read as it is, also where the program itself runs from its source.
      execArgv: [],
      resourceLimits: { maxOldGenerationSizeMb: memoryMb },
    })
    if (this.#pool.queueSize >= mostWaiting)
      throw new Refused(
        'busy',
        'The server has too much to do just now. Nothing was changed; try again in a moment.',
      )
    const { port1: hears, port2: begun } = new MessageChannel()
    // A thread that is in the middle of a task can only be ended.
    const end = new AbortController()
    let timer = setTimeout(() => end.abort(), LONGEST_WAIT_MS)
    hears.once('message', () => {
      clearTimeout(timer)
      timer = setTimeout(() => end.abort(), limitMs)
    })
    try {
      return (await this.#pool.run(
        { file: new URL(file, import.meta.url).href, task, begun },
        { transferList: [begun], signal: end.signal },
      )) as T
    } finally {
      clearTimeout(timer)
      hears.close()
    }
  }

  /** Ends its threads. */
  async close(): Promise<void> {
    await this.#pool?.destroy()
    this.#pool = undefined
  }
}

export const hashing = new Pool({
  file: './hash-password.worker.mjs',
  threads: 2,
  mostWaiting: 50,
  memoryMb: 128,
})
export const drawings = new Pool({
  file: './clean-drawing.worker.mjs',
  threads: 1,
  mostWaiting: 20,
  memoryMb: 256,
})

/** Ends all threads, so that the process can end. */
export async function closePools(): Promise<void> {
  await Promise.all([hashing.close(), drawings.close()])
}
