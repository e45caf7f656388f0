/** Blocks of a grid section that reach to the edges of the screen, as Chromium lays them out. */
import { defaultRegistry, getKind, newNode, type PageNode } from '@gullyline/core'
import { canvasOf, expect, test } from './app.ts'
import { addPageOf } from './shared-pages.ts'

const place = (gridColumn: number, gridRow: number, gridColumns: number, gridRows: number) => ({
  base: { gridColumn, gridRow, gridColumns, gridRows },
})

test('two halves reach to the edges of the screen at every width, by mouse and by keys, and no further', async ({
  page,
  app,
}) => {
  const half = (text: string, sizes: PageNode['sizes'], surface: string): Record<string, PageNode> => ({
    [text]: {
      ...newNode(getKind(defaultRegistry, 'group'), { slots: { blocks: [`in${text}`] } }),
      look: { surface },
      sizes,
    },
    [`in${text}`]: newNode(getKind(defaultRegistry, 'heading'), { content: { text, level: 2 } }),
  })
  const nodes = {
    g: newNode(getKind(defaultRegistry, 'grid'), { slots: { blocks: ['dusk', 'dawn'] } }),
    ...half('dusk', place(1, 1, 6, 2), 'night'),
    ...half('dawn', place(7, 1, 6, 2), 'tint'),
  }
  const { id } = await addPageOf(page.context(), app, { title: 'Two halves', sections: ['g'], nodes })
  await page.goto(`${app.editor}/pages/${id}`)
  const canvas = canvasOf(page)
  const details = page.getByRole('complementary', { name: 'Details' })
  const bleed = details.getByRole('combobox', { name: 'Full bleed', exact: true })
  await canvas.locator('[data-node=dusk]').click({ position: { x: 8, y: 8 } })
  await bleed.selectOption('Yes')
  await canvas.locator('[data-node=dawn]').click({ position: { x: 8, y: 8 } })
  await bleed.focus()
  await page.keyboard.press('y')
  await expect(bleed).toHaveValue('true')
  const slider = page.getByRole('slider', { name: 'Width of the page' })
  const ends = () =>
    canvas.locator('html').evaluate((root) => {
      const boxes = ['dusk', 'dawn'].map((one) =>
        root.querySelector(`[data-node=${one}]`)!.getBoundingClientRect(),
      )
      const round = (list: readonly number[]) => list.map((one) => Math.round(one))
      const width = root.clientWidth
      return {
        left: round(boxes.map((box) => box.left)),
        // How far from the right edge.
        right: round(boxes.map((box) => width - box.right)),
        beyond: root.scrollWidth - width,
      }
    })
  for (const width of [1920, 1280, 900, 721]) {
    await slider.focus()
    await page.keyboard.press('Home')
    let at = 320
    for (const [key, by] of [
      ['Shift+PageUp', 500],
      ['PageUp', 50],
      ['Shift+ArrowRight', 10],
      ['ArrowRight', 1],
    ] as const)
      for (; at + by <= width; at += by) await page.keyboard.press(key)
    await expect(slider).toHaveAttribute('aria-valuenow', String(width))
    await expect.poll(async () => (await ends()).left[0]).toBe(0)
    const { left, right, beyond } = await ends()
    expect([width, left[0], right[1], beyond]).toEqual([width, 0, 0, 0])
    // They meet as they did: what lies between them is the gap of the grid.
    expect(left[1]! - (width - right[0]!)).toBeGreaterThanOrEqual(0)
  }
  // One below the other, each reaches to both sides.
  await slider.focus()
  await page.keyboard.press('Home')
  await expect.poll(ends).toEqual({ left: [0, 0], right: [0, 0], beyond: 0 })
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await ends()).left[1]).toBeGreaterThan(0)
})
