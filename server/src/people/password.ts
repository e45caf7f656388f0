import { randomBytes } from 'node:crypto'
import { dictionary } from '@zxcvbn-ts/language-common'
import type { Problem } from '@gullyline/core'
import { hashing } from '../workers/pools.ts'

/** OWASP Password Storage Cheat Sheet, Argon2id: m = 19 MiB, t = 2, p = 1. */
const COST = { memorySize: 19 * 1024, iterations: 2, parallelism: 1, hashLength: 32 } as const
const SALT_BYTES = 16
/** A hash takes some 50 ms; with a full queue before it, a few seconds. */
const LIMIT_MS = 30_000

/** NIST SP 800-63B-4, 3.1.1.2: a password that is all that is asked for has at least 15 characters. One that was shorter goes on until it is changed. */
const SHORTEST_PASSWORD = 15
/** NIST SP 800-63B-4, 3.1.1.2: at least 64 must be allowed. Long enough for any sentence, short enough that hashing it costs nothing. */
export const LONGEST_PASSWORD = 200

/** A password as it is stored: Argon2id in the PHC string format, with a salt of its own. */
export function hashPassword(password: string): Promise<string> {
  return hashing.run<string>({ act: 'hash', password, salt: randomBytes(SALT_BYTES), cost: COST }, LIMIT_MS)
}

/** Whether a password is the one that was stored. Without a hash it takes as long and says no, so that time tells nobody which logins exist. */
export async function isPassword(password: string, hash: string | undefined): Promise<boolean> {
  const stored = hash ?? (await hashOfNobody())
  const matches = await hashing.run<boolean>({ act: 'verify', password, hash: stored }, LIMIT_MS)
  return hash !== undefined && matches
}

let nobody: Promise<string> | undefined
function hashOfNobody(): Promise<string> {
  nobody ??= hashPassword(randomBytes(SALT_BYTES).toString('hex'))
  nobody.catch(() => (nobody = undefined))
  return nobody
}

/** Passwords that are tried first: 49,233 of them, collected from leaks (the package zxcvbn-ts, "passwords-common"). */
let common: ReadonlySet<string> | undefined

/**
 * Why something can't be a password; empty when it can (NIST SP 800-63B-4, 3.1.1.2): length, a list of common ones, and
 * words that belong to the person. Nothing else is asked of it.
 */
export function passwordProblems(
  password: string,
  { login, name }: { login: string; name: string },
): Problem[] {
  const pointer = '/password'
  if (password.length < SHORTEST_PASSWORD || password.length > LONGEST_PASSWORD)
    return [{ pointer, message: `must have ${SHORTEST_PASSWORD} to ${LONGEST_PASSWORD} characters` }]
  common ??= new Set((dictionary['passwords-common'] as readonly string[]).map((one) => one.toLowerCase()))
  const plain = password.toLowerCase()
  const own = [login.split('@')[0]!, name, 'gullyline']
    .map((one) => one.toLowerCase())
    .filter((one) => one.length > 2)
  const rest = own.reduce((left, word) => left.replaceAll(word, ''), plain)
  if (common.has(plain) || isRepeated(plain) || common.has(trimmed(plain)))
    return [
      {
        pointer,
        message: 'is one of the passwords that are tried first; choose another, such as four words',
      },
    ]
  if (rest.length < SHORTEST_PASSWORD / 2)
    return [
      { pointer, message: 'is little more than the name of the account; choose another, such as four words' },
    ]
  return []
}

/** A few characters over and over, such as "abcabcabcabc" or "111111111111". */
function isRepeated(password: string): boolean {
  return /^(.{1,6})\1+$/.test(password)
}

/** Without the digits and signs that people put around a word. */
function trimmed(password: string): string {
  return password.replace(/^[\d\W_]+|[\d\W_]+$/g, '')
}
