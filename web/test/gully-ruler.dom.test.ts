/** The line along the ruler, and going from one gully to the next. */
import { expect, test } from '@jest/globals'
import type { ShownGully } from '../src/editor/gullyline/gully-context.tsx'
import { notchesOf } from '../src/editor/gullyline/gully-line.tsx'
import { nextGully } from '../src/editor/gullyline/next-gully.ts'

function gully(nodeId: string, from: number, to: number, more: Partial<ShownGully> = {}): ShownGully {
  const facts = { rule: 'sideways', severity: 'error', why: '', source: '' } as const
  return { ...facts, nodeId, from, to, worst: from, ignored: undefined, ...more }
}

test('gullies that overlap are one notch, each severity by itself, and ignored ones none', () => {
  const notches = notchesOf([
    gully('a', 400, 500),
    gully('b', 450, 600),
    gully('c', 480, 900, { severity: 'warning' }),
    gully('d', 1000, 1100, { ignored: 'It is meant' }),
    gully('e', 1400, 1400),
  ])
  expect(
    notches.map(({ severity, gullies }) => [severity, gullies.map(({ nodeId }) => nodeId).join('')]),
  ).toEqual([
    ['warning', 'c'],
    ['error', 'ab'],
    ['error', 'e'],
  ])
  // One of a single px can still be seen.
  const [last] = notches.slice(-1)
  expect(last!.to - last!.from).toBeGreaterThanOrEqual(10)
})

test('one goes from each gully to the next and round, and from another width to the nearest ahead', () => {
  const [a, b, c] = [gully('a', 400, 500), gully('b', 450, 550), gully('c', 900, 900)]
  const all = [a, b, c]
  const from = (last: ShownGully | undefined, width: number, direction: -1 | 1) =>
    nextGully(all, { last, width, direction })?.nodeId
  expect([from(a, 450, 1), from(b, 500, 1), from(c, 900, 1)]).toEqual(['b', 'c', 'a'])
  expect([from(a, 450, -1), from(c, 900, -1)]).toEqual(['c', 'b'])
  expect([from(undefined, 700, 1), from(undefined, 700, -1), from(a, 1000, 1)]).toEqual(['c', 'b', 'a'])
  expect(nextGully([], { last: undefined, width: 700, direction: 1 })).toBeUndefined()
})
