/** Opening a long page: what fills the window comes first, and nothing stands where it does not stay. */
import type { Page } from '@playwright/test'
import {
  defaultRegistry as registry,
  getKind,
  newNode,
  type PageDocument,
  type PageNode,
} from '@gullyline/core'
import { expect, test, untilWhole, type App } from './app.ts'

const SECTIONS = 40
const IN_A_SECTION = 5

/** Adds a page of many sections, saved, and gives its id. */
async function addLongPage(page: Page, app: App): Promise<string> {
  const { request } = page.context()
  const pages = `${app.editor}/api/sites/tarrowmoor/pages`
  const made = (await (
    await request.post(pages, { data: { title: 'All nights', parentId: null } })
  ).json()) as PageDocument
  const { id, version } = made.summary
  const nodes: Record<string, PageNode> = { ...made.document.nodes }
  const sections = Array.from({ length: SECTIONS }, (_unused, s) => {
    const blocks = Array.from({ length: IN_A_SECTION }, (_none, i) => {
      nodes[`s${s}b${i}`] = newNode(getKind(registry, 'heading'), {
        content: { text: `Night ${s}, hour ${i}`, level: 2 },
      })
      return `s${s}b${i}`
    })
    nodes[`s${s}`] = newNode(getKind(registry, 'section'), { slots: { blocks } })
    return `s${s}`
  })
  const root = nodes[made.document.root]!
  nodes[made.document.root] = { ...root, slots: { ...root.slots, sections } }
  const saved = await request.put(`${pages}/${id}/document`, {
    data: { base: version, document: { ...made.document, nodes }, journal: null },
  })
  expect(saved.status()).toBe(200)
  return id
}

/** What was on the canvas at a moment. */
interface Seen {
  readonly headings: number
  readonly hasFooter: boolean
  /** Whether there was more than the window shows. */
  readonly isFull: boolean
  /** How far below the top of the page the first heading was; nothing while fonts were still to come. */
  readonly top: number | undefined
}

test('a long page stands still while the rest of it comes, and its footer comes last', async ({
  page,
  app,
}) => {
  const id = await addLongPage(page, app)
  await page.addInitScript(() => {
    const seen: Seen[] = []
    Object.assign(globalThis, { seen })
    const look = (): void => {
      const inner = document.querySelector('iframe')?.contentDocument
      const headings = inner?.querySelectorAll('main h2') ?? []
      if (!inner || headings.length === 0) return
      const hasFooter = inner.querySelector('footer') !== null
      const { scrollHeight, clientHeight } = inner.documentElement
      const box = headings[0]!.getBoundingClientRect()
      const top = inner.fonts.status === 'loaded' ? box.top : undefined
      const now = { headings: headings.length, hasFooter, isFull: scrollHeight > clientHeight, top }
      if (JSON.stringify(now) !== JSON.stringify(seen.at(-1))) seen.push(now)
    }
    // More often than there are frames, which a busy machine leaves out.
    if (window === window.top) setInterval(look, 4)
  })
  await page.goto(`${app.editor}/pages/${id}`)
  const canvas = await untilWhole(page)
  await expect(canvas.locator('main h2')).toHaveCount(SECTIONS * IN_A_SECTION)
  const lookedAt = () => page.evaluate(() => (globalThis as unknown as { seen: Seen[] }).seen)
  await expect.poll(async () => (await lookedAt()).at(-1)!.top).toBeDefined()
  const seen = await lookedAt()
  expect(seen[0]!.headings).toBeLessThan(SECTIONS * IN_A_SECTION)
  const tops = new Set<number>()
  for (const { headings, hasFooter, isFull, top } of seen) {
    expect(isFull).toBe(true)
    expect(hasFooter).toBe(headings === SECTIONS * IN_A_SECTION)
    if (top !== undefined) tops.add(top)
  }
  expect(tops.size).toBe(1)
})
