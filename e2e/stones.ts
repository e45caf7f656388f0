/** A page with three stones on a grid section, for tests of acts on what is placed. */
import type { FrameLocator, Locator, Page } from '@playwright/test'
import { defaultRegistry, getKind, newNode, type PageNode } from '@gullyline/core'
import { canvasOf, expect, type App } from './app.ts'
import { addPageOf } from './shared-pages.ts'

export const place = (
  gridColumn: number,
  gridRow: number,
  gridColumns: number,
  gridRows: number,
  layer = 0,
) => ({
  base: { gridColumn, gridRow, gridColumns, gridRows, ...(layer === 0 ? {} : { layer }) },
})

export interface Stones {
  readonly canvas: FrameLocator
  readonly details: Locator
  readonly id: string
}

type Place = Parameters<typeof place>
const BESIDE: readonly Place[] = [
  [1, 1, 3, 1],
  [4, 1, 3, 1],
  [9, 3, 3, 1],
]

/** A new page with a grid section of three stones, beside each other if nothing else is asked for, opened in the editor. */
export async function openStones(
  page: Page,
  app: App,
  [one, two, three]: readonly Place[] = BESIDE,
): Promise<Stones> {
  const stone = (text: string, sizes: PageNode['sizes']): PageNode => ({
    ...newNode(getKind(defaultRegistry, 'heading'), { content: { text, level: 2 } }),
    sizes,
  })
  const nodes = {
    g: newNode(getKind(defaultRegistry, 'grid'), { slots: { blocks: ['one', 'two', 'three'] } }),
    one: stone('Stone one', place(...one!)),
    two: stone('Stone two', place(...two!)),
    three: stone('Stone three', place(...three!)),
  }
  const { id } = await addPageOf(page.context(), app, { title: 'Stones', sections: ['g'], nodes })
  await page.goto(`${app.editor}/pages/${id}`)
  const canvas = canvasOf(page)
  await expect(canvas.getByText('Stone one')).toBeVisible()
  return { canvas, details: page.getByRole('complementary', { name: 'Details' }), id }
}
