/** A server with the sample site, and what tests do there with shared sections. */
import { expect } from '@jest/globals'
import type { OpenedPage, Page, PageNode, PublishResult, SavedPart, SaveResult } from '@gullyline/core'
import { startTestServer } from './with-server.ts'

export const SITE = '/api/sites/tarrowmoor'

export async function startWithParts() {
  const server = await startTestServer()
  const open = async (id: string) => (await server.ask<OpenedPage>(`${SITE}/pages/${id}`)).body
  const list = async () => (await server.ask<SavedPart[]>(`${SITE}/parts`)).body
  const save = (id: string, body: object) =>
    server.ask<SaveResult>(`${SITE}/pages/${id}/document`, {
      method: 'PUT',
      body: { journal: null, ...body },
    })
  /** Adds a shared section of blocks: a heading that says something, and what else is given. */
  const addPart = async (name: string, words: string, more: Record<string, PageNode> = {}) => {
    const blocks = ['h', ...Object.keys(more)]
    const page: Page = {
      format: 4,
      root: 'r',
      nodes: {
        r: nodeOf('shared-blocks', {}, { blocks }),
        h: nodeOf('heading', { text: words, level: 2 }),
        ...more,
      },
    }
    const body = { type: 'shared', name, purpose: 'contact', about: '', document: page }
    const answer = await server.ask<SavedPart>(`${SITE}/parts`, { method: 'POST', body })
    expect(answer.status).toBe(201)
    return answer.body
  }
  /** Puts an instance on a page, and saves that. Returns the number of its version. */
  const place = async (pageId: string, part: string): Promise<number> => {
    const { summary, document } = await open(pageId)
    const { status } = await save(pageId, { base: summary.version, document: withInstance(document, part) })
    expect(status).toBe(200)
    return summary.version + 1
  }
  return {
    server,
    open,
    list,
    save,
    addPart,
    place,
    partNow: async (id: string) => (await list()).find((one) => one.id === id)!,
    replace: (id: string, instead: unknown) =>
      server.ask<SavedPart>(`${SITE}/parts/${id}/replace`, { method: 'POST', body: { instead } }),
    publish: (id: string, body: object) =>
      server.ask<PublishResult>(`${SITE}/pages/${id}/publish`, { method: 'POST', body }),
    visited: async (path: string): Promise<string> =>
      (await server.site.request(`http://localhost:1${path}`)).text(),
  }
}

export function nodeOf(kind: string, content: PageNode['content'], slots: PageNode['slots'] = {}): PageNode {
  return {
    kind,
    content,
    look: {},
    sizes: { base: {} },
    slots: kind.startsWith('linked-') ? { fills: [], ...slots } : slots,
  }
}

export function instanceNode(part: string): PageNode {
  return nodeOf('linked-blocks', { part })
}

let made = 0
/** An id that no document of the sample site has. */
export const newId = (): string => `zz${++made}`

/** The page with an instance at the end of one of its sections. */
export function withInstance(page: Page, part: string): Page {
  const [last, section] = Object.entries(page.nodes).findLast(([, { kind }]) => kind === 'section')!
  const id = newId()
  const blocks = [...section.slots.blocks!, id]
  const nodes = { ...page.nodes, [id]: instanceNode(part), [last]: { ...section, slots: { blocks } } }
  return { ...page, nodes }
}

/** The part with another text in its heading. */
export function saying({ document }: { readonly document: Page }, words: string): Page {
  const [heading] = document.nodes[document.root]!.slots.blocks!
  const node = document.nodes[heading!]!
  const next = { ...node, content: { ...node.content, text: words } }
  return { ...document, nodes: { ...document.nodes, [heading!]: next } }
}
