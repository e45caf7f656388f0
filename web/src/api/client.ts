import type { ErrorBody } from '@gullyline/core'

/** A refusal of the server, or the lack of an answer, with a sentence to show. */
export class ApiError extends Error {
  readonly body: ErrorBody | undefined
  /** True when the server could not be asked, or its answer was lost: trying again later may do. */
  readonly isUnreachable: boolean

  constructor(message: string, body?: ErrorBody, { isUnreachable = false } = {}) {
    super(message)
    this.body = body
    this.isUnreachable = isUnreachable
  }
}

const signedOutListeners = new Set<() => void>()

/** Tells of every request that is refused because nobody is signed in. */
export function onSignedOut(listener: () => void): void {
  signedOutListeners.add(listener)
}

/** Tells that a request was refused for that reason; the person is asked to sign in. */
export function tellSignedOut(): void {
  for (const listener of signedOutListeners) listener()
}

interface EarlyAnswer {
  readonly answer: Promise<unknown>
  /** What was answered, once it is there. */
  readonly given?: unknown
}

const early = new Map<string, EarlyAnswer>()
const EARLY_MS = 10_000
/** The screen waits so long for what it was promised before it says that it waits. */
const WAIT_MS = 300

/**
 * Asks now for what the first screen will ask for later, one answer after the other: the server has named it in the
 * page (`server/src/api/editor-page.ts`). `keep` gets every answer; what fails is asked for again when it is wanted.
 * Resolves when all are there, or when waiting longer would look like nothing happens.
 */
export async function askEarly(keep: (path: string, answer: unknown) => void): Promise<void> {
  for (const link of document.querySelectorAll<HTMLLinkElement>('link[rel="preload"][as="fetch"]')) {
    const { pathname } = new URL(link.href)
    const answer = fetch(pathname).then(async (response) => {
      if (!response.ok) throw new Error(String(response.status))
      const given: unknown = await response.json()
      keep(pathname, given)
      if (early.has(pathname)) early.set(pathname, { answer, given })
      return given
    })
    answer.catch(() => undefined)
    early.set(pathname, { answer })
  }
  // What nobody has asked for by then would be old.
  setTimeout(() => early.clear(), EARLY_MS)
  const patience = new Promise((resolve) => setTimeout(resolve, WAIT_MS))
  await Promise.race([patience, Promise.allSettled([...early.values()].map(({ answer }) => answer))])
}

/** What was asked for early, once; undefined when it was not, or failed. */
async function takeEarly(path: string): Promise<unknown> {
  const asked = early.get(path)
  early.delete(path)
  return asked?.answer.catch(() => undefined)
}

/** The answer to what was asked for early; undefined while there is none. It is given again until `dropEarly` is called. */
export function givenEarly(path: string): unknown {
  return early.get(path)?.given
}

/** Has the address asked for again, when it is wanted the next time. */
export function dropEarly(path: string): void {
  early.delete(path)
}

/** Asks the server and gives its answer; throws `ApiError` with words for people. */
export async function request<T>(
  path: string,
  options: { method?: string; body?: unknown } = {},
): Promise<T> {
  if (options.method === undefined && early.has(path)) {
    const answer = await takeEarly(path)
    if (answer !== undefined) return answer as T
  }
  const response = await fetch(path, {
    method: options.method ?? 'GET',
    ...(options.body === undefined
      ? {}
      : { body: JSON.stringify(options.body), headers: { 'content-type': 'application/json' } }),
  }).catch(() => {
    throw new ApiError(
      'Can’t reach the server, so it is not certain whether it was done. Check the connection, and try again.',
      undefined,
      { isUnreachable: true },
    )
  })
  const answer: unknown = await response.json().catch(() => undefined)
  if (response.ok && answer !== undefined) return answer as T
  const body = answer as ErrorBody | undefined
  if (body?.code === 'not-signed-in') tellSignedOut()
  throw new ApiError(body?.message ?? 'The server’s answer could not be read. Try again.', body, {
    isUnreachable: body === undefined,
  })
}
