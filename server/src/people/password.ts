import { randomBytes } from 'node:crypto'
import { argon2id, argon2Verify } from 'hash-wasm'

/** OWASP Password Storage Cheat Sheet, Argon2id: m = 19 MiB, t = 2, p = 1. */
const COST = { memorySize: 19 * 1024, iterations: 2, parallelism: 1, hashLength: 32 } as const
const SALT_BYTES = 16

/** NIST SP 800-63B, 5.1.1.2: at least 8 characters where a second factor is used, so more without one. */
export const SHORTEST_PASSWORD = 12
/** Long enough for any sentence, short enough that hashing it costs nothing. */
export const LONGEST_PASSWORD = 200

/** A password as it is kept: Argon2id in the PHC string format, with a salt of its own. */
export function hashPassword(password: string): Promise<string> {
  return argon2id({ password, salt: randomBytes(SALT_BYTES), ...COST, outputType: 'encoded' })
}

/** Whether a password is the one that was kept. Without a hash it takes as long and says no, so that time tells nobody which logins exist. */
export async function isPassword(password: string, hash: string | undefined): Promise<boolean> {
  const matches = await argon2Verify({ password, hash: hash ?? (await hashOfNobody()) })
  return hash !== undefined && matches
}

let nobody: Promise<string> | undefined
function hashOfNobody(): Promise<string> {
  return (nobody ??= hashPassword(randomBytes(SALT_BYTES).toString('hex')))
}
