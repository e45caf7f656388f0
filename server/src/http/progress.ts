/** Long acts: how far they are is told while they go on, and a sender who goes away ends them. */
import type { Context } from 'hono'
import { stream } from 'hono/streaming'
import type { Logger } from 'pino'
import type { ProgressLine } from '@gullyline/core'
import { errorBody } from './errors.ts'

/** How an act is watched. */
export interface Watch {
  /** Says how much is done. */
  readonly onProgress: (done: number, total: number) => void
  /** Aborted when nobody wants the act any more: it then ends, and changes nothing. */
  readonly signal: AbortSignal
}

/** Watched by nobody. */
export const UNWATCHED: Watch = { onProgress: () => undefined, signal: new AbortController().signal }

/** Lines of JSON, one after another; the usual name, registered by nobody. */
const LINES = 'application/x-ndjson'
/** How far an act is, is told no more often than this. */
const TELL_EVERY_MS = 100

/**
 * Does an act and answers with what it gives. A sender that takes lines gets how far it is meanwhile, one `ProgressLine`
 * after another, the last of which has what it gives or why it was refused.
 */
export async function answerWithProgress<T>(
  context: Context,
  log: Logger,
  act: (watch: Watch) => Promise<T>,
): Promise<Response> {
  const { signal } = context.req.raw
  if (!(context.req.header('accept') ?? '').includes(LINES))
    return context.json(await act({ ...UNWATCHED, signal }))
  context.header('Content-Type', LINES)
  context.header('Cache-Control', 'no-store')
  return stream(context, async (out) => {
    const ended = new AbortController()
    out.onAbort(() => ended.abort())
    const tell = (line: ProgressLine<T>): void => void out.write(`${JSON.stringify(line)}\n`)
    let told = -Infinity
    const onProgress = (done: number, total: number): void => {
      if (performance.now() - told < TELL_EVERY_MS && done < total) return
      told = performance.now()
      tell({ done, total })
    }
    try {
      const result = await act({ onProgress, signal: AbortSignal.any([signal, ended.signal]) })
      await out.write(`${JSON.stringify({ result } satisfies ProgressLine<T>)}\n`)
    } catch (error) {
      await out.write(`${JSON.stringify({ error: errorBody(error as Error, context, log) })}\n`)
    }
  })
}
