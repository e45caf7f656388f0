import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { Machine, saveWhileKilling } from './power-cuts.ts'

const KILLS = 50

const machine = new Machine()
beforeAll(() => machine.start(), 180_000)
afterAll(() => machine.stop())

test(`${KILLS} kills of the server during saves lose no save that was answered, and leave no half-written page`, async () => {
  const saved = await saveWhileKilling(machine, KILLS, () => machine.killServer())
  // How many there are is the machine’s to say; that there were many, between kills, is what the test needs.
  expect(saved).toBeGreaterThan(KILLS / 3)
}, 600_000)
