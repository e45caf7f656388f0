import type { Context } from 'hono'
import { HTTPException } from 'hono/http-exception'
import type { Logger } from 'pino'
import { faultWords } from './storage-fault.ts'
import type { ErrorBody, ErrorCode, Problem, StaleDocument, VersionInfo } from '@gullyline/core'

const STATUS = {
  'not-found': 404,
  malformed: 400,
  'not-valid': 422,
  'stale-save': 409,
  'page-deleted': 409,
  'stale-publish': 409,
  'journal-full': 413,
  'address-taken': 409,
  'name-taken': 409,
  'in-use': 409,
  'never-saved': 409,
  'has-problems': 409,
  'too-large': 413,
  'foreign-origin': 403,
  'not-signed-in': 401,
  'not-allowed': 403,
  'wrong-password': 401,
  'too-many-tries': 429,
  busy: 503,
  storage: 507,
  internal: 500,
} as const satisfies Readonly<Record<ErrorCode, number>>

/** A refusal that is told to the person as it stands. Anything else that is thrown is told as `internal`, without its words. */
export class Refused extends Error {
  readonly code: ErrorCode
  readonly problems: readonly Problem[]
  readonly current: VersionInfo | undefined
  readonly stale: readonly StaleDocument[] | undefined

  constructor(
    code: ErrorCode,
    message: string,
    more: {
      problems?: readonly Problem[]
      current?: VersionInfo
      stale?: readonly StaleDocument[]
    } = {},
  ) {
    super(message)
    this.code = code
    this.problems = more.problems ?? []
    this.current = more.current
    this.stale = more.stale
  }
}

/** Turns whatever was thrown into the one error shape. */
export function answerError(error: Error, context: Context, log: Logger): Response {
  const body = errorBody(error, context, log)
  return context.json(body, STATUS[body.code])
}

/** What is told of whatever was thrown. */
export function errorBody(error: Error, context: Context, log: Logger): ErrorBody {
  const { code, message, problems, current, stale } = error instanceof Refused ? error : fromHttp(error)
  if (code === 'internal' || code === 'storage')
    log.error({ err: error, path: context.req.path }, 'A request failed')
  return { code, message, problems, ...(current ? { current } : {}), ...(stale ? { stale } : {}) }
}

function fromHttp(error: Error): Refused {
  if (error instanceof HTTPException && error.status === 413) {
    return new Refused('too-large', 'What was sent is larger than the server takes. Nothing was changed.')
  }
  if (error instanceof HTTPException && error.status < 500) {
    return new Refused('malformed', 'The request could not be read. Nothing was changed.')
  }
  const words = faultWords(error)
  if (words !== undefined) return new Refused('storage', words)
  return new Refused(
    'internal',
    'Something went wrong on the server, and it is not certain whether this was done. Look at how things stand before you try again; the server’s log says more.',
  )
}
