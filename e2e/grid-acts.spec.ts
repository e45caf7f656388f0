/** What is done to blocks of a grid section beside moving one, each by mouse and by keyboard. */
import type { Page } from '@playwright/test'
import { centreOf, drag, expect, test } from './app.ts'
import { bySearch } from './finding-acts.ts'
import { openStones, type Stones } from './stones.ts'

const STONES = ['Stone one', 'Stone two', 'Stone three']
/** What each act makes of column, row and layer of the three. */
type Outcome = readonly (readonly number[])[]

/** Column, row and layer of each stone, as Chromium has them. */
function placesOf({ canvas }: Stones): Promise<number[][]> {
  return Promise.all(
    STONES.map((stone) =>
      canvas.getByText(stone).evaluate((element) => {
        const { gridColumnStart, gridRowStart, zIndex } = getComputedStyle(element)
        return [gridColumnStart, gridRowStart, zIndex].map((value) => Number(value) || 0)
      }),
    ),
  )
}

async function byMenu(page: Page, { canvas }: Stones, act: string): Promise<void> {
  await canvas.getByText('Stone one').click({ button: 'right' })
  await page.getByRole('menuitem', { name: act, exact: false }).click()
}

/** Does each act by the menu and by the search, and takes it back each time. */
async function expectActs(
  page: Page,
  stones: Stones,
  { outcomes, select }: { outcomes: Readonly<Record<string, Outcome>>; select: () => Promise<void> },
): Promise<void> {
  const before = await placesOf(stones)
  for (const [act, places] of Object.entries(outcomes))
    for (const how of ['mouse', 'keyboard']) {
      await select()
      if (how === 'mouse') await byMenu(page, stones, act)
      else await bySearch(page, act)
      await expect.poll(() => placesOf(stones), `${act} by ${how}`).toEqual(places)
      await page.keyboard.press('Control+Z')
      await expect.poll(() => placesOf(stones)).toEqual(before)
    }
}

test('three are aligned by their edges and middles, and set apart evenly', async ({ page, app }) => {
  // Every edge and middle is on another line.
  const stones = await openStones(page, app, [
    [1, 1, 2, 1],
    [5, 4, 4, 3],
    [9, 7, 3, 1],
  ])
  await stones.canvas.getByText('Stone one').click()
  await expectActs(page, stones, {
    select: () => page.keyboard.press('Control+A'),
    // prettier-ignore
    outcomes: {
      'Align left edges': [[1, 1, 0], [1, 4, 0], [1, 7, 0]],
      'Align centres': [[5, 1, 0], [4, 4, 0], [5, 7, 0]],
      'Align right edges': [[10, 1, 0], [8, 4, 0], [9, 7, 0]],
      'Align top edges': [[1, 1, 0], [5, 1, 0], [9, 1, 0]],
      'Align middles': [[1, 4, 0], [5, 3, 0], [9, 4, 0]],
      'Align bottom edges': [[1, 7, 0], [5, 5, 0], [9, 7, 0]],
      'Distribute horizontally': [[1, 1, 0], [4, 4, 0], [9, 7, 0]],
      'Distribute vertically': [[1, 1, 0], [5, 3, 0], [9, 7, 0]],
    },
  })
})

test('layers go forward, backward, to the front and to the back', async ({ page, app }) => {
  const stones = await openStones(page, app, [
    [1, 1, 3, 1, 1],
    [3, 1, 3, 1, 0],
    [5, 1, 3, 1, 2],
  ])
  const { canvas } = stones
  await expectActs(page, stones, {
    select: async () => {
      // From another one: a press on what is selected begins to type.
      await canvas.getByText('Stone three').click()
      await canvas.getByText('Stone one').click()
    },
    // prettier-ignore
    outcomes: {
      'Bring forward': [[1, 1, 2], [3, 1, 0], [5, 1, 2]],
      'Send backward': [[1, 1, 0], [3, 1, 0], [5, 1, 2]],
      'Bring to front': [[1, 1, 3], [3, 1, 0], [5, 1, 2]],
      'Send to back': [[1, 1, 0], [3, 1, 1], [5, 1, 3]],
    },
  })
})

test('what was placed by hand on a narrow screen goes back to where it is derived to stand', async ({
  page,
  app,
}) => {
  const stones = await openStones(page, app)
  const { canvas } = stones
  const ruler = page.getByRole('region', { name: 'Ruler' })
  await ruler.getByRole('button', { name: 'narrow', exact: true }).click()
  const derived = await placesOf(stones)
  for (const how of ['mouse', 'keyboard']) {
    await canvas.getByText('Stone two').click()
    await canvas.getByText('Stone one').click()
    await page.keyboard.press('Control+ArrowDown')
    await page.keyboard.press('Control+ArrowDown')
    await expect.poll(() => placesOf(stones)).not.toEqual(derived)
    if (how === 'mouse') await byMenu(page, stones, 'Reset place')
    else await bySearch(page, 'Reset place')
    await expect.poll(() => placesOf(stones), how).toEqual(derived)
  }
})

test('two are dragged as one; lines that a dragged block shares are drawn, and it is said what can’t be centred', async ({
  page,
  app,
}) => {
  const stones = await openStones(page, app)
  const { canvas } = stones
  const column = (await canvas.locator('.cells').boundingBox())!.width / 12
  const guides = page.getByTestId('drag-layer').locator('[data-guide]')
  await canvas.getByText('Stone one').click()
  await canvas.getByText('Stone two').click({ modifiers: ['Shift'] })
  const one = await centreOf(canvas.getByText('Stone one'))
  await drag(page, one, { x: one.x + 2 * column, y: one.y })
  await expect
    .poll(() => placesOf(stones))
    .toEqual([
      [3, 1, 0],
      [6, 1, 0],
      [9, 3, 0],
    ])
  await page.keyboard.press('Control+Z')

  // Over column 1 stands nothing but the first stone, whose left edge is drawn.
  await canvas.getByText('Stone two').click()
  const three = await centreOf(canvas.getByText('Stone three'))
  await drag(page, three, { x: three.x - 8 * column, y: three.y }, true)
  await expect(guides).not.toHaveCount(0)
  const edge = (await canvas.getByText('Stone one').boundingBox())!.x
  const drawn = await guides.evaluateAll((lines) => lines.map((line) => line.getBoundingClientRect()))
  expect(drawn.some(({ x, width, height }) => height > width && Math.abs(x - edge) < 16)).toBe(true)
  await page.mouse.move(three.x - 4 * column, three.y, { steps: 4 })
  const said = '3 columns can’t stand in the middle of 12; 2 or 4 can'
  await expect(page.getByTestId('drag-layer').getByRole('status')).toHaveText(said)
  await page.keyboard.press('Escape')
  await page.mouse.up()

  await canvas.getByText('Stone three').click()
  for (let i = 0; i < 2; i++) await page.keyboard.press('Control+ArrowLeft')
  await expect(page.getByText(said)).toBeHidden()
  await page.keyboard.press('Control+ArrowLeft')
  await expect(page.getByText(said)).toBeVisible()
})

test('a number of the reading path is dragged to another, or moved by keys, and what is read follows', async ({
  page,
  app,
}) => {
  const stones = await openStones(page, app)
  const { canvas } = stones
  const before = await placesOf(stones)
  const read = () => canvas.getByText(/^Stone /).allInnerTexts()
  await canvas.getByText('Stone one').click()
  await byMenu(page, stones, 'Show reading path')
  const path = page.getByRole('group', { name: 'Reading path' })
  const number = (of: string) => path.getByRole('button', { name: new RegExp(of) })
  await drag(page, await centreOf(number('Stone three')), await centreOf(number('Stone one')), true)
  await expect(path.getByRole('status')).toHaveText(/^Read aloud in place of .*Stone one/)
  await page.mouse.up()
  await expect.poll(read).toEqual(['Stone three', 'Stone one', 'Stone two'])
  // Each stands where it stood.
  expect(await placesOf(stones)).toEqual(before)
  await page.keyboard.press('ArrowDown')
  await expect.poll(read).toEqual(['Stone one', 'Stone three', 'Stone two'])
  // Let go where there is no number, nothing is changed.
  await drag(page, await centreOf(number('Stone two')), { x: 700, y: 600 })
  await expect.poll(read).toEqual(['Stone one', 'Stone three', 'Stone two'])
  await byMenu(page, stones, 'Match reading order')
  await expect.poll(read).toEqual(['Stone one', 'Stone two', 'Stone three'])
  await bySearch(page, 'Show reading path')
  await expect(path).toBeHidden()
})
