/**
 * Each test types a sentence and then does something that could lose it. Afterwards the sentence must be on the page, in
 * the saved version or in the edits offered again, unless the person was asked first and chose to drop it.
 */
import type { Page } from '@playwright/test'
import type { PageDocument } from '@gullyline/core'
import { canvasOf, expect, otherBrowser, test, type App } from './app.ts'
import { sentence } from './sentence.ts'

const node = (kind: string, content: object, slots: object = {}) => ({
  kind,
  content,
  look: {},
  sizes: { base: {} },
  slots,
})

/** A page with one block of each sort that text is typed into. */
async function makePage(page: Page, app: App): Promise<string> {
  const { request } = page.context()
  const made = (await (
    await request.post(`${app.editor}/api/sites/tarrowmoor/pages`, {
      data: { title: 'Losing nothing', parentId: null },
    })
  ).json()) as PageDocument
  const { id, version } = made.summary
  const { root } = made.document
  const nodes = {
    [root]: {
      ...made.document.nodes[root]!,
      slots: { ...made.document.nodes[root]!.slots, sections: ['sect'] },
    },
    sect: node('section', {}, { blocks: ['head', 'text', 'pict', 'tabl', 'quot'] }),
    head: node('heading', { text: 'A heading', level: 1 }),
    text: node('text', { words: [{ type: 'paragraph', runs: [{ text: 'A paragraph' }] }] }),
    pict: node('picture', { media: { id: 'tmdusk' }, caption: 'A caption' }),
    tabl: node('table', { rows: [['One', 'Two']], heads: 'none' }),
    quot: node('quote', { words: [{ type: 'paragraph', runs: [{ text: 'A saying' }] }] }),
  }
  const saved = await request.put(`${app.editor}/api/sites/tarrowmoor/pages/${id}/document`, {
    data: { base: version, document: { ...made.document, nodes }, journal: null },
  })
  expect(saved.status()).toBe(200)
  return id
}

const details = (page: Page) => page.getByRole('complementary', { name: 'Details' })
const settings = (page: Page) => page.getByRole('region', { name: 'Page settings' })

/** Where a sentence is typed in the editor. Each leaves the caret where it was typed. */
const PLACES: readonly (readonly [where: string, type: (page: Page, words: string) => Promise<void>])[] = [
  [
    'a heading on the page',
    async (page, words) => {
      await canvasOf(page).locator('[data-node="head"]').dblclick()
      await page.keyboard.press('Control+a')
      await page.keyboard.type(words)
    },
  ],
  [
    'a paragraph on the page',
    async (page, words) => {
      await canvasOf(page).locator('[data-node="text"]').dblclick()
      await page.keyboard.press('Control+a')
      await page.keyboard.type(words)
    },
  ],
  [
    'a cell of a table',
    async (page, words) => {
      await canvasOf(page).locator('[data-node="tabl"] td').first().dblclick()
      await page.keyboard.press('Control+a')
      await page.keyboard.type(words)
    },
  ],
  [
    'a caption in the details',
    async (page, words) => {
      await canvasOf(page).locator('[data-node="pict"]').click()
      const field = details(page).getByRole('textbox', { name: 'Caption' })
      await field.press('Control+a')
      await page.keyboard.type(words)
    },
  ],
  [
    'who said it, in the details',
    async (page, words) => {
      await canvasOf(page).locator('[data-node="quot"]').click()
      const field = details(page).getByRole('textbox', { name: 'Author' })
      await field.press('Control+a')
      await page.keyboard.type(words)
    },
  ],
  [
    'the name of a block in the spine',
    async (page, words) => {
      await canvasOf(page).locator('[data-node="pict"]').click()
      const row = page.locator('[data-spine-row="pict"]')
      await row.focus()
      await page.keyboard.press('F2')
      await page.keyboard.type(words)
    },
  ],
  [
    'the title of the page',
    async (page, words) => {
      await selectPage(page)
      await settings(page).getByRole('textbox', { name: 'Title' }).press('Control+a')
      await page.keyboard.type(words)
    },
  ],
  [
    'the description of the page',
    async (page, words) => {
      await selectPage(page)
      await settings(page)
        .getByRole('textbox', { name: /^Description/ })
        .press('Control+a')
      await page.keyboard.type(words)
    },
  ],
  [
    'the navigation label',
    async (page, words) => {
      await selectPage(page)
      await settings(page).getByRole('textbox', { name: 'Navigation label' }).press('Control+a')
      await page.keyboard.type(words)
    },
  ],
]

/** Nothing selected: the details are the page's. */
async function selectPage(page: Page): Promise<void> {
  if (await settings(page).isVisible()) return
  await page.locator('[data-takes-focus]').first().focus()
  for (let i = 0; i < 4 && !(await settings(page).isVisible()); i++) await page.keyboard.press('Escape')
  await expect(settings(page)).toBeVisible()
}

/** What a person does next. Each ends with the editor open on the page. */
const ACTS: readonly (readonly [what: string, act: (page: Page) => Promise<void>])[] = [
  ['Ctrl+S at once', () => Promise.resolve()],
  ['Escape', async (page) => page.keyboard.press('Escape')],
  [
    'the line-up and back',
    async (page) => {
      await page.keyboard.press('Control+Shift+L')
      await expect(page.getByRole('main', { name: 'Line-up' })).toBeVisible()
      await page.keyboard.press('Control+Shift+L')
      await expect(canvasOf(page).locator('[data-node="head"]')).toBeVisible()
    },
  ],
  ['a press on another block', async (page) => canvasOf(page).locator('[data-node="quot"]').click()],
  [
    'loading again, and continuing',
    async (page) => {
      await page.reload()
      await page.getByRole('button', { name: 'Continue editing' }).click()
      await expect(canvasOf(page).locator('[data-node="head"]')).toBeVisible()
    },
  ],
]

async function expectSaved(page: Page, app: App, id: string, words: string): Promise<void> {
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  const stored = await page.context().request.get(`${app.editor}/api/sites/tarrowmoor/pages/${id}`)
  expect(JSON.stringify(((await stored.json()) as PageDocument).document)).toContain(words)
}

for (const [where, type] of PLACES) {
  test(`a sentence typed into ${where} is lost in none of ${ACTS.length} ways`, async ({ page, app }) => {
    const id = await makePage(page, app)
    page.on('dialog', (dialog) => void dialog.accept())
    await page.goto(`${app.editor}/pages/${id}`)
    await expect(canvasOf(page).locator('[data-node="head"]')).toBeVisible()
    // Only pages in the navigation have a label there.
    await settings(page).getByRole('checkbox', { name: 'Show in navigation' }).setChecked(true)
    for (const [what, act] of ACTS) {
      await test.step(what, async () => {
        const words = sentence()
        await type(page, words)
        await act(page)
        await expectSaved(page, app, id, words)
      })
    }
  })
}

test('leaving asks first, whatever was typed into last, and staying has it all', async ({ page, app }) => {
  const id = await makePage(page, app)
  await page.goto(`${app.editor}/pages/${id}`)
  await expect(canvasOf(page).locator('[data-node="head"]')).toBeVisible()
  await settings(page).getByRole('checkbox', { name: 'Show in navigation' }).setChecked(true)
  for (const [where, type] of PLACES) {
    await test.step(where, async () => {
      const words = sentence()
      await type(page, words)
      await page.getByRole('link', { name: 'Tarrowmoor Observatory' }).click()
      const question = page.getByRole('alertdialog', { name: 'Leave without saving?' })
      await question.getByRole('button', { name: 'Stay here' }).click()
      await expect(question).toHaveCount(0)
      await expectSaved(page, app, id, words)
    })
  }
})

test('a tab that dies, a server that dies and a connection that is lost lose nothing', async ({
  app,
  browser,
}) => {
  const context = await otherBrowser(browser, app)
  let page = await context.newPage()
  const id = await makePage(page, app)
  const open = async (): Promise<void> => {
    await page.goto(`${app.editor}/pages/${id}`)
    await expect(
      page.locator('iframe[title^="The page,"]').or(page.getByRole('alertdialog')).first(),
    ).toBeVisible()
  }
  const [, typeHeading] = PLACES[0]!
  const [, typeCaption] = PLACES[3]!
  await open()
  await test.step('the tab dies', async () => {
    const words = sentence()
    await typeCaption(page, words)
    await page.close({ runBeforeUnload: false })
    page = await context.newPage()
    await open()
    await page.getByRole('button', { name: 'Continue editing' }).click()
    // As a person does, who presses nothing before the page is there.
    await expect(canvasOf(page).getByRole('main')).toBeVisible()
    await expectSaved(page, app, id, words)
  })
  await test.step('the server dies between two letters', async () => {
    const words = sentence()
    await typeHeading(page, words.slice(0, 10))
    await app.crash()
    await page.keyboard.type(words.slice(10))
    await page.keyboard.press('Escape')
    await expectSaved(page, app, id, words)
  })
  await test.step('a save without a connection is made up for by itself', async () => {
    const words = sentence()
    await typeHeading(page, words)
    await context.setOffline(true)
    await page.keyboard.press('Control+s')
    await expect(page.getByText('Not saved yet, trying again')).toBeVisible()
    await context.setOffline(false)
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
    await expectSaved(page, app, id, words)
  })
  await test.step('an answer that was lost asks about nobody else’s changes', async () => {
    const words = sentence()
    let isLost = false
    await page.route(
      '**/document',
      async (route) => {
        // There before anything is typed: a save that was asked for earlier may hold the words as well. It arrives; what the server answers does not. The server was another process a moment ago: its connections are gone.
        await route.fetch({ maxRetries: 2 })
        await route.abort()
        isLost = true
      },
      { times: 1 },
    )
    await typeHeading(page, words)
    await page.keyboard.press('Control+s')
    // What is shown meanwhile is gone as soon as it is tried again, which may be at once.
    await expect.poll(() => isLost).toBe(true)
    await page.keyboard.type(' and more')
    await expectSaved(page, app, id, `${words} and more`)
    await expect(page.getByRole('dialog')).toHaveCount(0)
  })
  await test.step('a browser whose storage is full says so, and the server has it', async () => {
    await page.evaluate(() => {
      const piece = 'x'.repeat(100_000)
      try {
        for (let i = 0; ; i++) localStorage.setItem(`full ${i}`, piece)
      } catch {
        for (let i = 0; i < 100_000; i += 1_000)
          try {
            localStorage.setItem(`fuller ${i}`, 'x'.repeat(1_000))
          } catch {
            break
          }
      }
    })
    const words = `${sentence()} `.repeat(140).trim()
    await canvasOf(page).locator('[data-node="text"]').dblclick()
    await page.keyboard.press('Control+a')
    await page.keyboard.insertText(words)
    await expect(page.getByText('Draft saved on the server; this browser’s storage is full')).toBeVisible()
    await page.close({ runBeforeUnload: false })
    page = await context.newPage()
    await open()
    await page.getByRole('button', { name: 'Continue editing' }).click()
    await expect(canvasOf(page).locator('[data-node="text"]')).toContainText(words)
    await page.evaluate(() => {
      for (const key of Object.keys(localStorage)) if (key.startsWith('full')) localStorage.removeItem(key)
    })
    await expectSaved(page, app, id, words)
  })
  await context.close()
})

test('typing goes on while another person’s version is merged, and two Backspaces take two letters', async ({
  page,
  app,
}) => {
  const id = await makePage(page, app)
  await page.goto(`${app.editor}/pages/${id}`)
  await expect(canvasOf(page).locator('[data-node="head"]')).toBeVisible()
  const words = sentence()
  await PLACES[0]![1](page, words)
  // Another person saves something that does not touch it.
  const { request } = page.context()
  const { summary, document } = (await (
    await request.get(`${app.editor}/api/sites/tarrowmoor/pages/${id}`)
  ).json()) as PageDocument
  const theirs = {
    ...document,
    nodes: {
      ...document.nodes,
      quot: {
        ...document.nodes.quot!,
        content: { words: [{ type: 'paragraph', runs: [{ text: 'Theirs' }] }] },
      },
    },
  }
  const saved = await request.put(`${app.editor}/api/sites/tarrowmoor/pages/${id}/document`, {
    data: { base: summary.version, document: theirs, journal: null },
  })
  expect(saved.status()).toBe(200)
  await page.keyboard.press('Control+s')
  await page.keyboard.type(' typed on!!')
  await expect(canvasOf(page).locator('[data-node="quot"]')).toContainText('Theirs')
  await page.keyboard.press('Backspace')
  await page.keyboard.press('Backspace')
  await expect(canvasOf(page).locator('[data-node="head"]')).toHaveText(`${words} typed on`)
  await page.keyboard.press('Escape')
  await expectSaved(page, app, id, `${words} typed on`)
})

test('a page that somebody deletes says so at once, saves nothing meanwhile, and all once it is restored', async ({
  page,
  app,
}) => {
  const id = await makePage(page, app)
  await page.goto(`${app.editor}/pages/${id}`)
  await expect(canvasOf(page).locator('[data-node="head"]')).toBeVisible()
  const words = sentence()
  await PLACES[1]![1](page, words)
  expect(
    (await page.context().request.delete(`${app.editor}/api/sites/tarrowmoor/pages/${id}`)).status(),
  ).toBe(200)
  const told = page.getByRole('alert').filter({ hasText: 'This page was deleted' })
  await expect(told).toBeVisible()
  await page.keyboard.press('Control+s')
  await expect(told).toBeVisible()
  await expect(page.getByText('Saved', { exact: true })).toHaveCount(0)
  await told.getByRole('button', { name: 'Restore page and save' }).click()
  await expectSaved(page, app, id, words)
})

test('with eight tabs of the editor in one browser, all save and see each other', async ({
  app,
  browser,
}) => {
  const context = await otherBrowser(browser, app)
  const first = await context.newPage()
  const id = await makePage(first, app)
  const tabs = [first, ...(await Promise.all(Array.from({ length: 7 }, () => context.newPage())))]
  for (const tab of tabs) {
    await tab.goto(`${app.editor}/pages/${id}`)
    await expect(canvasOf(tab).locator('[data-node="head"]')).toBeVisible()
  }
  const last = tabs.at(-1)!
  const words = sentence()
  await last.bringToFront()
  await PLACES[0]![1](last, words)
  await expectSaved(last, app, id, words)
  await first.bringToFront()
  await expect(first.getByRole('button', { name: /saved version \d+: merge it/ })).toBeVisible()
  await expect(first.getByTitle(/ also has this page open, in 7 tabs$/)).toBeVisible()
  // The tab that listened for all of them is closed: another one takes over.
  await first.close()
  await expect(last.getByTitle(/ also has this page open, in 6 tabs$/)).toBeVisible()
  await context.close()
})
