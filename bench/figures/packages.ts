import { randomBytes } from 'node:crypto'
import {
  defaultRegistry,
  getKind,
  newNode,
  type Imported,
  type OpenedPage,
  type SiteInfo,
  type WaitingImport,
} from '@gullyline/core'
import { startApplication, type Application } from '../application.ts'
import { figureOf, type Figure } from '../measure.ts'
import { peakBytes } from './uploads.ts'

const FILES = 10
const FILE_BYTES = 20 * 1024 * 1024
const MOST_MIB = 512
const MIB = 1024 * 1024

/** (H): the most memory that a server ever held while a package of 200 MB was sent to it and imported, against 512 MiB. */
export async function packageFigure(app: Application): Promise<Figure> {
  const bytes = await packageOf(app)
  const other = await startApplication()
  try {
    const ask = asker(other)
    const site = (await ask('POST', '/api/sites', {
      name: 'Second',
      language: 'en',
      host: 'second.localhost',
      like: 'tarrowmoor',
      people: [],
    })) as SiteInfo
    const imports = `/api/sites/${site.id}/imports`
    const sent = await fetch(other.editor + imports, {
      method: 'POST',
      headers: { cookie: other.cookie, 'content-type': 'application/octet-stream' },
      body: new Blob([bytes]),
    })
    if (!sent.ok) throw new Error(await sent.text())
    const { id, plan } = (await sent.json()) as WaitingImport
    const surfaces = Object.fromEntries(plan.surfaces.map(({ name, here }) => [name, here]))
    const done = (await ask('POST', `${imports}/${id}`, { choices: {}, surfaces })) as Imported
    if (Object.keys(done).length === 0) throw new Error('Nothing was imported')
    const what = `The server’s memory at its most while a package of ${Math.round(bytes.byteLength / MIB)} MiB was imported`
    return figureOf('H', 1, what, { ours: peakBytes(other.serverPid) / MIB, reference: MOST_MIB }, 'MiB')
  } finally {
    await other.stop()
  }
}

/** A package with a page that links to files of 200 MB in all. */
async function packageOf(app: Application): Promise<ArrayBuffer> {
  const ask = asker(app)
  const files: string[] = []
  for (let i = 0; i < FILES; i++) {
    const body = Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(FILE_BYTES)])
    const answer = await fetch(`${app.editor}/api/sites/tarrowmoor/files?name=plan-${i}.pdf`, {
      method: 'POST',
      headers: { cookie: app.cookie, 'content-type': 'application/octet-stream' },
      body,
    })
    if (!answer.ok) throw new Error(await answer.text())
    files.push(((await answer.json()) as { readonly id: string }).id)
  }
  const made = await ask('POST', '/api/sites/tarrowmoor/pages', { title: 'Plans', parentId: null })
  const { summary, document } = made as OpenedPage
  const node = (kind: string, content: object, slots = {}) =>
    newNode(getKind(defaultRegistry, kind), { content: content as never, slots })
  const buttons = files.map(
    (file, i) => [`b${i}`, node('button', { text: `Plan ${i}`, link: { file } })] as const,
  )
  const root = document.nodes[document.root]!
  const nodes = {
    [document.root]: { ...root, slots: { ...root.slots, sections: ['s'] } },
    s: node('section', {}, { blocks: buttons.map(([id]) => id) }),
    ...Object.fromEntries(buttons),
  }
  await ask('PUT', `/api/sites/tarrowmoor/pages/${summary.id}/document`, {
    base: summary.version,
    document: { ...document, nodes },
    journal: null,
  })
  const answer = await fetch(`${app.editor}/api/sites/tarrowmoor/export?page=${summary.id}`, {
    headers: { cookie: app.cookie },
  })
  return answer.arrayBuffer()
}

function asker(app: Application) {
  return async (method: string, path: string, body: unknown): Promise<unknown> => {
    const headers = { 'content-type': 'application/json', cookie: app.cookie }
    const answer = await fetch(app.editor + path, { method, headers, body: JSON.stringify(body) })
    if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`)
    return answer.json()
  }
}
