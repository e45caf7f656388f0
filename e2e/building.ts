/** What a person does when building pages, for tests of building them. */
import type { Locator, Page } from '@playwright/test'
import type { PageSummary } from '@gullyline/core'
import { canvasOf, expect, untilWhole, type App } from './app.ts'

/** What the editor told last. */
export const told = (page: Page): Locator => page.getByRole('status').filter({ hasText: /\S/ })

/** The row of a page in the tree of pages. */
export const row = (page: Page, title: string): Locator =>
  page.getByRole('row').filter({ has: page.getByRole('link', { name: title, exact: true }) })

/** Goes to another screen of the site by the list that is on each of them. */
export async function goTo(page: Page, screen: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: screen }).click()
  await expect(page.getByRole('heading', { level: 1, name: screen })).toBeVisible()
}

/** Adds a page of a template in the dialog for it, and opens it. */
export async function addPageByHand(
  page: Page,
  editor: string,
  title: string,
  template: RegExp,
): Promise<void> {
  await page.goto(editor)
  await page.getByRole('button', { name: 'Add page' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill(title)
  await page.getByRole('radio', { name: template }).check({ force: true })
  await page.getByRole('dialog').getByRole('button', { name: 'Add page' }).click()
  await untilWhole(page)
}

/** Adds a page of a template, and opens it. Done without the screen, which has tests of its own. */
export async function addPage(page: Page, app: App, title: string, template: string): Promise<void> {
  const { request } = page.context()
  const added = await request.post(`${app.editor}/api/sites/tarrowmoor/pages`, {
    data: { title, parentId: null, template },
  })
  const { summary } = (await added.json()) as { summary: PageSummary }
  await page.goto(`${app.editor}/pages/${summary.id}`)
  await untilWhole(page)
}

/** Adds what is called so from the shelf, after what is selected, by keyboard. */
export async function add(page: Page, name: string): Promise<void> {
  await page.keyboard.press('Control+Enter')
  await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill(name)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'Shelf' })).toHaveCount(0)
  await leaveText(page)
}

/** Leaves the text of a block that is being typed in, as that of a new one is at once; with none, does nothing. */
export async function leaveText(page: Page): Promise<void> {
  if ((await canvasOf(page).locator('[contenteditable="true"]').count()) > 0)
    await page.keyboard.press('Escape')
}

/** Where a word stands on the screen: its beginning, or its middle. The page may be shown smaller than it is. */
export async function pointAt(
  block: Locator,
  word: string,
  where: 'beginning' | 'middle',
): Promise<{ x: number; y: number }> {
  await block.scrollIntoViewIfNeeded()
  const share = await block.evaluate(
    (element, [wanted, at]) => {
      const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT)
      for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        const start = node.textContent!.indexOf(wanted!)
        if (start < 0) continue
        const range = new Range()
        range.setStart(node, start)
        range.setEnd(node, start + wanted!.length)
        const [there, whole] = [range.getBoundingClientRect(), element.getBoundingClientRect()]
        const x = at === 'middle' ? there.left + there.width / 2 : there.left + 1
        return {
          x: (x - whole.left) / whole.width,
          y: (there.top + there.height / 2 - whole.top) / whole.height,
        }
      }
      throw new Error(`There is no "${wanted}" here`)
    },
    [word, where],
  )
  const box = (await block.boundingBox())!
  return { x: box.x + share.x * box.width, y: box.y + share.y * box.height }
}
