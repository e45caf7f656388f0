import useSWR, { mutate, type SWRResponse } from 'swr'
import type { Account, SignInRequest } from '@gullyline/core'
import { useValue, Value } from '../ui/value.ts'
import { ApiError, onSignedOut, request } from './client.ts'

const PATH = '/api/session'

/** Who is signed in; undefined data with a `not-signed-in` error when nobody is. */
export function usePerson(): SWRResponse<Account, Error> {
  return useSWR<Account, Error>(PATH, (path: string) => request<Account>(path), {
    revalidateOnFocus: false,
    shouldRetryOnError: (error: Error) => !isSignedOut(error),
  })
}

export function isSignedOut(error: unknown): boolean {
  return error instanceof ApiError && error.body?.code === 'not-signed-in'
}

/** Signs in, and asks again for everything that was refused before. */
export async function signIn(given: SignInRequest): Promise<Account> {
  const person = await request<Account>(PATH, { method: 'POST', body: given })
  signIns++
  hasEnded.set(false)
  await mutate(() => true)
  return person
}

/** Ends the session on the server, and starts over with nothing of it on the screen. */
export async function signOut(): Promise<void> {
  await request(PATH, { method: 'DELETE' })
  window.location.assign('/')
}

const hasEnded = new Value(false)
/** How often somebody signed in on this screen. */
let signIns = 0
onSignedOut(() => void endUnlessLate())

/**
 * Ends the session on this screen, unless the server knows it. A refusal may be late: of a request that was on its way
 * while somebody signed in again, who would be asked for the password a second time.
 */
async function endUnlessLate(): Promise<void> {
  const before = signIns
  const answer = await fetch(PATH).catch(() => undefined)
  if (before === signIns && !answer?.ok) hasEnded.set(true)
}

/** Whether the server has refused something since the session that this screen began with is over. */
export function useSessionEnded(): boolean {
  return useValue(hasEnded)
}
