/** Whether the session has ended, as the screen asks for it: refusals may come late, and the server may not answer. */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { act } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import { signIn, useSessionEnded } from '../src/api/person.ts'
import { request } from '../src/api/client.ts'

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true })

const PERSON = { login: 'tarn', password: 'nine herons on a wire' }
const REFUSED = { code: 'not-signed-in', message: 'You are not signed in.' }

/** What the server knows, and whether it can be reached. */
let isSignedIn: boolean
let isReachable: boolean
/** An answer at this address is on its way until it is let through. */
const SLOW = '/api/slow'
let letThrough: () => void

let root: Root
beforeEach(async () => {
  isReachable = true
  const isLet = new Promise<void>((resolve) => (letThrough = resolve))
  globalThis.fetch = (async (path: string, { method = 'GET' } = {}) => {
    if (!isReachable) throw new TypeError('no connection')
    if (method === 'POST') isSignedIn = true
    const [status, body] = isSignedIn ? [200, {}] : [401, REFUSED]
    if (path === SLOW) await isLet
    return { ok: status < 400, status, json: () => Promise.resolve(body) }
  }) as unknown as typeof fetch
  document.body.innerHTML = '<div id="here"></div>'
  root = createRoot(document.getElementById('here')!)
  await act(() => signIn(PERSON))
  act(() => root.render(<Asked />))
})
afterEach(() => act(() => root.unmount()))

function Asked() {
  return useSessionEnded() ? 'Sign in to continue' : 'Signed in'
}
const shown = () => document.body.textContent
const ask = (path: string) => request(path).catch(() => undefined)

test('a refusal asks to sign in, and signing in is the end of it', async () => {
  isSignedIn = false
  await act(() => ask('/api/pages'))
  expect(shown()).toBe('Sign in to continue')
  await act(() => signIn(PERSON))
  expect(shown()).toBe('Signed in')
})

test('a refusal that comes after somebody signed in again does not ask a second time', async () => {
  isSignedIn = false
  const late = ask(SLOW)
  await act(() => ask('/api/pages'))
  await act(() => signIn(PERSON))
  await act(async () => {
    letThrough()
    await late
  })
  expect(shown()).toBe('Signed in')
})

test('where the server can’t be asked after a refusal, it holds', async () => {
  isSignedIn = false
  const refused = ask(SLOW)
  isReachable = false
  await act(async () => {
    letThrough()
    await refused
  })
  expect(shown()).toBe('Sign in to continue')
})
