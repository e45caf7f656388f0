/** Wrong passwords, counted together by two servers. */
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { Tries } from '../src/people/tries.ts'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer('begun')
})
afterAll(() => server.close())

const MINUTE = 60_000
/** Two servers count together. */
const two = (now: () => number) => {
  const servers = [new Tries(server.services.db, now), new Tries(server.services.db, now)]
  let turn = 0
  return () => servers[turn++ % servers.length]!
}
const minutesToWait = async (tries: Tries, account: string, address: string): Promise<number> => {
  const begun = await tries.begin(account, address)
  if (begun.minutesToWait === 0) await begun.forget()
  return begun.minutesToWait
}

test('tries from one address are counted in a window that moves on', async () => {
  let now = Date.now()
  const begun = now
  const tries = two(() => now)
  for (let i = 0; i < 5; i++) {
    expect((await tries().begin('x', 'a')).minutesToWait).toBe(0)
    now += MINUTE
  }
  expect((await tries().begin('x', 'a')).minutesToWait).toBe(10)
  now = begun + 15 * MINUTE + 1
  expect((await tries().begin('x', 'a')).minutesToWait).toBe(0)
})

test('tries at once get no further than one after the other', async () => {
  const now = Date.now() + 24 * 60 * MINUTE
  const tries = two(() => now)
  for (let round = 0; round < 200; round++) {
    const all = await Promise.all(
      Array.from({ length: 8 }, () => tries().begin(`at once ${round}`, `b${round}`)),
    )
    expect(all.filter((one) => one.minutesToWait === 0)).toHaveLength(5)
  }
})

test('tries of strangers keep a person out for a minute at most, from wherever the person comes', async () => {
  let now = Date.now()
  const tries = two(() => now)
  for (let i = 0; i < 60; i++) {
    await tries().begin('y', `stranger ${i}`)
    now += 100
  }
  expect(await minutesToWait(tries(), 'y', 'own')).toBe(1)
  now += MINUTE
  expect(await minutesToWait(tries(), 'y', 'own')).toBe(0)
})

test('tries from one address for ever other accounts end as well', async () => {
  const tries = two(() => 2_000_000_000_000)
  for (let i = 0; i < 30; i++) await tries().begin(`made up ${i}`, 'c')
  expect([
    await minutesToWait(tries(), 'another', 'c'),
    await minutesToWait(tries(), 'another', 'd'),
  ]).toEqual([15, 0])
})

test('right passwords count for nobody, however many sign in from one address', async () => {
  const tries = two(() => 2_000_000_000_000)
  for (let i = 0; i < 100; i++) expect(await minutesToWait(tries(), `person ${i % 40}`, 'office')).toBe(0)
  // What is wrong is still counted beside them.
  for (let i = 0; i < 30; i++) {
    await tries().begin(`made up ${i}`, 'office')
    if (i < 29) expect(await minutesToWait(tries(), 'z', 'office')).toBe(0)
  }
  expect(await minutesToWait(tries(), 'another', 'office')).toBe(15)
})

test('a right password forgets those of its own account and address alone', async () => {
  const tries = two(() => 2_000_000_000_000)
  for (let i = 0; i < 4; i++) {
    await tries().begin('u', 'e')
    await tries().begin('v', 'e')
  }
  await tries().begin('v', 'e')
  await (await tries().begin('u', 'e')).forget()
  expect([await minutesToWait(tries(), 'u', 'e'), await minutesToWait(tries(), 'v', 'e')]).toEqual([0, 15])
})
