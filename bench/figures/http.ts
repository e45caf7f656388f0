import { fork } from 'node:child_process'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { Agent, get } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Application } from '../application.ts'
import { figureOf, median, type Figure } from '../measure.ts'
import { freePort } from '../../scripts/lib/ports.mjs'

const CLIENTS = 50
const REQUESTS_A_CLIENT = 20
const ROUNDS = 9

/** (f): reading a page of the sample site with 50 clients, signed in, against a bare handler that returns the same bytes. */
export async function httpFigure(app: Application): Promise<Figure> {
  const path = '/api/sites/tarrowmoor/pages/tmhome'
  const bytes = await (await fetch(app.editor + path, { headers: { cookie: app.cookie } })).text()
  const folder = await mkdtemp(join(tmpdir(), 'gullyline-bare-'))
  const file = join(folder, 'page.json')
  await writeFile(file, bytes)
  const port = await freePort()
  const bare = fork(join(import.meta.dirname, '../bare-server.ts'), [file, String(port)])
  await new Promise((resolve) => bare.once('message', resolve))
  const agent = new Agent({ keepAlive: true, maxSockets: CLIENTS })
  const ours = () => latencies(app.editor + path, { cookie: app.cookie }, agent)
  const reference = () => latencies(`http://127.0.0.1:${port}/page`, {}, agent)
  await ours()
  await reference()
  const times = { ours: [] as number[], reference: [] as number[] }
  for (let round = 0; round < ROUNDS; round++) {
    times.ours.push(median(await ours()))
    times.reference.push(median(await reference()))
  }
  agent.destroy()
  bare.kill()
  await rm(folder, { recursive: true })
  const what = `Reading a page with ${CLIENTS} clients, median latency, against a bare handler`
  return figureOf('f', 2, what, { ours: median(times.ours), reference: median(times.reference) })
}

/** How long each request took in ms, all clients asking at the same time, one request after another each. */
async function latencies(url: string, headers: Record<string, string>, agent: Agent): Promise<number[]> {
  const all: number[] = []
  const client = async (): Promise<void> => {
    for (let i = 0; i < REQUESTS_A_CLIENT; i++) {
      const start = performance.now()
      await read(url, headers, agent)
      all.push(performance.now() - start)
    }
  }
  await Promise.all(Array.from({ length: CLIENTS }, client))
  return all
}

function read(url: string, headers: Record<string, string>, agent: Agent): Promise<void> {
  return new Promise((resolve, reject) => {
    get(url, { agent, headers }, (response) => {
      if (response.statusCode !== 200) reject(new Error(`${url} answered ${response.statusCode}`))
      response.resume().on('end', resolve)
    }).on('error', reject)
  })
}
