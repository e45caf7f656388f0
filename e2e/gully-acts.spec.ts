/** What is done with gullies beside fixing one after another by mouse: going from one to the next, sorting them, fixing and ignoring by keyboard. */
import { defaultRegistry, getKind, newNode, RULES } from '@gullyline/core'
import { canvasOf, centreOf, expect, test } from './app.ts'
import { counter, openFaults } from './gully-faults.ts'
import { addPageOf } from './shared-pages.ts'

test.use({ isMeasuring: true })

const titleOf = (rule: string) => RULES.get(rule)!.title

test('gullies are gone through both ways, told by the line, sorted by severity, fixed and ignored by keyboard, and charted', async ({
  page,
  app,
}) => {
  await openFaults(page, app, ['small-text', 'broken-word', 'last-row'])
  await expect(counter(page)).toContainText(/^\d+ gullies/, { timeout: 60_000 })
  const slider = page.getByRole('slider', { name: 'Width of the page' })
  const width = () => slider.getAttribute('aria-valuenow')
  await slider.press('Home')
  await page.keyboard.press('F8')
  const first = await width()
  await page.keyboard.press('F8')
  const second = await width()
  await page.keyboard.press('F8')
  await page.keyboard.press('Shift+F8')
  expect(await width()).toBe(second)
  await page.keyboard.press('Shift+F8')
  expect(await width()).toBe(first)

  // What a pointer that rests on the line is told.
  const line = page.getByRole('img', { name: /^Gullyline with/ })
  const told = (await line.locator('title').allTextContents()).join('\n')
  for (const rule of ['small-text', 'broken-word', 'last-row']) expect(told).toContain(`${titleOf(rule)}, `)

  await counter(page).press('Enter')
  const list = page.getByRole('dialog', { name: 'Gullies of this page' })
  const items = list.getByRole('listitem')
  await expect(list).toBeVisible()
  const all = await items.count()
  const countOf = async (name: string): Promise<number> => {
    await list.getByRole('button', { name, exact: true }).press('Enter')
    await expect(list.getByRole('button', { name, exact: true })).toHaveAttribute('aria-pressed', 'true')
    return items.count()
  }
  const [problems, warnings] = [await countOf('Problems'), await countOf('Warnings')]
  expect(problems).toBeGreaterThan(0)
  expect(warnings).toBeGreaterThan(0)
  expect(problems + warnings).toBe(all)
  expect(await countOf('Ignored')).toBe(0)
  expect(await countOf('All')).toBe(all)

  // Fixed without the mouse.
  await list.getByRole('button', { name: `Fix ${titleOf('small-text')}` }).press('Enter')
  const fix = page.getByRole('dialog', { name: /^Fix “/ })
  const apply = fix.getByRole('button', { name: /^Apply/ })
  await expect(apply).toBeEnabled({ timeout: 30_000 })
  await apply.press('Enter')
  await expect(fix).toBeHidden()
  await expect(counter(page)).toBeVisible({ timeout: 60_000 })
  await counter(page).press('Enter')
  await expect(list.getByText(titleOf('small-text'), { exact: true })).toHaveCount(0)
  await list
    .getByRole('button', { name: `Ignore ${titleOf('last-row')}` })
    .first()
    .press('Enter')
  await page.getByRole('textbox', { name: 'Reason' }).pressSequentially('Four pictures are four')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Reason' })).toBeHidden()
  await expect(counter(page)).toBeVisible({ timeout: 60_000 })
  await counter(page).press('Enter')
  expect(await countOf('Ignored')).toBe(1)

  await list.getByRole('button', { name: 'Chart by width…' }).press('Enter')
  const chart = page.getByRole('dialog', { name: 'Page at every width' })
  await chart
    .getByRole('row', { name: /^medium / })
    .getByRole('button')
    .press('Enter')
  await page.keyboard.press('Escape')
  await expect(chart).toBeHidden()
  await expect(slider).toHaveAttribute('aria-valuetext', /medium/)
})

/** So many are measured for longer than the block is held. */
const STONES = 400

test('nothing is measured while a block is dragged, and what was left is afterwards', async ({
  page,
  app,
}) => {
  const stones = Array.from({ length: STONES }, (_unused, i) => {
    const text = `Stone ${i}`
    return [`s${i}`, newNode(getKind(defaultRegistry, 'heading'), { content: { text, level: 2 } })] as const
  })
  const blocks = stones.map(([id]) => id)
  const nodes = {
    g: newNode(getKind(defaultRegistry, 'grid'), { slots: { blocks } }),
    ...Object.fromEntries(stones),
  }
  const { id } = await addPageOf(page.context(), app, { title: 'Many stones', sections: ['g'], nodes })
  await page.goto(`${app.editor}/pages/${id}`)
  const stone = canvasOf(page).getByText('Stone 1', { exact: true })
  await expect(stone).toBeVisible()
  await page.evaluate(() => {
    const counted = window as unknown as { read: number }
    counted.read = 0
    const post = Reflect.get(Worker.prototype, 'postMessage') as (...given: unknown[]) => void
    Worker.prototype.postMessage = function (...given: unknown[]) {
      counted.read++
      post.apply(this, given)
    }
  })
  const read = () => page.evaluate(() => (window as unknown as { read: number }).read)
  await expect.poll(read).toBeGreaterThan(0)
  const { x, y } = await centreOf(stone)
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 40, y + 20, { steps: 4 })
  await expect(page.getByTestId('drag-layer')).toBeVisible()
  // What is under way is read.
  await page.waitForTimeout(500)
  const before = await read()
  await page.waitForTimeout(1_500)
  expect(await read()).toBe(before)
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await expect.poll(read).toBeGreaterThan(before)
})
