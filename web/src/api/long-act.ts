import type { ErrorBody, ProgressLine } from '@gullyline/core'
import { ApiError, tellSignedOut } from './client.ts'

/** How much of a long act is done. */
export interface Progress {
  readonly done: number
  readonly total: number
}

/** How a long act is watched. */
export interface Watch {
  readonly onProgress: (progress: Progress) => void
  /** Aborting it ends the act on the server, too. */
  readonly signal: AbortSignal
}

interface LongAct extends Watch {
  readonly body: unknown
}

/**
 * Asks the server for an act that may take long, tells how far it is, and gives its answer. Throws `ApiError` with words
 * for people, and what the signal was aborted with.
 */
export async function requestLong<T>(path: string, { body, onProgress, signal }: LongAct): Promise<T> {
  try {
    const response = await fetch(path, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json', accept: 'application/x-ndjson' },
      signal,
    })
    for await (const line of linesOf(response)) {
      // What is refused before the act begins comes as it does for any request.
      const told = JSON.parse(line) as ProgressLine<T> | ErrorBody
      if ('done' in told) onProgress(told)
      else if ('result' in told) return told.result
      else throw refusal('error' in told ? told.error : told)
    }
  } catch (error) {
    if (error instanceof ApiError) throw error
    signal.throwIfAborted()
  }
  throw new ApiError(
    'The connection was lost, so it is not certain whether it was done. Look at how things stand, and try again.',
    undefined,
    { isUnreachable: true },
  )
}

function refusal(body: ErrorBody): ApiError {
  if (body.code === 'not-signed-in') tellSignedOut()
  return new ApiError(body.message, body)
}

async function* linesOf(response: Response): AsyncGenerator<string> {
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    const lines = (rest + value).split('\n')
    rest = lines.pop()!
    yield* lines
  }
  // Without a line's end where it is the whole answer.
  if (rest.trim() !== '') yield rest
}
