import { readFile } from 'node:fs/promises'
import { withSettings, type PageDocument, type PageSummary } from '@gullyline/core'
import type { Application } from '../application.ts'
import { figureOf, median, type Figure } from '../measure.ts'

const SITE = '/api/sites/tarrowmoor'
const PEOPLE = 50
/** A quick typist writes four letters a second; they go to the server once a second. */
const POST_EVERY_MS = 1_000
const READERS = 4
const ROUND_MS = 2_000
const ROUNDS = 6

const FEW_SAVES = 200
const SAVES = 2_000
const SAVES_A_PUBLISH = 10

/** (x), (y): what many people at once cost those who read, and what a day of work leaves in the server's memory. */
export async function peopleFigures(app: Application): Promise<Figure[]> {
  return [await readingFigure(app), await memoryFigure(app)]
}

function ask(app: Application, path: string, method = 'GET', body?: unknown): Promise<Response> {
  const headers = { cookie: app.cookie, 'content-type': 'application/json' }
  return fetch(app.editor + SITE + path, {
    method,
    headers,
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
}

/** The time of one read while fifty people type, against nobody typing: 1/0.7 is 0.7 of the rate. */
async function readingFigure(app: Application): Promise<Figure> {
  const times = { ours: [] as number[], reference: [] as number[] }
  for (let round = 0; round < ROUNDS; round++) {
    times.reference.push(await timeOfRead(app))
    const stop = startTyping(app)
    times.ours.push(await timeOfRead(app))
    await stop()
  }
  const what = `A read while ${PEOPLE} people type, against nobody typing`
  return figureOf('x', 1 / 0.7, what, { ours: median(times.ours), reference: median(times.reference) })
}

/** Everybody posts what they typed, each at their own moment of the second. Returns how to end it. */
function startTyping(app: Application): () => Promise<void> {
  let isOver = false
  const type = async (person: number): Promise<void> => {
    await pause((POST_EVERY_MS * person) / PEOPLE)
    for (let number = 0; !isOver; number++) {
      const at = ['content', 'text']
      const edits = [{ edit: 'set', nodeId: 'heading', at, value: `Letter ${number}` }]
      const entries = [{ number, base: 1, at: Date.now(), edits }]
      await (await ask(app, `/pages/tmvisit/journal/tab${person}`, 'POST', { entries })).text()
      await pause(POST_EVERY_MS)
    }
    await (await ask(app, `/pages/tmvisit/journal/tab${person}`, 'DELETE')).text()
  }
  const all = Array.from({ length: PEOPLE }, (_none, person) => type(person))
  return async () => {
    isOver = true
    await Promise.all(all)
  }
}

async function timeOfRead(app: Application): Promise<number> {
  const until = performance.now() + ROUND_MS
  let reads = 0
  const read = async (path: string): Promise<void> => {
    while (performance.now() < until) {
      await (await ask(app, path)).text()
      reads++
    }
  }
  const paths = ['/pages/tmhome', '/pages', '', '/pages/tmabout']
  await Promise.all(Array.from({ length: READERS }, (_none, i) => read(paths[i % paths.length]!)))
  return (ROUND_MS * READERS) / reads
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms))
}

/** The server's memory after 2,000 saves and 200 publishes, against that after the first 200 saves and 20 publishes. */
async function memoryFigure(app: Application): Promise<Figure> {
  let { document, summary } = (await (await ask(app, '/pages/tmquestions')).json()) as PageDocument
  let few = 0
  for (let save = 1; save <= SAVES; save++) {
    document = withSettings(document, { description: `Saved ${save} times` })
    const body = { base: summary.version, document, journal: null }
    summary = (await (await ask(app, '/pages/tmquestions/document', 'PUT', body)).json()) as PageSummary
    if (save % SAVES_A_PUBLISH === 0)
      await (await ask(app, '/pages/tmquestions/publish', 'POST', { version: summary.version })).text()
    if (save === FEW_SAVES) few = await residentBytes(app.serverPid)
  }
  const what = `The server's memory after ${SAVES} saves and ${SAVES / SAVES_A_PUBLISH} publishes, against after a tenth of them`
  const MiB = 1024 * 1024
  const ours = (await residentBytes(app.serverPid)) / MiB
  return figureOf('y', 1.3, what, { ours, reference: few / MiB }, 'MiB')
}

/** The memory that a process holds. */
export async function residentBytes(pid: number): Promise<number> {
  const status = await readFile(`/proc/${pid}/status`, 'utf8')
  return Number(/^VmRSS:\s+(\d+) kB$/m.exec(status)![1]) * 1024
}
