import type { Context } from 'hono'
import { ID_PATTERN, type Problem } from '@gullyline/core'
import { Refused } from './errors.ts'

/** As ids are made; the database would take others for the same. */
const ID = new RegExp(ID_PATTERN)

/** What a field of a request must be. */
export type FieldRule =
  | 'text'
  | 'id-or-null'
  | 'whole-number'
  | 'journal-mark'
  | 'anything'
  | 'words-or-absent'
  | 'text-or-absent'
  | 'id-or-absent'
  | 'flag-or-absent'
  | 'flag'
  | 'list'
  | 'object-or-absent'

/**
 * Reads a JSON body with exactly these fields. Refuses with a pointer for each one that is missing or of the wrong
 * type; `T` must be what the rules say.
 */
export async function readBody<T>(
  context: Context,
  rules: Readonly<Record<keyof T & string, FieldRule>>,
): Promise<T> {
  const body: unknown = await context.req.json().catch(() => undefined)
  if (typeof body !== 'object' || body === null || Array.isArray(body)) {
    throw new Refused('malformed', 'The request is not a JSON object. Nothing was changed.')
  }
  const values = body as Record<string, unknown>
  const problems = Object.entries<FieldRule>(rules).flatMap(([name, rule]): Problem[] => {
    const fault = faultOf(Object.hasOwn(values, name) ? values[name] : undefined, rule)
    return fault ? [{ pointer: `/${name}`, message: fault }] : []
  })
  if (problems.length > 0) {
    throw new Refused(
      'malformed',
      'The request lacks something or holds it in the wrong form. Nothing was changed.',
      { problems },
    )
  }
  return values as T
}

function faultOf(value: unknown, rule: FieldRule): string | undefined {
  switch (rule) {
    case 'text':
      return typeof value === 'string' && value.trim() !== '' ? undefined : 'must be words'
    case 'id-or-null':
      return value === null || isId(value) ? undefined : 'must be an id or null'
    case 'whole-number':
      return Number.isSafeInteger(value) ? undefined : 'must be a whole number'
    case 'journal-mark':
      return value === null || isJournalMark(value) ? undefined : 'must be null, or name a tab and a number'
    case 'words-or-absent':
      return value === undefined ? undefined : faultOf(value, 'text')
    case 'text-or-absent':
      return value === undefined || typeof value === 'string' ? undefined : 'must be text'
    case 'id-or-absent':
      return value === undefined || isId(value) ? undefined : 'must be an id'
    case 'flag-or-absent':
      return value === undefined || typeof value === 'boolean' ? undefined : 'must be true or false'
    case 'flag':
      return typeof value === 'boolean' ? undefined : 'must be true or false'
    case 'list':
      return Array.isArray(value) ? undefined : 'must be a list'
    case 'object-or-absent':
      return value === undefined || (typeof value === 'object' && value !== null && !Array.isArray(value))
        ? undefined
        : 'must be an object'
    case 'anything':
      return value === undefined ? 'is missing' : undefined
  }
}

function isId(value: unknown): boolean {
  return typeof value === 'string' && ID.test(value)
}

function isJournalMark(value: unknown): boolean {
  const { tab, until } = (value ?? {}) as Record<string, unknown>
  return typeof tab === 'string' && Number.isSafeInteger(until)
}
