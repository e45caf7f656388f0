/** The whole job by keyboard alone: no mouse event is ever sent, and the focus is never nowhere. */
import type { Page } from '@playwright/test'
import { expect, test, untilWhole } from './app.ts'
import { row } from './building.ts'

const status = (page: Page) => page.getByRole('contentinfo').getByRole('status')

/** Presses a key until something has the focus, as people do with Tab. */
async function pressUntil(page: Page, key: string, isThere: () => Promise<boolean>): Promise<void> {
  for (let n = 0; n < 60; n++) {
    if (await isThere()) return
    await page.keyboard.press(key)
  }
  throw new Error(`${key} leads nowhere near it`)
}

async function expectFocusSomewhere(page: Page): Promise<void> {
  await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).not.toBe('BODY')
}

test('opened, filled, rearranged, looked at, undone, saved and published without a pointer', async ({
  page,
  app,
}) => {
  test.setTimeout(150_000)
  await page.goto(app.editor)
  await expect(page.getByRole('heading', { name: 'Pages' })).toBeVisible()
  const isRow = () => page.evaluate(() => document.activeElement?.getAttribute('role') === 'row')
  await pressUntil(page, 'Tab', isRow)
  const about = row(page, 'About')
  await pressUntil(page, 'ArrowDown', () => about.evaluate((row) => row === document.activeElement))
  await page.keyboard.press('Enter')
  const canvas = await untilWhole(page)
  await expectFocusSomewhere(page)

  await test.step('walk to a section and add three cards below it, by typing their name', async () => {
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Control+Enter')
    await expect(page.getByRole('textbox', { name: 'Search blocks and patterns' })).toBeFocused()
    await page.keyboard.type('three c')
    await page.keyboard.press('Enter')
    await expect(canvas.getByRole('heading', { name: 'Three things to know' })).toBeVisible()
    await expect(status(page)).toHaveText('Added three cards')
    await expectFocusSomewhere(page)
  })
  await test.step('in to its heading, type, and out again', async () => {
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Control+a')
    await page.keyboard.type('What keys can do')
    await page.keyboard.press('Escape')
    await expect(canvas.getByRole('heading', { name: 'What keys can do' })).toBeVisible()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('ArrowRight')
  })
  await test.step('two cards are selected, moved, copied and pasted together', async () => {
    await page.keyboard.press('Shift+ArrowDown')
    await expect(status(page)).toHaveText('2 blocks selected')
    await expect(page.getByRole('treeitem', { selected: true })).toHaveCount(2)
    await page.keyboard.press('Alt+ArrowDown')
    await expect(status(page)).toHaveText('Moved 2 blocks down')
    await page.keyboard.press('Control+c')
    await expect(status(page)).toHaveText('Copied 2 blocks')
    await page.keyboard.press('Control+a')
    await expect(status(page)).toHaveText('3 blocks selected')
    await page.keyboard.press('End')
    await page.keyboard.press('Control+v')
    const cards = canvas.locator('section', { hasText: 'What keys can do' }).locator('.row > .card')
    await expect(cards).toHaveCount(5)
    await page.keyboard.press('Alt+Shift+ArrowDown')
    await expect(cards).toHaveCount(7)
    await expect(status(page)).toHaveText('Duplicated 2 blocks')
    await page.keyboard.press('Delete')
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Control+z')
    await expect(cards).toHaveCount(3)
    await expect(status(page)).toHaveText('Undone: Pasted 2 blocks')
    await expectFocusSomewhere(page)
  })
  await test.step('the section moves, and words say where to', async () => {
    await page.keyboard.press('Escape')
    await expect(page.getByRole('treeitem', { name: 'Section: What keys can do' })).toHaveAttribute(
      'aria-selected',
      'true',
    )
    await page.keyboard.press('Alt+ArrowUp')
    await expect(status(page)).toHaveText(/^Moved section “What keys can do” after section “.+”$/)
  })
  await test.step('a value is set in the details, reached by Tab', async () => {
    const search = page.getByRole('textbox', { name: 'Search settings' })
    await expect(search).toBeVisible()
    await pressUntil(page, 'Tab', () => search.evaluate((field) => field === document.activeElement))
    await page.keyboard.type('background')
    await page.keyboard.press('Tab')
    await expectFocusSomewhere(page)
    await page.keyboard.press('Shift+Tab')
    await page.keyboard.press('Control+a')
    await page.keyboard.press('Delete')
  })
  await test.step('every width, and all three side by side', async () => {
    await page.keyboard.press('Alt+PageUp')
    await expect(page.getByRole('slider', { name: 'Width of the page' })).toHaveAttribute(
      'aria-valuenow',
      '820',
    )
    await page.keyboard.press('Control+Shift+L')
    await expect(
      page
        .frameLocator('iframe[title^="The page at narrow"]')
        .getByRole('heading', { name: 'What keys can do' }),
    ).toBeAttached()
    await expectFocusSomewhere(page)
    await page.keyboard.press('Control+Shift+L')
    await untilWhole(page)
    await expectFocusSomewhere(page)
  })
  await test.step('save, and publish from the list of all commands', async () => {
    await page.keyboard.press('Control+s')
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
    await page.keyboard.press('Control+Shift+Enter')
    await page.keyboard.type('publish')
    await expect(page.getByRole('menuitem').first()).toHaveAccessibleName(/^Publish/)
    await page.keyboard.press('Enter')
    const publish = page.getByRole('dialog').getByRole('button', { name: 'Publish', exact: true })
    await pressUntil(page, 'Tab', () => publish.evaluate((button) => button === document.activeElement))
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
    await page.keyboard.press('Escape')
    await expectFocusSomewhere(page)
    expect(await (await fetch(`${app.site}/about/`)).text()).toContain('What keys can do')
  })
})
