import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Page, SavedPart } from '@gullyline/core'
import { timesOf } from '../../scripts/lib/soak.mjs'
import { Machine, saveWhileKilling } from './power-cuts.ts'

const LONGEST_MS = timesOf(600_000, 14_400_000)
const KILLS = timesOf(20, 1_000)

const machine = new Machine()
beforeAll(() => machine.start())
afterAll(() => machine.stop())

test(
  `${KILLS} kills of the server during saves lose no save that was answered, and leave no half-written page`,
  async () => {
    const saved = await saveWhileKilling(machine, KILLS, () => machine.killServer())
    // How many there are is the machine’s to say; that there were many, between kills, is what the test needs.
    expect(saved).toBeGreaterThan(KILLS / 3)
  },
  LONGEST_MS,
)

const SHARED_KILLS = timesOf(12, 200)

test(
  `${SHARED_KILLS} kills while a shared section is saved with a page leave both as before, or both as after`,
  async () => {
    const named = <T extends Page>(document: T, name: string): T => {
      const root = { ...document.nodes[document.root]!, name }
      return { ...document, nodes: { ...document.nodes, [document.root]: root } }
    }
    const nameOf = ({ nodes, root }: Page): string | undefined => nodes[root]!.name
    const both = async () => {
      const page = await machine.open('tmvisit')
      const parts = (await (await machine.ask('/api/sites/tarrowmoor/parts')).json()) as SavedPart[]
      const part = parts.find(({ id }) => id === 'tmhours')!
      return { page, part, names: [nameOf(page.document), nameOf(part.document)] }
    }
    const save = ({ page, part }: Awaited<ReturnType<typeof both>>, name: string) =>
      machine.ask('/api/sites/tarrowmoor/pages/tmvisit/document', 'PUT', {
        base: page.summary.version,
        document: named(page.document, name),
        shared: [{ id: part.id, base: part.version, document: named(part.document, name) }],
        journal: null,
      })
    // From before a save has begun to after it is answered, wherever that is: how long a save takes is the machine’s to say.
    let reach = 20
    const seen = { before: 0, after: 0 }
    for (let round = 0; round < SHARED_KILLS; round++) {
      const name = `Round ${round}`
      const answered = save(await both(), name).then(
        ({ status }) => status === 200,
        () => false,
      )
      const part = round / (SHARED_KILLS - 1)
      if (part === 1) await answered
      else await new Promise((resolve) => setTimeout(resolve, reach * part))
      await machine.killServer()
      const { names } = await both()
      expect([round, names[0] === names[1]]).toEqual([round, true])
      if (await answered) expect([round, ...names]).toEqual([round, name, name])
      const came = names[0] === name ? 'after' : 'before'
      seen[came]++
      // Closer to where the one turns into the other.
      if (came === 'before' && part > 0) reach *= 1.5
      if (came === 'after') reach /= 1.2
    }
    // Otherwise the kills came all too soon or all too late.
    expect(seen.before).toBeGreaterThan(0)
    expect(seen.after).toBeGreaterThan(0)
  },
  LONGEST_MS,
)

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
})
