/** Where blocks of grid sections stand, for thousands of random arrangements: our arithmetic against Chromium's own boxes. */
import {
  defaultRegistry as registry,
  getKind,
  newNode,
  placesAt,
  renderPage,
  type Page,
  type PageNode,
  type SizeKey,
} from '@gullyline/core'
import { contactSheet } from './contact-sheet.ts'
import { expect, test } from './app.ts'

test.use({ isTabKept: false })

const GRIDS_ON_A_PAGE = 100
const PAGES = 12
const WIDTHS: readonly (readonly [size: SizeKey, width: number])[] = [
  ['base', 1300],
  ['medium', 800],
  ['narrow', 400],
]

/** The same numbers each time, from 0 to 1 (Park and Miller, "Random Number Generators: Good Ones Are Hard to Find", 1988). */
function numbersFrom(seed: number): () => number {
  let now = seed
  return () => (now = (now * 48271) % 2147483647) / 2147483647
}

/** A page of grids of any columns, with up to eight empty blocks each, placed anywhere, some of them at narrower sizes as well. */
function pageOfGrids(seed: number): Page {
  const random = numbersFrom(seed)
  const upTo = (most: number): number => 1 + Math.floor(random() * most)
  const nodes: Record<string, PageNode> = {}
  const anyPlace = () => ({
    gridColumn: upTo(12),
    gridRow: upTo(8),
    gridColumns: upTo(8),
    gridRows: upTo(3),
    ...(random() < 0.3 ? { layer: upTo(3) } : {}),
  })
  const sections = Array.from({ length: GRIDS_ON_A_PAGE }, (_unused, g) => {
    const blocks = Array.from({ length: upTo(8) }, (_none, i) => {
      const sizes = {
        base: random() < 0.9 ? anyPlace() : {},
        ...(random() < 0.2 ? { medium: anyPlace() } : {}),
        ...(random() < 0.2 ? { narrow: random() < 0.3 ? { shown: false } : anyPlace() } : {}),
      }
      nodes[`g${g}b${i}`] = newNode(getKind(registry, 'group'), { sizes })
      return `g${g}b${i}`
    })
    const base = {
      cells: 2 * upTo(6),
      gapAcross: ['none', 's', 'l'][upTo(3) - 1]!,
      rowHeight: ['m', 'xl'][upTo(2) - 1]!,
    }
    nodes[`g${g}`] = newNode(getKind(registry, 'grid'), { sizes: { base }, slots: { blocks } })
    return `g${g}`
  })
  nodes.root = newNode(getKind(registry, 'page'), { slots: { sections } })
  return { format: 4, root: 'root', nodes }
}

test('1,200 random arrangements stand at three sizes where they are said to, to one pixel', async ({
  page,
}) => {
  const { context } = contactSheet()
  let looked = 0
  const wrong: string[] = []
  for (let seed = 1; seed <= PAGES; seed++) {
    const document = pageOfGrids(seed)
    const parts = { page: document, title: 'Grids', description: '' }
    await page.setContent(renderPage(parts, registry, { ...context, purpose: 'measure' }, 'inline').html)
    for (const [size, width] of WIDTHS) {
      await page.setViewportSize({ width, height: 800 })
      const grids = await page.locator('.grid').evaluateAll((all) =>
        all.map((grid) => {
          const cells = grid.querySelector('.cells')!
          const { columnGap, rowGap, gridAutoRows } = getComputedStyle(cells)
          const { x, y, width: across } = cells.getBoundingClientRect()
          const boxes = [...cells.children].map((child) => {
            const box = child.getBoundingClientRect()
            return [
              (child as HTMLElement).dataset.node!,
              [box.x - x, box.y - y, box.width, box.height],
            ] as const
          })
          return {
            id: (grid as HTMLElement).dataset.node!,
            across,
            gap: [parseFloat(columnGap) || 0, parseFloat(rowGap) || 0] as const,
            rowHeight: parseFloat(gridAutoRows.replace('minmax(', '')),
            boxes: Object.fromEntries(boxes),
          }
        }),
      )
      for (const { id, across, gap, rowHeight, boxes } of grids) {
        const { columns, placed } = placesAt(document, id, { registry, size })
        const one = (across - gap[0] * (columns - 1)) / columns
        for (const { id: child, column, row, columns: wide, rows } of placed) {
          const expected = [
            (column - 1) * (one + gap[0]),
            (row - 1) * (rowHeight + gap[1]),
            wide * one + (wide - 1) * gap[0],
            rows * rowHeight + (rows - 1) * gap[1],
          ]
          looked++
          const box = boxes[child]!
          if (expected.some((value, i) => Math.abs(value - box[i]!) > 1))
            wrong.push(`${seed} ${size} ${child}: ${expected.join(' ')}, but ${box.join(' ')}`)
        }
        // What is left out of a size has no box there.
        const left = Object.keys(boxes).filter((child) => !placed.some((one) => one.id === child))
        expect(left.filter((child) => boxes[child]!.some((side, i) => i > 1 && side !== 0))).toEqual([])
      }
    }
  }
  expect(wrong).toEqual([])
  expect(looked).toBeGreaterThan(12_000)
})
