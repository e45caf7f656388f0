/** A server with the sample site, and what tests do there with packages. */
import { createHash } from 'node:crypto'
import { expect } from '@jest/globals'
import type {
  ErrorBody,
  ImportChoice,
  Imported,
  ImportItem,
  PageSummary,
  SavedPart,
  SiteInfo,
  WaitingImport,
} from '@gullyline/core'
import { startTestServer } from './with-server.ts'

export const FIRST = '/api/sites/tarrowmoor'

type Choose = (item: ImportItem) => ImportChoice | undefined

export const theirs: Choose = ({ choices }) => (choices.includes('theirs') ? 'theirs' : undefined)

export function digest(bytes: Buffer): string {
  return createHash('sha256').update(bytes).digest('hex')
}

export async function startWithPackages() {
  const server = await startTestServer()
  let count = 0
  /** An empty site of its own, by its address in the API. */
  const emptySite = async (): Promise<string> => {
    const host = `s${++count}.example`
    const body = { name: `Site ${count}`, language: 'en-GB', host, like: 'tarrowmoor', people: [] }
    const added = await server.ask<SiteInfo>('/api/sites', { method: 'POST', body })
    return `/api/sites/${added.body.id}`
  }

  const exported = async (query: string, site = FIRST): Promise<Buffer> => {
    const cookie = await server.cookieOf('keeper')
    const answer = await server.editor.request(`http://127.0.0.1${site}/export?${query}`, {
      headers: { cookie },
    })
    expect(answer.status).toBe(200)
    return Buffer.from(await answer.arrayBuffer())
  }

  const send = async (bytes: Buffer, site: string) => {
    const answer = await server.editor.request(`http://127.0.0.1${site}/imports`, {
      method: 'POST',
      headers: {
        cookie: await server.cookieOf('keeper'),
        'content-type': 'application/octet-stream',
        'content-length': String(bytes.length),
      },
      body: new Uint8Array(bytes),
    })
    return { status: answer.status, body: (await answer.json()) as WaitingImport & ErrorBody }
  }

  const imported = async (bytes: Buffer, site: string, choose: Choose = () => undefined) => {
    const { status, body } = await send(bytes, site)
    expect([status, body.message]).toEqual([201, undefined])
    const choices = Object.fromEntries(
      body.plan.items.flatMap((item) => {
        const choice = choose(item)
        return choice ? [[item.key, choice]] : []
      }),
    )
    const surfaces = Object.fromEntries(body.plan.surfaces.map(({ name, here }) => [name, here]))
    const done = await server.ask<Imported>(`${site}/imports/${body.id}`, {
      method: 'POST',
      body: { choices, surfaces },
    })
    expect([done.status, done.body]).toEqual([200, expect.anything()])
    return { plan: body.plan, done: done.body }
  }

  const partsOf = async (site: string) => (await server.ask<SavedPart[]>(`${site}/parts`)).body
  const pagesOf = async (site: string) => (await server.ask<PageSummary[]>(`${site}/pages`)).body
  /** The name that the site which was added last is found under. */
  const lastHost = (): string => `s${count}.example`
  return { server, emptySite, exported, send, imported, partsOf, pagesOf, lastHost }
}
