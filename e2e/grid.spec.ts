/** Grid sections: placed on columns and rows, overlapping, and derived for narrower screens, as Chromium lays them out. */
import type { Locator } from '@playwright/test'
import { arrangedAt, arrangeGrid, defaultRegistry, getKind, newNode, type PageNode } from '@gullyline/core'
import { canvasOf, expect, openPage, test } from './app.ts'
import { noFindings } from './axe.ts'
import { bySearch } from './finding-acts.ts'
import { openStones, place, type Stones } from './stones.ts'
import { addPageOf, expectSaved, partsOf, publishPage } from './shared-pages.ts'

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
  const node = (kind: string, content: PageNode['content'], more: Partial<PageNode> = {}): PageNode => ({
    ...newNode(getKind(defaultRegistry, kind), { content }),
    ...more,
  })
  const words = (text: string) => [{ type: 'paragraph', runs: [{ text }] }]
  const nodes = {
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
  const title = 'Stones on the moor'
  const summary = await addPageOf(context, app, { title, description: 'Placed', sections: ['g'], nodes })
  await publishPage(context, app, summary.id, summary.version + 1)

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
    const { placed } = arrangedAt(arrangeGrid(children, COLUMNS), size)
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

/** Where a stone stands, as the details say it: column, row, columns wide, rows high. */
async function expectPlace(
  { canvas, details }: Stones,
  stone: string,
  numbers: readonly number[],
): Promise<void> {
  const fields = ['Column', 'Row', 'Columns wide', 'Rows high']
  // From another one: a press on what is selected begins to type.
  await canvas.getByText(stone === 'Stone two' ? 'Stone three' : 'Stone two').click()
  await canvas.getByText(stone).click()
  for (const [i, name] of fields.entries())
    await expect(details.getByRole('combobox', { name, exact: true })).toHaveValue(String(numbers[i]))
}

test('a block is dragged over the grid and resized by its edges, by hand and by keys', async ({
  page,
  app,
}) => {
  const stones = await openStones(page, app)
  const { canvas } = stones
  const cells = await boxOf(canvas.locator('.cells'))
  const column = cells.width / 12
  const box = await boxOf(canvas.getByText('Stone one'))
  await page.mouse.move(box.x + 10, box.y + 10)
  await page.mouse.down()
  await page.mouse.move(box.x + 10 + 6 * column, box.y + 12, { steps: 8 })
  // Its left edge is level with that of nothing, its top with its neighbour’s.
  await expect(page.getByTestId('drag-layer')).toBeVisible()
  await page.mouse.up()
  await expectPlace(stones, 'Stone one', [7, 1, 3, 1])
  await expectPlace(stones, 'Stone two', [4, 1, 3, 1])

  const edge = page.getByRole('button', { name: 'Resize at the right edge' })
  const at = await boxOf(edge)
  await page.mouse.move(at.x + 12, at.y + 12)
  await page.mouse.down()
  await page.mouse.move(at.x + 12 - column, at.y + 12, { steps: 6 })
  await page.mouse.up()
  await expectPlace(stones, 'Stone two', [4, 1, 2, 1])
  await edge.focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expectPlace(stones, 'Stone two', [4, 1, 4, 1])
  await page.keyboard.press('Control+ArrowLeft')
  await page.keyboard.press('Control+ArrowDown')
  await expectPlace(stones, 'Stone two', [3, 2, 4, 1])
  // A drag that is ended with Escape changes nothing.
  const two = await boxOf(canvas.getByText('Stone two'))
  await page.mouse.move(two.x + 10, two.y + 10)
  await page.mouse.down()
  await page.mouse.move(two.x + 10 + 3 * column, two.y + 40, { steps: 5 })
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await expectPlace(stones, 'Stone two', [3, 2, 4, 1])
  await page.keyboard.press('Control+S')
  await expectSaved(page)
})

test('several are aligned and moved as one, rows are opened and closed, layers and the reading path are changed by keys', async ({
  page,
  app,
}) => {
  const stones = await openStones(page, app)
  const { canvas } = stones
  await canvas.getByText('Stone three').click()
  await page.keyboard.press('Alt+R')
  await expectPlace(stones, 'Stone three', [9, 4, 3, 1])
  await page.keyboard.press('Alt+Shift+R')
  await expectPlace(stones, 'Stone three', [9, 2, 3, 1])
  await page.keyboard.press('Alt+.')
  await expect(stones.details.getByRole('combobox', { name: 'Layer', exact: true })).toHaveValue('1')

  await canvas.getByText('Stone one').click()
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Control+ArrowRight')
  await expectPlace(stones, 'Stone one', [2, 1, 3, 1])
  await expectPlace(stones, 'Stone two', [5, 1, 3, 1])
  await expectPlace(stones, 'Stone one', [2, 1, 3, 1])
  await page.keyboard.press('Control+A')
  await canvas.getByText('Stone one').click({ button: 'right' })
  await page.getByRole('menuitem', { name: 'Align left edges' }).click()
  await expectPlace(stones, 'Stone three', [2, 2, 3, 1])
  await page.keyboard.press('Control+Z')
  await expectPlace(stones, 'Stone three', [9, 2, 3, 1])

  await page.keyboard.press('Alt+N')
  const path = page.getByRole('group', { name: 'Reading path' })
  await expect(path.getByRole('button')).toHaveCount(3)
  await path.getByRole('button', { name: /^3, .*Stone three/ }).press('ArrowUp')
  await expect(path.getByRole('button', { name: /^2, .*Stone three.*seen at another place/ })).toBeVisible()
  await canvas.getByText('Stone one').click({ button: 'right' })
  await page.getByRole('menuitem', { name: 'Match reading order' }).click()
  await expect(path.getByRole('button', { name: /^3, .*Stone three/ })).toBeVisible()
})

test('several are resized as one, by hand and by keys', async ({ page, app }) => {
  const stones = await openStones(page, app)
  const { canvas } = stones
  const column = (await boxOf(canvas.locator('.cells'))).width / 12
  const selectBoth = async (): Promise<void> => {
    await canvas.getByText('Stone one').click()
    await page.keyboard.press('Shift+ArrowDown')
  }
  await selectBoth()
  const edge = page.getByRole('button', { name: 'Resize 2 blocks at the right edge' })
  const at = await boxOf(edge)
  await page.mouse.move(at.x + 12, at.y + 12)
  await page.mouse.down()
  await page.mouse.move(at.x + 12 + 4 * column, at.y + 12, { steps: 6 })
  await page.mouse.up()
  await expectPlace(stones, 'Stone one', [1, 1, 5, 1])
  await expectPlace(stones, 'Stone two', [6, 1, 5, 1])
  await expectPlace(stones, 'Stone three', [9, 3, 3, 1])
  await selectBoth()
  await page.getByRole('button', { name: 'Resize 2 blocks at the bottom right corner' }).focus()
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowDown')
  await expectPlace(stones, 'Stone one', [1, 1, 4, 2])
  await expectPlace(stones, 'Stone two', [5, 1, 4, 2])
  await page.keyboard.press('Control+Z')
  await page.keyboard.press('Control+Z')
  await page.keyboard.press('Control+Z')
  await expectPlace(stones, 'Stone one', [1, 1, 5, 1])
  await expectPlace(stones, 'Stone two', [6, 1, 5, 1])
})

test('a section becomes a grid section with each block where it was, and a section again with all its blocks', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  const said = ['Opening hours', 'What it costs', 'Ask for a place']
  // On the page, wherever it is scrolled to.
  const boxes = () =>
    Promise.all(
      said.map((words) =>
        canvas
          .getByText(words, { exact: true })
          .first()
          .evaluate((element) => {
            const { x, y, width, height } = element.getBoundingClientRect()
            return { x, y: y + element.ownerDocument.defaultView!.scrollY, width, height }
          }),
      ),
    )
  const before = await boxes()
  await canvas.getByText('Opening hours', { exact: true }).first().click()
  await bySearch(page, 'Turn into grid')
  await expect(canvas.locator('.grid')).not.toHaveCount(0)
  for (const [i, box] of (await boxes()).entries())
    for (const key of ['x', 'y', 'width', 'height'] as const)
      expect(Math.abs(box[key] - before[i]![key]), `${said[i]} ${key}`).toBeLessThanOrEqual(2)
  await canvas.getByText('Opening hours', { exact: true }).first().click({ button: 'right' })
  await page.getByRole('menuitem', { name: 'Turn into grid section or section' }).click()
  await expect(canvas.locator('.grid')).toHaveCount(0)
  for (const words of said) await expect(canvas.getByText(words, { exact: true }).first()).toBeVisible()
  await page.keyboard.press('Control+Z')
  await page.keyboard.press('Control+Z')
  expect(await boxes()).toEqual(before)
})

test('a line above a block is pulled down to open rows for all below, and pushed up to close them, by hand and by keys', async ({
  page,
  app,
}) => {
  const stones = await openStones(page, app)
  const { canvas } = stones
  await canvas.getByText('Stone three').click()
  const line = page.getByRole('button', { name: 'Make room above heading “Stone three”' })
  const at = await boxOf(line)
  await page.mouse.move(at.x + 12, at.y + 12)
  await page.mouse.down()
  await page.mouse.move(at.x + 12, at.y + 60, { steps: 4 })
  await page.mouse.move(at.x + 12, at.y + 150, { steps: 4 })
  await expect(page.getByText(/^Opens \d rows? for all below$/)).toBeVisible()
  // Given up, nothing moves.
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await expectPlace(stones, 'Stone three', [9, 3, 3, 1])
  await line.focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await expectPlace(stones, 'Stone three', [9, 5, 3, 1])
  await expectPlace(stones, 'Stone one', [1, 1, 3, 1])
  await canvas.getByText('Stone three').click()
  const again = await boxOf(line)
  await page.mouse.move(again.x + 12, again.y + 12)
  await page.mouse.down()
  await page.mouse.move(again.x + 12, again.y - 400, { steps: 6 })
  await page.mouse.up()
  // As far as there is something: Stone one and Stone two end with row 1.
  await expectPlace(stones, 'Stone three', [9, 2, 3, 1])
  await page.keyboard.press('Control+Z')
  await expectPlace(stones, 'Stone three', [9, 5, 3, 1])
})

test('a linked part is placed on a grid section by keys and left out of a size, as any block is', async ({
  page,
  app,
}) => {
  const parts = await partsOf(page.context(), app)
  const part = parts.find(({ name }) => name === 'Sky card')!.id
  const nodes = {
    g: newNode(getKind(defaultRegistry, 'grid'), { slots: { blocks: ['card', 'one'] } }),
    card: {
      ...newNode(getKind(defaultRegistry, 'linked-blocks'), { content: { part } }),
      sizes: place(1, 1, 4, 2),
    },
    one: {
      ...newNode(getKind(defaultRegistry, 'heading'), { content: { text: 'Stone one', level: 2 } }),
      sizes: place(7, 1, 4, 1),
    },
  }
  const { id } = await addPageOf(page.context(), app, { title: 'Linked stones', sections: ['g'], nodes })
  await page.goto(`${app.editor}/pages/${id}`)
  const canvas = canvasOf(page)
  const card = canvas.locator('.cells > *').first()
  const before = await boxOf(card)
  await card.click()
  await page.keyboard.press('Control+ArrowRight')
  await expect.poll(async () => (await boxOf(card)).x).toBeGreaterThan(before.x + 40)
  const details = page.getByRole('complementary', { name: 'Details' })
  await details.getByRole('button', { name: 'Shown: set per size' }).click()
  await details.getByRole('combobox', { name: 'Shown at narrow' }).selectOption({ label: 'No' })
  await page
    .getByRole('region', { name: 'Ruler' })
    .getByRole('button', { name: 'narrow', exact: true })
    .click()
  await expect(card).toBeHidden()
})
