/** Threads that do what takes long: how long a task may take does not depend on what its thread does first. */
import { afterAll, expect, test } from '@jest/globals'
import { closePools, drawings } from '../src/workers/pools.ts'

const DRAWING = '<svg xmlns="http://www.w3.org/2000/svg" width="8" height="6"><circle r="3"/></svg>'
const PLENTY_MS = 60_000

afterAll(closePools)

async function timeOf(limitMs: number): Promise<number> {
  const from = performance.now()
  expect(await drawings.run(DRAWING, limitMs)).toContain('<circle')
  return performance.now() - from
}

test('a thread that starts takes nothing of the time that a task has', async () => {
  const startsAndCleans = await timeOf(PLENTY_MS)
  await closePools()
  await timeOf(startsAndCleans / 2)
})

test('a task that takes longer than it may is ended, and the next one is done', async () => {
  const many = DRAWING.replace('<circle r="3"/>', '<circle r="3"/>'.repeat(20_000))
  await expect(drawings.run(many, 1)).rejects.toMatchObject({ name: 'AbortError' })
  await timeOf(PLENTY_MS)
})
