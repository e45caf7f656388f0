import type { Context } from 'hono'
import { ID_PATTERN, type Problem } from '@gullyline/core'
import { Refused } from './errors.ts'

/** As ids are made; the database would take others for the same. */
const ID = new RegExp(ID_PATTERN)

/** What a field of a request must be. */
export type FieldRule =
  | 'text'
  | 'id-or-null'
  | 'id-or-null-or-absent'
  | 'whole-number'
  | 'journal-mark'
  | 'anything'
  | 'anything-or-absent'
  | 'shared-saves-or-absent'
  | 'versions-or-absent'
  | 'words-or-absent'
  | 'text-or-absent'
  | 'id-or-absent'
  | 'flag-or-absent'
  | 'flag'
  | 'list'
  | 'list-or-absent'
  | 'object-or-absent'

/**
 * Reads a JSON body with exactly these fields. Refuses with a pointer for each one that is missing or of the wrong
 * type; `T` must be what the rules say.
 */
export async function readBody<T>(
  context: Context,
  rules: Readonly<Record<keyof T & string, FieldRule>>,
): Promise<T> {
  const body = parseJson(await context.req.text())
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

/** Deeper than any document or journal, and far from what reading it by recursion takes. */
const DEEPEST = 64

/**
 * Parses a JSON text; returns undefined if it is not JSON. Throws Refused if the text is nested deeper than `DEEPEST`,
 * which is tested before it is parsed, or if a string in it holds a lone surrogate, which the database can’t store.
 */
function parseJson(text: string): unknown {
  if (isDeeperThan(text, DEEPEST))
    throw new Refused(
      'malformed',
      `The request is nested more than ${DEEPEST} levels deep. Nothing was changed.`,
    )
  try {
    const value: unknown = JSON.parse(text)
    // Halves of surrogate pairs can be written in JSON (RFC 8259, 8.2), and in no encoding of a database.
    if (/\\u[dD][89a-fA-F]/.test(text) && !isWellFormed(value))
      throw new Refused(
        'malformed',
        'The request holds half a character, which can’t be saved. Nothing was changed.',
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

function faultOf(value: unknown, rule: FieldRule): string | undefined {
  switch (rule) {
    case 'text':
      return typeof value === 'string' && value.trim() !== '' ? undefined : 'must be words'
    case 'id-or-null':
      return value === null || isId(value) ? undefined : 'must be an id or null'
    case 'id-or-null-or-absent':
      return value === undefined ? undefined : faultOf(value, 'id-or-null')
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
    case 'list-or-absent':
      return value === undefined || Array.isArray(value) ? undefined : 'must be a list'
    case 'object-or-absent':
      return value === undefined || (typeof value === 'object' && value !== null && !Array.isArray(value))
        ? undefined
        : 'must be an object'
    case 'anything-or-absent':
      return undefined
    case 'shared-saves-or-absent':
      return value === undefined || isSharedSaves(value)
        ? undefined
        : 'must be a list of documents, each once, with an id and the version it was made from'
    case 'versions-or-absent':
      return value === undefined || isVersions(value) ? undefined : 'must be numbers of versions by ids'
    case 'anything':
      return value === undefined ? 'is missing' : undefined
  }
}

function isId(value: unknown): boolean {
  return typeof value === 'string' && ID.test(value)
}

/** More than a page can show. */
const MOST_TOGETHER = 50

function isSharedSaves(value: unknown): boolean {
  if (!Array.isArray(value) || value.length > MOST_TOGETHER) return false
  const saves = value as unknown[]
  const ids = new Set<unknown>()
  return saves.every((one) => {
    const { id, base, document } = (one ?? {}) as Record<string, unknown>
    const isNew = !ids.has(id)
    ids.add(id)
    return isNew && isId(id) && Number.isSafeInteger(base) && document !== undefined
  })
}

function isVersions(value: unknown): boolean {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false
  const entries = Object.entries(value)
  return (
    entries.length <= MOST_TOGETHER && entries.every(([id, one]) => isId(id) && Number.isSafeInteger(one))
  )
}

function isJournalMark(value: unknown): boolean {
  const { tab, until } = (value ?? {}) as Record<string, unknown>
  return typeof tab === 'string' && Number.isSafeInteger(until)
}
