/** Grid sections: placed on columns and rows, overlapping, and derived for narrower screens, as Chromium lays them out. */
import type { Locator } from '@playwright/test'
import {
  arrangeGrid,
  defaultRegistry,
  getKind,
  newNode,
  type OpenedPage,
  type PageNode,
} from '@gullyline/core'
import { canvasOf, expect, test } from './app.ts'
import { api, expectSaved, noFindings } from './shared-pages.ts'

const place = (gridColumn: number, gridRow: number, gridColumns: number, gridRows: number, layer = 0) => ({
  base: { gridColumn, gridRow, gridColumns, gridRows, ...(layer === 0 ? {} : { layer }) },
})
const COLUMNS = { base: 12, medium: 8, narrow: 4 }

async function boxOf(locator: Locator) {
  await expect(locator).toBeVisible()
  return (await locator.boundingBox())!
}

test('blocks of a grid stand where they are placed, may overlap, and follow the reading order on a narrow screen', async ({
  page,
  app,
}) => {
  const context = page.context()
  const answer = await context.request.post(`${api(app)}/pages`, {
    data: { title: 'Stones on the moor', parentId: null },
  })
  const { summary, document } = (await answer.json()) as OpenedPage
  const node = (kind: string, content: PageNode['content'], more: Partial<PageNode> = {}): PageNode => ({
    ...newNode(getKind(defaultRegistry, kind), { content }),
    ...more,
  })
  const root = document.nodes[document.root]!
  const words = (text: string) => [{ type: 'paragraph', runs: [{ text }] }]
  const nodes = {
    [document.root]: {
      ...root,
      content: { ...root.content, description: 'Placed' },
      slots: { ...root.slots, sections: ['g'] },
    },
    g: node('grid', {}, { slots: { blocks: ['box', 'title', 'left', 'right'] } }),
    box: node(
      'group',
      {},
      { look: { surface: 'tint' }, slots: { blocks: ['inbox'] }, sizes: place(1, 1, 8, 3) },
    ),
    inbox: node('heading', { text: 'Behind', level: 3 }),
    title: node('heading', { text: 'Stones on the moor', level: 1 }, { sizes: place(6, 2, 7, 1, 1) }),
    left: node('text', { words: words('On the left') }, { sizes: place(1, 5, 6, 1) }),
    right: node('text', { words: words('On the right') }, { sizes: place(7, 5, 6, 1) }),
  }
  const saved = await context.request.put(`${api(app)}/pages/${summary.id}/document`, {
    data: { base: summary.version, document: { ...document, nodes }, journal: null },
  })
  expect(saved.status(), await saved.text()).toBe(200)
  expect(
    (
      await context.request.post(`${api(app)}/pages/${summary.id}/publish`, {
        data: { version: summary.version + 1 },
      })
    ).status(),
  ).toBe(200)

  // As visitors get it: every place as it is computed, to one pixel.
  const live = await context.newPage()
  const address = new URL(summary.path, app.site).href
  const children = ['box', 'title', 'left', 'right'].map((id) => ({
    id,
    places: {
      base: (({ gridColumn: column, gridRow: row, gridColumns: columns, gridRows: rows, layer }) => ({
        column,
        row,
        columns,
        rows,
        layer,
      }))((nodes[id as 'title'].sizes as ReturnType<typeof place>).base as never),
    },
  }))
  for (const [size, width] of [
    ['base', 1400],
    ['medium', 900],
    ['narrow', 390],
  ] as const) {
    await live.setViewportSize({ width, height: 900 })
    await live.goto(address)
    const cells = live.locator('.cells')
    const whole = await boxOf(cells)
    const gap = parseFloat(await cells.evaluate((element) => getComputedStyle(element).columnGap))
    const column = (whole.width - gap * (COLUMNS[size] - 1)) / COLUMNS[size]
    const { placed } = arrangeGrid(children, COLUMNS)[size]
    for (const [i, one] of placed.entries()) {
      const box = await boxOf(cells.locator(':scope > *').nth(i))
      const left = whole.x + (one.column - 1) * (column + gap)
      const across = one.columns * column + (one.columns - 1) * gap
      // What is narrower by itself, such as a text of a comfortable length, begins where its place does.
      expect(Math.abs(box.x - left)).toBeLessThanOrEqual(1)
      expect(box.width).toBeLessThanOrEqual(across + 1)
    }
    expect(await live.evaluate(() => globalThis.document.documentElement.scrollWidth)).toBeLessThanOrEqual(
      width,
    )
  }
  const behind = await boxOf(live.getByText('Behind'))
  const above = await boxOf(live.getByText('On the left'))
  const below = await boxOf(live.getByText('On the right'))
  expect(behind.y).toBeLessThan(above.y)
  expect(above.y + above.height).toBeLessThanOrEqual(below.y)

  // In the editor: numbers in the details, by keys, and taken back.
  const canvas = canvasOf(page)
  const details = page.getByRole('complementary', { name: 'Details' })
  await page.goto(`${app.editor}/pages/${summary.id}`)
  await canvas.getByText('On the right').click()
  const row = details.getByRole('combobox', { name: 'Row', exact: true })
  await expect(row).toHaveValue('5')
  const before = await boxOf(canvas.getByText('On the right'))
  await row.selectOption('7')
  await expect(async () => {
    expect((await boxOf(canvas.getByText('On the right'))).y).toBeGreaterThan(before.y + 20)
  }).toPass()
  await noFindings(page)
  await page.keyboard.press('Control+Z')
  await expect(row).toHaveValue('5')
  await row.selectOption('6')
  await page.keyboard.press('Control+S')
  await expectSaved(page)
})
