/** The words of the interface: no screen, dialog or menu has a label that was replaced because it had to be read twice. */
import type { Page } from '@playwright/test'
import { oldLabelsAmong } from '../core/test/old-labels.ts'
import { canvasOf, expect, openPage, test } from './app.ts'

/** Every name and text of the accessibility tree, apart from what stands on the page in the canvas. */
async function labelsOn(page: Page): Promise<string[]> {
  const tree = await page.locator('body').ariaSnapshot()
  return tree.split('\n').flatMap((line) => {
    const named = [...line.matchAll(/"((?:[^"\\]|\\.)*)"/g)].map(([, name]) => name!)
    const [, text] = /^\s*- (?:text|paragraph|option|status)[^:]*: (.*)$/.exec(line) ?? []
    return [...named, ...(text === undefined ? [] : [text])]
  })
}

test('no screen, dialog, menu or setting has a label that was replaced', async ({ page, app }) => {
  const seen = new Set<string>()
  const look = async (): Promise<void> => {
    const labels = await labelsOn(page)
    expect(oldLabelsAmong(labels)).toEqual([])
    for (const label of labels) seen.add(label)
  }
  for (const [path, title] of [
    ['/', 'Pages'],
    ['/media-library', 'Media'],
    ['/media-library?show=files', 'Media'],
    ['/navigation', 'Navigation'],
    ['/settings', 'Settings'],
    ['/sites-and-people', 'Sites and people'],
    ['/bin', 'Bin'],
    ['/help', 'Help'],
  ] as const) {
    await page.goto(app.editor + path)
    await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible()
    await look()
  }
  await page.goto(app.editor)
  await page.getByRole('button', { name: 'More actions: Visit' }).click()
  await expect(page.getByRole('menuitem').first()).toBeVisible()
  await look()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Add page' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await look()

  await openPage(page, app, 'Visit')
  await expect(page.getByRole('treeitem', { name: /^Section: / }).first()).toBeVisible()
  await look()
  for (const kind of ['Section', 'Heading', 'Text', 'Table', 'Picture', 'Row', 'Button']) {
    const item = page.getByRole('treeitem', { name: new RegExp(`^${kind}: `) }).first()
    if ((await item.count()) === 0) continue
    await item.click()
    await expect(
      page.getByRole('complementary', { name: 'Details' }).getByRole('heading', { name: kind }),
    ).toBeVisible()
    await look()
  }
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('region', { name: 'Shelf' })).toBeVisible()
  await look()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+Shift+Enter')
  await expect(page.getByRole('dialog')).toBeVisible()
  await look()
  await page.keyboard.press('Escape')
  await canvasOf(page).locator('main .text p').first().dblclick()
  await expect(page.getByRole('toolbar', { name: 'Text formatting' })).toBeVisible()
  await look()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Alt+P')
  await expect(page.getByRole('dialog')).toBeVisible()
  await look()
  // What was walked is the interface, and not a blank screen.
  for (const label of ['Search everything', 'Wrap in row', 'Heading level', 'Add page', 'Space above'])
    expect([...seen].some((one) => one.startsWith(label))).toBe(true)
})

test('everything is found by one key, from every screen: pages, text on them, media, settings, commands', async ({
  page,
  app,
}) => {
  const find = async (typed: string): Promise<void> => {
    await page.keyboard.press('Control+Shift+Enter')
    await expect(page.getByRole('dialog', { name: 'Search everything' })).toBeVisible()
    await page.keyboard.type(typed)
  }
  const result = (name: RegExp) => page.getByRole('menuitem', { name })
  await page.goto(`${app.editor}/help`)
  await expect(page.getByRole('heading', { level: 1, name: 'Help' })).toBeVisible()
  await find('farmer whose')
  await result(/^About.*The farmer whose field/).click()
  await expect(canvasOf(page).getByRole('main')).toBeAttached()
  await find('group')
  await expect(result(/^Group/).first()).toBeVisible()
  await page.keyboard.press('Escape')
  await find('favicon')
  await result(/^Icon/).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Settings' })).toBeVisible()
  await find('saturn-and')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 2, name: 'saturn-and-its-rings.jpg' })).toBeVisible()
  await find('zzzz')
  await expect(page.getByText('Nothing found for “zzzz”.')).toBeVisible()
})
