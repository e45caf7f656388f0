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

test('asked to stop, the server finishes a save that is under way, and then stops by itself', async () => {
  const { document, summary } = await machine.open('tmabout')
  const named = { ...document.nodes[document.root]!, name: 'Saved while stopping' }
  const saved = { ...document, nodes: { ...document.nodes, [document.root]: named } }
  const body = JSON.stringify({ base: summary.version, document: saved, journal: null })
  const sendRest = await machine.sendInTwo('/api/sites/tarrowmoor/pages/tmabout/document', 'PUT', body)
  const stopped = machine.stopServer()
  // Long enough for the signal to have arrived: what comes now comes to a server that stops.
  await new Promise((resolve) => setTimeout(resolve, 300))
  await expect(machine.ask('/api/session')).rejects.toThrow()
  expect((await sendRest()).status).toBe(200)
  await stopped
  await machine.startServerAgain()
  expect((await machine.open('tmabout')).document.nodes[document.root]!.name).toBe('Saved while stopping')
}, 120_000)
