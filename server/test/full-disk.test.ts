/** A disk that is full or read-only, under the real server: it says so, changes nothing, leaves nothing half-made, and lives. */
import { readdirSync, readFileSync, rmSync } from 'node:fs'
import { open, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { ErrorBody, PageSummary } from '@gullyline/core'
import { canHaveOwnDisks, Machine } from './power-cuts.ts'

const MEGABYTE = 1024 * 1024
const picture = readFileSync(join(import.meta.dirname, '../../demo/pictures/path-to-the-dome.jpg'))

const machine = new Machine()
const ballast = () => join(machine.dataFolder, 'ballast')

/** Writes until nothing more fits. */
async function fillDisk(): Promise<void> {
  const file = await open(ballast(), 'w')
  try {
    for (const size of [MEGABYTE, 4096])
      for (let wrote = size; wrote > 0;)
        wrote = await file.write(Buffer.alloc(size)).then(
          ({ bytesWritten }) => bytesWritten,
          () => 0,
        )
  } finally {
    await file.close()
  }
}

/** Folders that files are spread over by the beginnings of their names: an empty one is none the less for the next. */
const SPREAD = /^live\/content\/[0-9a-f]{2}$/

/** Every file and folder of the server's data, but for its log and what we filled the disk with. */
function filesNow(): string[] {
  const all = readdirSync(machine.dataFolder, { recursive: true }) as string[]
  return all.filter((path) => !path.startsWith('log') && path !== 'ballast' && !SPREAD.test(path)).sort()
}
const refusal = async (answer: Response) => [answer.status, ((await answer.json()) as ErrorBody).message]
const summary = async (id: string) =>
  ((await (await machine.ask('/api/sites/tarrowmoor/pages')).json()) as PageSummary[]).find(
    (one) => one.id === id,
  )!
const publish = async (id: string) =>
  machine.ask(`/api/sites/tarrowmoor/pages/${id}/publish`, 'POST', { version: (await summary(id)).version })
const visit = async () => (await fetch(`http://localhost:${machine.sitePort}/visit/`)).text()

const suite = canHaveOwnDisks() ? describe : describe.skip
suite('a disk that is full', () => {
  beforeAll(() => machine.start({ diskBytes: 96 * MEGABYTE }))
  afterAll(() => machine.stop())

  test('takes no picture, no file and no release, says so, and keeps what there was as it was', async () => {
    const live = await visit()
    await fillDisk()
    const before = filesNow()
    const full = [507, 'The server’s disk is full. Nothing was changed; make room on it, then try again.']
    expect(await refusal(await machine.upload('/api/sites/tarrowmoor/media?name=path.jpg', picture))).toEqual(
      full,
    )
    expect(
      await refusal(
        await machine.upload('/api/sites/tarrowmoor/files?name=nights.txt', Buffer.alloc(9_000, 'a')),
      ),
    ).toEqual(full)
    const page = await summary('tmvisit')
    expect(await refusal(await publish('tmvisit'))).toEqual(full)
    expect(filesNow()).toEqual(before)
    expect(await summary('tmvisit')).toEqual(page)
    expect(await visit()).toBe(live)
  })

  test('keeps nobody from writing: a page is saved as ever', async () => {
    const { document, summary: page } = await machine.open('tmabout')
    const named = { ...document.nodes[document.root]!, name: 'Written on a full disk' }
    const body = {
      base: page.version,
      document: { ...document, nodes: { ...document.nodes, [document.root]: named } },
      journal: null,
    }
    expect((await machine.ask('/api/sites/tarrowmoor/pages/tmabout/document', 'PUT', body)).status).toBe(200)
    expect((await machine.open('tmabout')).document.nodes[document.root]!.name).toBe('Written on a full disk')
  })

  test('with room on it again takes all of it, without a new start', async () => {
    rmSync(ballast())
    expect((await machine.upload('/api/sites/tarrowmoor/media?name=path.jpg', picture)).status).toBe(201)
    expect(
      (await machine.upload('/api/sites/tarrowmoor/files?name=nights.txt', Buffer.from('Open nights')))
        .status,
    ).toBe(201)
    expect((await publish('tmvisit')).status).toBe(200)
  })

  test('that is read-only says that, and the site goes on being served', async () => {
    const before = filesNow()
    machine.makeReadOnly('media', 'files', 'live')
    const words = 'The server’s data folder can’t be written to: its disk is read-only. Nothing was changed.'
    expect(await refusal(await machine.upload('/api/sites/tarrowmoor/media?name=path.jpg', picture))).toEqual(
      [507, words],
    )
    expect(await refusal(await publish('tmvisit'))).toEqual([507, words])
    expect(filesNow()).toEqual(before)
    expect((await fetch(`http://localhost:${machine.sitePort}/`)).status).toBe(200)
    expect((await readFile(join(machine.dataFolder, 'demo-accounts.json'))).length).toBeGreaterThan(0)
  })
})
