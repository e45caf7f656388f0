/** What tests of shared sections and components begin with. */
import type { BrowserContext, Page } from '@playwright/test'
import {
  defaultRegistry,
  getKind,
  newNode,
  type JsonObject,
  type OpenedPage,
  type PageNode,
  type PageSummary,
  type SavedPart,
} from '@gullyline/core'
import { expect, type App } from './app.ts'

export const api = (app: App): string => `${app.editor}/api/sites/tarrowmoor`

export async function partsOf(context: BrowserContext, app: App): Promise<SavedPart[]> {
  return (await (await context.request.get(`${api(app)}/parts`)).json()) as SavedPart[]
}

interface MadePage {
  readonly title: string
  /** The ids of its sections, in their order. */
  readonly sections: readonly string[]
  readonly nodes: Readonly<Record<string, PageNode>>
  readonly description?: string
}

/** Adds a page of these blocks, and gives it as it was added: what is saved is the version after that. */
export async function addPageOf(
  context: BrowserContext,
  app: App,
  { title, sections, nodes, description }: MadePage,
): Promise<PageSummary> {
  const answer = await context.request.post(`${api(app)}/pages`, { data: { title, parentId: null } })
  const { summary, document } = (await answer.json()) as OpenedPage
  const root = document.nodes[document.root]!
  const own: PageNode = {
    ...root,
    content: { ...root.content, ...(description === undefined ? {} : { description }) },
    slots: { ...root.slots, sections },
  }
  const saved = await context.request.put(`${api(app)}/pages/${summary.id}/document`, {
    data: {
      base: summary.version,
      document: { ...document, nodes: { [document.root]: own, ...nodes } },
      journal: null,
    },
  })
  expect(saved.status(), await saved.text()).toBe(200)
  return summary
}

/** Makes what was saved last of a page live. */
export async function publishPage(
  context: BrowserContext,
  app: App,
  id: string,
  version: number,
): Promise<void> {
  const answer = await context.request.post(`${api(app)}/pages/${id}/publish`, { data: { version } })
  expect(answer.status(), await answer.text()).toBe(200)
}

/** A page of its own for each test, since several work on one server at once. */
export async function makePage(context: BrowserContext, app: App, title: string): Promise<string> {
  const node = (kind: string, content: JsonObject, slots: PageNode['slots'] = {}): PageNode =>
    newNode(getKind(defaultRegistry, kind), { content, slots })
  const nodes = {
    s1: node('section', {}, { blocks: ['h1'] }),
    h1: node('heading', { text: title, level: 1 }),
    s2: node('section', {}, { blocks: ['h2', 'ps'] }),
    h2: node('heading', { text: 'More here', level: 2 }),
    ps: node('panels', {}, { panels: ['p1'] }),
    p1: node('panel', { label: 'When?' }, { blocks: ['h3'] }),
    h3: node('heading', { text: 'In the panel', level: 3 }),
  }
  return (await addPageOf(context, app, { title, sections: ['s1', 's2'], nodes })).id
}

export async function expectSaved(page: Page): Promise<void> {
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
}
