/** What is typed and asked for before the parts of the editor that it needs have come. */
import type { Locator, Page } from '@playwright/test'
import { defaultRegistry, patternOf, type PageDocument, type SavedPart } from '@gullyline/core'
import { noFindings } from './axe.ts'
import { counter } from './gully-faults.ts'
import { canvasOf, expect, openPage, test, type App } from './app.ts'
import { openStones } from './stones.ts'

/** Keeps a script from coming until it is let through. */
async function holdScript(page: Page, name: string): Promise<() => void> {
  let letThrough = (): void => undefined
  const held = new Promise<void>((resolve) => (letThrough = resolve))
  await page.route(new RegExp(`/assets/${name}-[^/]+\\.js`), async (route) => {
    await held
    await route.continue()
  })
  return letThrough
}

/** Makes a script fail to come until it is let through. */
async function failScript(page: Page, name: string): Promise<() => void> {
  let isThere = false
  await page.route(new RegExp(`/assets/${name}-[^/]+\\.js`), (route) =>
    isThere ? route.continue() : route.abort(),
  )
  return () => (isThere = true)
}

/** The page "Visit" as it was saved last. */
async function readVisit(page: Page, app: App): Promise<PageDocument['document']> {
  const answer = await page.context().request.get(`${app.editor}/api/sites/tarrowmoor/pages/tmvisit`)
  return ((await answer.json()) as PageDocument).document
}

/** Begins to type in a text whose editor is not there yet. */
async function typeTooEarly(text: Locator): Promise<void> {
  await text.click()
  await text.click()
  await expect(text).toHaveAttribute('aria-busy', 'true')
}

test('letters typed before the text editor is there stand in the text once it is', async ({ page, app }) => {
  const letThrough = await holdScript(page, 'text-editing')
  const canvas = await openPage(page, app, 'Visit')
  const heading = canvas.locator('h1')
  const before = await heading.textContent()
  await typeTooEarly(heading)
  await page.keyboard.press('End')
  await page.keyboard.type('Helm')
  await page.keyboard.press('Backspace')
  await page.keyboard.type('d')
  await expect(heading).toHaveText(before!)
  letThrough()
  await expect(heading).toHaveText(`${before}Held`)
  await page.keyboard.type(' and more')
  await expect(heading).toHaveText(`${before}Held and more`)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(heading).toHaveText(before!)
})

test('what is selected and typed over before the text editor is there is typed over once it is', async ({
  page,
  app,
}) => {
  const letThrough = await holdScript(page, 'text-editing')
  const canvas = await openPage(page, app, 'Visit')
  const heading = canvas.locator('h1')
  await heading.dblclick()
  await expect(heading).toHaveAttribute('aria-busy', 'true')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('All of it')
  letThrough()
  await expect(heading).toHaveText('All of it')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
})

test('Enter before the text editor is there starts a paragraph, and what was typed after it stands there', async ({
  page,
  app,
}) => {
  const letThrough = await holdScript(page, 'text-editing')
  const canvas = await openPage(page, app, 'Visit')
  const heading = canvas.getByRole('heading', { name: 'Opening hours' })
  await typeTooEarly(heading)
  await page.keyboard.press('End')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Under it')
  letThrough()
  await expect(canvas.getByText('Under it', { exact: true })).toBeVisible()
  await expect(heading).toHaveText('Opening hours')
})

test('what was typed before the text editor was there is not lost when something else is done meanwhile', async ({
  page,
  app,
}) => {
  const letThrough = await holdScript(page, 'text-editing')
  const canvas = await openPage(page, app, 'Visit')
  const heading = canvas.getByRole('heading', { name: 'Opening hours' })
  await typeTooEarly(heading)
  await page.keyboard.type(' of the dome')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('text')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Come at dusk.')
  await canvas.locator('h1').click()
  letThrough()
  await expect(canvas.getByRole('heading', { name: 'Opening hours of the dome', exact: true })).toBeVisible()
  await expect(canvas.getByText('Come at dusk.', { exact: true })).toBeVisible()
  await expect(canvas.locator('[contenteditable="true"]')).toHaveCount(0)
})

test('a text editor that can’t be had is told of, and comes once the server is there', async ({
  page,
  app,
}) => {
  const letThrough = await failScript(page, 'text-editing')
  const canvas = await openPage(page, app, 'Visit')
  const heading = canvas.locator('h1')
  await heading.click()
  await heading.click()
  await expect(page.getByText(/Can’t reach the server to load the text editor/)).toBeVisible()
  await page.keyboard.type('Late')
  letThrough()
  await expect(heading).toHaveText(/Late/)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
})

test('an act that was asked for before its code was there is done to what was selected then, or not at all', async ({
  page,
  app,
}) => {
  const letThrough = await holdScript(page, 'grid-acts')
  const { canvas, details } = await openStones(page, app)
  const row = details.getByRole('combobox', { name: 'Row', exact: true })
  await canvas.getByText('Stone three').click()
  await page.keyboard.press('Alt+R')
  await canvas.getByText('Stone two').click()
  await expect(row).toHaveValue('1')
  letThrough()
  await expect(page.getByText(/^Another block was selected before .* Do it again$/)).toBeVisible()
  await expect(row).toHaveValue('1')
  await canvas.getByText('Stone three').click()
  await expect(row).toHaveValue('3')
  await page.keyboard.press('Alt+R')
  await expect(row).toHaveValue('4')
})

test('an act waits for its code where the selection stays', async ({ page, app }) => {
  const letThrough = await holdScript(page, 'grid-acts')
  const { canvas, details } = await openStones(page, app)
  await canvas.getByText('Stone three').click()
  await page.keyboard.press('Alt+R')
  await page.keyboard.press('Alt+R')
  letThrough()
  await expect(details.getByRole('combobox', { name: 'Row', exact: true })).toHaveValue('5')
})

test('a page is not saved while the code that saves can’t be had, and is by itself once the server is there', async ({
  page,
  app,
}) => {
  const letThrough = await failScript(page, 'soon')
  const canvas = await openPage(page, app, 'Visit')
  const { nodes } = await readVisit(page, app)
  const before = await canvas.locator('h1').textContent()
  await canvas.locator('h1').dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type(' tonight')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Not saved yet, trying again')).toBeVisible()
  await expect(page.getByText(/^Can’t reach the server. The page is not saved yet;/)).toBeVisible()
  letThrough()
  await expect(page.getByText(/^Saved as version \d+/)).toBeVisible()
  expect(JSON.stringify(await readVisit(page, app))).toContain(`${before} tonight`)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+s')
  await expect.poll(async () => (await readVisit(page, app)).nodes).toEqual(nodes)
})

test('a dialog whose code can’t be had says so over the editor, and comes when it is tried again', async ({
  page,
  app,
}) => {
  const letThrough = await failScript(page, 'account-dialogs')
  const askedBy = new Set<'the page' | 'a frame of it'>()
  page.on('request', (request) => {
    if (!request.url().includes('/assets/account-dialogs-')) return
    askedBy.add(request.frame() === page.mainFrame() ? 'the page' : 'a frame of it')
  })
  const canvas = await openPage(page, app, 'Visit')
  await page.getByRole('button', { name: /^You are / }).click()
  await page.getByRole('button', { name: 'Change password…' }).click()
  const notLoaded = page.getByRole('dialog', { name: 'Not loaded' })
  await expect(notLoaded.getByRole('alert')).toHaveText(/^Can’t reach the server to load this part/)
  await expect(canvas.locator('h1')).toBeVisible()
  // Some browsers remember a module that they could not have, until the page is loaded again.
  expect(askedBy).toEqual(new Set(['a frame of it']))
  letThrough()
  await notLoaded.getByRole('button', { name: 'Try again' }).press('Enter')
  await expect(page.getByRole('dialog', { name: 'Change password' })).toBeVisible()
})

test('opened again, the editor uses what the browser keeps compiled', async ({ page, app, browser }) => {
  const openWithAll = async (): Promise<void> => {
    await openPage(page, app, 'Visit')
    // What writes text comes after what the page opens with.
    await page.waitForFunction(() =>
      performance.getEntriesByType('resource').some(({ name }) => name.includes('/assets/text-editing-')),
    )
  }
  // The browser keeps what it has read more than once within some days.
  for (let i = 0; i < 4; i++) await openWithAll()
  await browser.startTracing(page, { categories: ['devtools.timeline', 'v8'] })
  await openWithAll()
  const trace = JSON.parse((await browser.stopTracing()).toString()) as Trace
  const compiled = trace.traceEvents
    .filter(({ name }) => name === 'v8.compileModule')
    .flatMap(({ args: { data } }) => (data?.url.includes('/assets/') ? [data] : []))
  const anew = compiled.filter(({ consumedCacheSize }) => consumedCacheSize === undefined)
  expect(compiled.length).toBeGreaterThan(10)
  expect(anew.length).toBeLessThan(compiled.length / 2)
})

/** What a browser says of its work, in the format of Chromium's traces. */
interface Trace {
  readonly traceEvents: readonly {
    readonly name: string
    readonly args: { readonly data?: { readonly url: string; readonly consumedCacheSize?: number } }
  }[]
}

test('a copy of a page is not saved while the code that writes it can’t be had: that is told', async ({
  page,
  app,
}) => {
  const letThrough = await failScript(page, 'save-written')
  await page.goto(`${app.editor}/`)
  await page.getByRole('row', { name: /Visit/ }).first().click()
  const html = page.getByRole('group', { name: 'Save a copy as' }).getByRole('button', { name: 'HTML' })
  await html.click()
  await expect(page.getByRole('status').getByText(/^Can’t reach the server to load this part/)).toBeVisible()
  letThrough()
  const [file] = await Promise.all([page.waitForEvent('download'), html.click()])
  expect(file.suggestedFilename()).toBe('visit.html')
})

test('a screen whose code can’t be had says so, and comes when it is tried again', async ({ page, app }) => {
  const letThrough = await failScript(page, 'library-screen')
  await page.goto(`${app.editor}/`)
  await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Library' }).click()
  await expect(page.getByRole('heading', { name: 'This screen can’t be shown' })).toBeVisible()
  await expect(page.getByRole('alert')).toContainText('Can’t reach the server to load it.')
  await noFindings(page)
  letThrough()
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible()
})

test('what is typed before the shelf and the search are there is found and done', async ({ page, app }) => {
  const shelfComes = await holdScript(page, 'shelf')
  const searchComes = await holdScript(page, 'commands-dialog')
  const canvas = await openPage(page, app, 'Visit')
  const quotes = await canvas.locator('blockquote').count()
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('quotf')
  await page.keyboard.press('Backspace')
  await page.keyboard.type('e')
  await page.keyboard.press('Enter')
  shelfComes()
  await expect(canvas.locator('blockquote')).toHaveCount(quotes + 1)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+Shift+Enter')
  await page.keyboard.type('line-up')
  await page.keyboard.press('Enter')
  searchComes()
  await expect(page.getByRole('main', { name: 'Line-up' })).toBeVisible()
})

test('the words of a block that was asked for before the shelf was there stand in it', async ({
  page,
  app,
}) => {
  const text = await typeAheadOfShelf(page, app, 'Typed ahead of all of it.')
  await page.keyboard.type(' And on.')
  await expect(text).toHaveText('Typed ahead of all of it. And on.')
})

test('Escape after those words ends the typing in its turn, and takes nothing back', async ({
  page,
  app,
}) => {
  await typeAheadOfShelf(page, app, 'Ended by Escape.', ['Escape'])
  await expect(canvasOf(page).locator('[contenteditable="true"]')).toHaveCount(0)
})

test('the name of a saved pattern is typed before the patterns are there: it is placed, and what is typed after it stands in it', async ({
  page,
  app,
}) => {
  let letThrough = (): void => undefined
  const held = new Promise<void>((resolve) => (letThrough = resolve))
  const { request } = page.context()
  let made = 0
  const api = `${app.editor}/api/sites/tarrowmoor`
  const visit = await readVisit(page, app)
  const [heading] = Object.entries(visit.nodes).find(([, { kind }]) => kind === 'heading')!
  const document = patternOf(visit, [heading], defaultRegistry, () => `held${++made}`)
  const saved = await request.post(`${api}/parts`, {
    data: { name: 'Quote of the night', purpose: 'other', about: '', document },
  })
  expect(saved.status()).toBe(201)
  await page.route('**/parts', async (route) => {
    await held
    await route.continue()
  })
  await openPage(page, app, 'Visit')
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('quote of')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Seen at midnight')
  letThrough()
  await expect(canvasOf(page).locator('main h1').last()).toHaveText('Seen at midnight')
  await request.delete(`${api}/parts/${((await saved.json()) as SavedPart).id}`)
})

/** Asks for a paragraph, types it and presses keys, all before the shelf is there. Returns the paragraph once it is. */
async function typeAheadOfShelf(
  page: Page,
  app: App,
  words: string,
  keys: readonly string[] = [],
): Promise<Locator> {
  const shelfComes = await holdScript(page, 'shelf')
  const canvas = await openPage(page, app, 'Visit')
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('Text')
  await page.keyboard.press('Enter')
  await page.keyboard.type(words)
  for (const key of keys) await page.keyboard.press(key)
  shelfComes()
  const text = canvas.locator('main .text', { hasText: words })
  await expect(text).toHaveText(words)
  return text
}

test('Escape takes back the wish for what has not come yet, and what was typed for it', async ({
  page,
  app,
}) => {
  const searchComes = await holdScript(page, 'commands-dialog')
  await openPage(page, app, 'Visit')
  await page.keyboard.press('Control+Shift+Enter')
  await page.keyboard.type('undo')
  await page.keyboard.press('Escape')
  searchComes()
  await page.keyboard.press('Control+Shift+Enter')
  await expect(page.getByRole('searchbox', { name: 'Search everything' })).toHaveValue('')
})

test('a screen shows its frame before any of its scripts has come', async ({ page, app }) => {
  const letThrough = await holdScript(page, '[^/]+')
  for (const [path, pane] of [
    ['/', /196px/],
    ['/pages/tmvisit', /292px/],
  ] as const) {
    await page.goto(app.editor + path, { waitUntil: 'commit' })
    const frame = page.locator('#app:empty')
    await expect(frame).toHaveCSS('background-size', pane)
    await expect(frame).toHaveCSS('height', '800px')
  }
  // What the page opens with is named in it, by the name that the build gives.
  await expect(page.locator('link[rel=modulepreload][href^="/assets/editing-"]')).toHaveCount(1)
  letThrough()
  await expect(canvasOf(page).getByRole('main')).toBeAttached()
  await expect(page.locator('#app')).toHaveCSS('background-image', 'none')
})

test.describe('measuring', () => {
  test.use({ isMeasuring: true })

  test('what reads measured pages can’t be had: that is told, and tried again by itself until it is there', async ({
    page,
    app,
  }) => {
    const letThrough = await failScript(page, 'read-bands[^/]*')
    await openPage(page, app, 'Visit')
    await expect(page.getByRole('region', { name: 'Ruler' })).toContainText('trying again', {
      timeout: 60_000,
    })
    letThrough()
    await expect(counter(page)).toBeVisible({ timeout: 60_000 })
  })
})
