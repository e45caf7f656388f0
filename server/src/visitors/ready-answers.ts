/** Whole answers that were given before, for requests that ask for nothing special: most of what visitors ask for. */
import type { IncomingHttpHeaders } from 'node:http'
import type { VisitorAnswer } from './answer.ts'

export interface ReadyAnswer {
  /** Names and values in turns, as Node writes them without looking at them again. */
  readonly headers: readonly string[]
  readonly body: Buffer
}

/** Bytes of all answers and of the requests that they are for; beyond this they are begun anew. */
const MOST_BYTES = 32 * 1024 * 1024

/** Headers that make of an answer another one (RFC 9110, 13 and 14). */
const SPECIAL = [
  'range',
  'if-none-match',
  'if-modified-since',
  'if-match',
  'if-unmodified-since',
  'if-range',
] as const

interface Asked {
  readonly method?: string | undefined
  readonly url?: string | undefined
  readonly headers: IncomingHttpHeaders
}

export class ReadyAnswers {
  readonly #answers = new Map<string, ReadyAnswer>()
  #release: string | undefined
  #bytes = 0

  /** The answer that this request had before from the same release. */
  find(request: Asked, release: string | undefined): ReadyAnswer | undefined {
    if (release !== this.#release) {
      this.#release = release
      this.#clear()
    }
    const key = keyOf(request)
    return key === undefined ? undefined : this.#answers.get(key)
  }

  /** Remembers an answer that was made while `release` was live, if another request like this one gets the same. */
  add(request: Asked, release: string | undefined, { status, headers, body }: VisitorAnswer): void {
    const key = keyOf(request)
    if (key === undefined || status !== 200 || !Buffer.isBuffer(body) || release !== this.#release) return
    if (this.#answers.has(key)) return
    this.#bytes += key.length + body.length
    if (this.#bytes > MOST_BYTES) this.#clear()
    this.#answers.set(key, { headers: Object.entries(headers).flat(), body })
  }

  #clear(): void {
    this.#answers.clear()
    this.#bytes = 0
  }
}

/** All that the answer depends on; undefined for a request whose answer depends on more. */
function keyOf({ method, url, headers }: Asked): string | undefined {
  if (method !== 'GET' || SPECIAL.some((name) => headers[name] !== undefined)) return undefined
  return `${headers.host ?? ''}\n${headers['accept-encoding'] ?? ''}\n${url ?? '/'}`
}
