import type { Context } from 'hono'
import { checkRequest, type Requests } from '@gullyline/core'
import { Refused } from './errors.ts'

/**
 * Reads the body of a request, as JSON of the shape that this request has. Refuses what is not with a pointer to it, and
 * reads no further than the first fault.
 */
export async function readBody<N extends keyof Requests>(context: Context, name: N): Promise<Requests[N]> {
  const body = parseJson(await context.req.text())
  if (typeof body !== 'object' || body === null || Array.isArray(body))
    throw new Refused('malformed', 'The request is not a JSON object. Nothing was changed.')
  const problems = checkRequest(name, body)
  if (problems.length > 0)
    throw new Refused(
      'malformed',
      'The request lacks something or holds it in the wrong form. Nothing was changed.',
      { problems },
    )
  return body as Requests[N]
}

/** Deeper than any document or journal, and far from what reading it by recursion takes. */
const DEEPEST = 64

/**
 * Parses a JSON text; returns undefined if it is not JSON. Throws Refused if the text is nested deeper than `DEEPEST`,
 * which is tested before it is parsed, or if a string in it holds a lone surrogate, which the database can’t store.
 */
export function parseJson(text: string, what = 'The request'): unknown {
  if (isDeeperThan(text, DEEPEST))
    throw new Refused('malformed', `${what} is nested more than ${DEEPEST} levels deep. Nothing was changed.`)
  try {
    const value: unknown = JSON.parse(text)
    // Halves of surrogate pairs can be written in JSON (RFC 8259, 8.2), and in no encoding of a database.
    if (/\\u[dD][89a-fA-F]/.test(text) && !isWellFormed(value))
      throw new Refused(
        'malformed',
        `${what} holds half a character, which can’t be saved. Nothing was changed.`,
      )
    return value
  } catch (error) {
    if (error instanceof Refused) throw error
    return undefined
  }
}

/** Whether lists and objects are nested deeper than this, read off the text. */
function isDeeperThan(text: string, most: number): boolean {
  let depth = 0
  let isInside = false
  for (let i = 0; i < text.length; i++) {
    const sign = text.charCodeAt(i)
    if (isInside) {
      if (sign === 0x5c) i++
      else if (sign === 0x22) isInside = false
    } else if (sign === 0x22) isInside = true
    else if (sign === 0x5b || sign === 0x7b) {
      if (++depth > most) return true
    } else if (sign === 0x5d || sign === 0x7d) depth--
  }
  return false
}

/** Half of a surrogate pair that stands alone. */
const HALF = /\p{Surrogate}/u

function isWellFormed(value: unknown): boolean {
  if (typeof value === 'string') return !HALF.test(value)
  if (typeof value !== 'object' || value === null) return true
  return Object.entries(value).every(([key, one]) => !HALF.test(key) && isWellFormed(one))
}
