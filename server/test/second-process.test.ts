/** Two processes answer visitors on one port: both from the release that is live, and neither outlives the server. */
import { readdir, readFile, readlink } from 'node:fs/promises'
import { get } from 'node:http'
import { availableParallelism } from 'node:os'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { PageSummary } from '@gullyline/core'
import { Machine } from './power-cuts.ts'

const machine = new Machine()
beforeAll(() => machine.start())
afterAll(() => machine.stop())

/** The second process of the server: its child that runs the program for visitors. */
async function secondProcess(): Promise<number | undefined> {
  const { serverPid } = machine
  const children = await readFile(`/proc/${serverPid}/task/${serverPid}/children`, 'utf8')
  for (const pid of children.trim().split(' ').filter(Boolean)) {
    const command = await readFile(`/proc/${pid}/cmdline`, 'utf8').catch(() => '')
    if (command.includes('visitor-process')) return Number(pid)
  }
  return undefined
}

/** The title of a live page, asked for on a connection of its own. */
async function titleOf(path: string): Promise<string> {
  const html = await new Promise<string>((resolve, reject) => {
    const headers = { host: `localhost:${machine.sitePort}` }
    const to = { host: '127.0.0.1', port: machine.sitePort, path, headers, agent: false, timeout: 10_000 }
    const asked = get(to, (answer) => {
      let text = ''
      answer.setEncoding('utf8').on('data', (part: string) => (text += part))
      answer.on('end', () => resolve(text))
    })
    asked.on('timeout', () => asked.destroy(new Error('nobody answered')))
    asked.on('error', reject)
  })
  return /<title>([^<]*)/.exec(html)?.[1] ?? html
}

/** Waits until a process has the port of visitors: until the socket that listens there is among its files. */
async function untilItHasThePort(pid: number): Promise<void> {
  const port = machine.sitePort.toString(16).toUpperCase().padStart(4, '0')
  const listening = new RegExp(String.raw`:${port} \S+ 0A(?: +\S+){5} +(\d+)`)
  for (;;) {
    const socket = listening.exec(await readFile('/proc/net/tcp', 'utf8'))![1]
    const names = await readdir(`/proc/${pid}/fd`)
    const files = await Promise.all(names.map((name) => readlink(`/proc/${pid}/fd/${name}`).catch(() => '')))
    if (files.includes(`socket:[${socket}]`)) return
    await new Promise((resolve) => setTimeout(resolve, 20))
  }
}

/** A process goes on for a moment after it was told to stop, in which it may take a connection that it then answers no more. */
async function untilStopped(pid: number): Promise<void> {
  for (;;) {
    const state = /^State:\s+(\S)/m.exec(await readFile(`/proc/${pid}/status`, 'utf8'))?.[1]
    if (state === 'T') return
    await new Promise((resolve) => setTimeout(resolve, 5))
  }
}

const isShared = availableParallelism() > 1 ? test : test.skip

isShared('while one process is held up, the other answers', async () => {
  const second = (await secondProcess())!
  await untilItHasThePort(second)
  for (const held of [machine.serverPid, second]) {
    process.kill(held, 'SIGSTOP')
    await untilStopped(held)
    try {
      expect(await titleOf('/visit/')).toContain('Visit')
    } finally {
      process.kill(held, 'SIGCONT')
    }
  }
})

isShared('what is published is what both show at once, whoever answers', async () => {
  for (const title of ['Come and visit', 'Visit us again', 'Visit']) {
    const { title: was } = (await machine.open('tmvisit')).summary
    const changed = await machine.ask('/api/sites/tarrowmoor/pages/tmvisit', 'PATCH', {
      title,
      was: { title: was },
    })
    const { version } = (await changed.json()) as PageSummary
    expect(
      (await machine.ask('/api/sites/tarrowmoor/pages/tmvisit/publish', 'POST', { version })).status,
    ).toBe(200)
    const titles = await Promise.all(Array.from({ length: 40 }, () => titleOf('/visit/')))
    expect(new Set(titles).size).toBe(1)
    expect(titles[0]).toContain(title)
  }
})

isShared('it ends with the server that is killed, and the next one has one again', async () => {
  const second = (await secondProcess())!
  await machine.killServer()
  await expect(readFile(`/proc/${second}/cmdline`, 'utf8').catch(() => '')).resolves.toBe('')
  expect(await secondProcess()).not.toBe(second)
  expect(await titleOf('/visit/')).toContain('Visit')
})

/** Makes the second process take its time to start, as on a machine that is busy. */
const SLOWLY = `if (process.argv[1]?.includes('visitor-process')) await new Promise((go) => setTimeout(go, 2_000))`

isShared('whoever comes while it starts is answered all the same', async () => {
  const { NODE_OPTIONS } = process.env
  process.env.NODE_OPTIONS = `--import=data:text/javascript,${encodeURIComponent(SLOWLY)}`
  try {
    await machine.killServer()
  } finally {
    if (NODE_OPTIONS === undefined) delete process.env.NODE_OPTIONS
    else process.env.NODE_OPTIONS = NODE_OPTIONS
  }
  for (const until = Date.now() + 2_500; Date.now() < until;)
    expect(await titleOf('/visit/')).toContain('Visit')
})
