/** Hashes and verifies passwords away from the thread that answers people; see people/password.ts. */
import { argon2id, argon2Verify } from 'hash-wasm'

/** @param {{ act: 'hash', password: string, salt: Uint8Array, cost: object } | { act: 'verify', password: string, hash: string }} task */
export default function run(task) {
  return task.act === 'hash'
    ? argon2id({ password: task.password, salt: task.salt, ...task.cost, outputType: 'encoded' })
    : argon2Verify({ password: task.password, hash: task.hash })
}
