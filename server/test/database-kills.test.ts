import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { timesOf } from '../../scripts/lib/soak.mjs'
import { Machine, saveWhileKilling } from './power-cuts.ts'

const KILLS = timesOf(10, 300)

const machine = new Machine()
beforeAll(() => machine.start())
afterAll(() => machine.stop())

test(
  `${KILLS} kills of MariaDB during saves lose no save that was answered, and leave no half-written page`,
  async () => {
    const saved = await saveWhileKilling(machine, KILLS, () => machine.killDatabase())
    // How many there are is the machine’s to say; that there were many, between kills, is what the test needs.
    expect(saved).toBeGreaterThan(KILLS / 3)
  },
  timesOf(600_000, 14_400_000),
)
