/** What the server named in the page is asked for once, ahead; whatever goes wrong with it is as if nobody had asked. */
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import type { Person } from '@gullyline/core'
import { ApiError, askEarly, dropEarly, givenEarly, onSignedOut, request } from '../src/api/client.ts'

interface Asked {
  readonly path: string
  readonly method: string
  answer(status: number, body: unknown): Promise<void>
  fail(): Promise<void>
}

/** What would go to the server, to be answered by the test. */
let asked: Asked[]
const turns = async (): Promise<void> => {
  for (let i = 0; i < 20; i++) await Promise.resolve()
}
const paths = (): string[] => asked.map(({ path }) => path)

beforeEach(() => {
  jest.useFakeTimers()
  asked = []
  const fetched = (path: string, { method = 'GET' }: { method?: string } = {}) =>
    new Promise<unknown>((resolve, reject) => {
      asked.push({
        path,
        method,
        answer: async (status, body) => {
          const json = (): Promise<unknown> =>
            body === undefined ? Promise.reject(new Error('no JSON')) : Promise.resolve(body)
          resolve({ ok: status < 400, status, json })
          await turns()
        },
        fail: async () => {
          reject(new TypeError('no connection'))
          await turns()
        },
      })
    })
  globalThis.fetch = fetched as unknown as typeof fetch
})
afterEach(async () => {
  // What was asked for early and never wanted is forgotten.
  await jest.advanceTimersByTimeAsync(60_000)
  jest.useRealTimers()
  document.head.innerHTML = ''
})

/** A page whose server named these. */
function pageThatNames(...named: readonly string[]): void {
  document.head.innerHTML = named
    .map((path) => `<link rel="preload" as="fetch" crossorigin href="${path}">`)
    .join('')
}

describe('what the page names', () => {
  test('is asked for at once, and whoever wants it gets that answer without a second request', async () => {
    pageThatNames('/api/session', '/api/sites/tarrowmoor/pages')
    const ready = askEarly(() => undefined)
    expect(paths()).toEqual(['/api/session', '/api/sites/tarrowmoor/pages'])
    const wanted = request<Person>('/api/session')
    await asked[0]!.answer(200, { id: 'ines' })
    await asked[1]!.answer(200, [])
    expect(await wanted).toEqual({ id: 'ines' })
    await ready
    expect(paths()).toHaveLength(2)
  })

  test('is given away once: a later request is a new one', async () => {
    pageThatNames('/api/sites/tarrowmoor/pages')
    void askEarly(() => undefined)
    await asked[0]!.answer(200, ['old'])
    expect(await request('/api/sites/tarrowmoor/pages')).toEqual(['old'])
    const again = request('/api/sites/tarrowmoor/pages')
    await turns()
    await asked[1]!.answer(200, ['new'])
    expect(await again).toEqual(['new'])
  })

  test('is there at once for who can’t wait, as soon as it was answered, and until it is dropped', async () => {
    pageThatNames('/api/sites/tarrowmoor/pages')
    void askEarly(() => undefined)
    expect(givenEarly('/api/sites/tarrowmoor/pages')).toBeUndefined()
    await asked[0]!.answer(200, ['page'])
    expect(givenEarly('/api/sites/tarrowmoor/pages')).toEqual(['page'])
    dropEarly('/api/sites/tarrowmoor/pages')
    expect(givenEarly('/api/sites/tarrowmoor/pages')).toBeUndefined()
    void request('/api/sites/tarrowmoor/pages')
    await turns()
    expect(paths()).toHaveLength(2)
  })

  test('is told to whoever keeps it, each answer under its path', async () => {
    pageThatNames('/api/sites/tarrowmoor', '/api/sites/tarrowmoor/pages')
    const kept = new Map<string, unknown>()
    void askEarly((path, answer) => kept.set(path, answer))
    await asked[1]!.answer(200, ['page'])
    expect([...kept]).toEqual([['/api/sites/tarrowmoor/pages', ['page']]])
  })

  test.each([
    ['is refused', (one: Asked) => one.answer(401, { code: 'not-signed-in', message: 'Sign in.' })],
    ['can’t be read', (one: Asked) => one.answer(200, undefined)],
    ['can’t be had', (one: Asked) => one.fail()],
  ])('and %s, is kept by nobody and asked for again when it is wanted', async (_what, spoil) => {
    pageThatNames('/api/sites/tarrowmoor/pages')
    const keep = jest.fn()
    const ready = askEarly(keep)
    await spoil(asked[0]!)
    await ready
    const wanted = request('/api/sites/tarrowmoor/pages')
    await turns()
    expect(paths()).toEqual(['/api/sites/tarrowmoor/pages', '/api/sites/tarrowmoor/pages'])
    await asked[1]!.answer(200, ['there'])
    expect(await wanted).toEqual(['there'])
    expect(keep).not.toHaveBeenCalled()
  })

  test('holds nobody up for long: the screen says that it waits', async () => {
    pageThatNames('/api/sites/tarrowmoor/pages')
    let isReady = false
    void askEarly(() => undefined).then(() => (isReady = true))
    await turns()
    expect(isReady).toBe(false)
    await jest.advanceTimersByTimeAsync(1_000)
    expect(isReady).toBe(true)
  })

  test('and was not wanted for a while, is too old to be given', async () => {
    pageThatNames('/api/sites/tarrowmoor/pages')
    void askEarly(() => undefined)
    await asked[0]!.answer(200, ['old'])
    await jest.advanceTimersByTimeAsync(60_000)
    void request('/api/sites/tarrowmoor/pages')
    await turns()
    expect(paths()).toHaveLength(2)
  })

  test('is never taken for the answer to a change', async () => {
    pageThatNames('/api/session')
    void askEarly(() => undefined)
    void request('/api/session', { method: 'POST', body: {} })
    await turns()
    expect(asked.map(({ method }) => method)).toEqual(['GET', 'POST'])
  })

  test('is nothing on other screens, and nothing is waited for', async () => {
    await askEarly(() => undefined)
    expect(paths()).toEqual([])
  })
})

describe('a request that fails', () => {
  test('tells in words what happened, and that it may be tried again, when there is no server', async () => {
    const lost = request('/api/sites/tarrowmoor/pages')
    const told = expect(lost).rejects.toThrow(/Can’t reach the server.* try again/)
    await turns()
    await asked[0]!.fail()
    await told
  })

  test('has the server’s own words and body when it is refused, and tells when nobody is signed in', async () => {
    let isOut = 0
    onSignedOut(() => isOut++)
    const refused = request('/api/sites/tarrowmoor/pages').catch((error: unknown) => error)
    await turns()
    await asked[0]!.answer(403, { code: 'not-allowed', message: 'That is for editors.', problems: [] })
    const error = (await refused) as ApiError
    expect([error.message, error.body?.code, isOut]).toEqual(['That is for editors.', 'not-allowed', 0])

    const signedOut = request('/api/sites/tarrowmoor/pages').catch((one: unknown) => one)
    await turns()
    await asked[1]!.answer(401, { code: 'not-signed-in', message: 'Sign in.', problems: [] })
    expect(await signedOut).toBeInstanceOf(ApiError)
    expect(isOut).toBe(1)
  })
})
