/** What tests expect, told by us where it is plainly so and by Jest where it is not: each is judged here by Node's own `assert`. */
import assert from 'node:assert/strict'
import { expect, test } from '@jest/globals'

const NONE = undefined
const failing: Readonly<Record<string, () => unknown>> = {
  'another value': () => expect(1).toBe(2),
  'zero of the other sign': () => expect(0).toBe(-0),
  'an equal one that is not the same': () => expect([1]).toBe([1]),
  'another list': () => expect([1, 2]).toEqual([2, 1]),
  'more in it': () => expect({ a: 1, b: 2 }).toEqual({ a: 1 }),
  'another set': () => expect(new Set([1])).toEqual(new Set([2])),
  'not what it is': () => expect(1).not.toBe(1),
  'not what it equals': () => expect([1]).not.toEqual([1]),
  'what does not match': () => expect({ a: 'x' }).toEqual({ a: expect.any(Number) }),
  'one that is there': () => expect(null).toBeUndefined(),
  'more than as much': () => expect(2).toBeGreaterThan(2),
  'at least more': () => expect(1).toBeGreaterThanOrEqual(2),
  'less than as much': () => expect(2).toBeLessThan(2),
  'at most less': () => expect(2).toBeLessThanOrEqual(1),
  'more than what is no number': () => expect(NaN).toBeGreaterThan(1),
  'what can’t be compared': () => expect('2' as unknown as number).toBeGreaterThan(1),
  'a longer list': () => expect([1]).toHaveLength(2),
  'what is not thrown': () => expect(() => NONE).toThrow(),
}

for (const [what, act] of Object.entries(failing))
  test(`${what} is told, with what was expected and what was received`, () => {
    assert.throws(act, /expect\(/)
  })

test('what a promise comes to is judged as well', async () => {
  await assert.rejects(expect(Promise.resolve(1)).resolves.toBe(2))
  await expect(Promise.resolve([1])).resolves.toEqual([1])
})

test('what is as expected passes', () => {
  expect(NaN).toBe(NaN)
  expect({ a: 1, b: NONE }).toEqual({ a: 1 })
  expect(new Map([['a', { b: 1 }]])).toEqual(new Map([['a', { b: 1 }]]))
  expect({ a: 1, b: [2] }).toEqual({ a: expect.any(Number), b: expect.arrayContaining([2]) })
  expect([1]).not.toEqual([2])
  expect(NONE).toBeUndefined()
  expect(2).toBeGreaterThan(1)
  expect(2n).toBeGreaterThan(1)
  expect(2).toBeGreaterThanOrEqual(2)
  expect(1).toBeLessThan(2)
  expect(2).toBeLessThanOrEqual(2)
})
