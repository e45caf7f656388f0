/** The gullyline: a page with faults of many rules, each found on the ruler, gone to and mended by an offered change. */
import type { Page } from '@playwright/test'
import { defaultRegistry, getKind, newNode, RULES, type OpenedPage, type PageNode } from '@gullyline/core'
import { canvasOf, expect, test, type App } from './app.ts'
import { api, expectSaved } from './shared-pages.ts'

test.use({ isMeasuring: true })

const words = (text: string) => [{ type: 'paragraph', runs: [{ text }] }]
const LONG =
  'On a clear night without a Moon you can see three thousand stars with nothing but your eyes, and a path of light from one side of the moor to the other.'

function node(kind: string, content: PageNode['content'], more: Partial<PageNode> = {}): PageNode {
  return { ...newNode(getKind(defaultRegistry, kind), { content }), ...more }
}

const place = (gridColumn: number, gridRow: number, gridColumns: number, gridRows: number) => ({
  base: { gridColumn, gridRow, gridColumns, gridRows },
})

/** A small text that is a link and nothing else. */
const linkIn = (text: string): PageNode =>
  node(
    'text',
    { words: [{ type: 'paragraph', runs: [{ text, link: { href: 'https://example.org/c' } }] }] },
    { sizes: { base: { step: 'note' } } },
  )

/** One section for each fault, called by its rule. */
const FAULTS: Readonly<Record<string, Readonly<Record<string, PageNode>>>> = {
  'picture-contrast': {
    bright: node(
      'hero',
      { media: { id: 'tmdome' }, decoration: true },
      { look: { shade: 'none' }, slots: { blocks: ['over'] } },
    ),
    over: node('text', { words: words('Grey words over a grey hill and a grey sky') }),
  },
  'broken-word': {
    narrow: node('section', {}, { slots: { blocks: ['six'] } }),
    six: node('row', {}, { slots: { blocks: ['one', 'two', 'three', 'four', 'five'] } }),
    one: node('heading', { text: 'Spectroheliograph', level: 2 }),
    two: node('heading', { text: 'Moon', level: 2 }),
    three: node('heading', { text: 'Sun', level: 2 }),
    four: node('heading', { text: 'Stars', level: 2 }),
    five: node('heading', { text: 'Moor', level: 2 }),
  },
  'tall-heading': {
    tall: node('section', {}, { slots: { blocks: ['long'] }, sizes: { base: { width: 'reading' } } }),
    long: node('heading', { text: LONG, level: 2 }, { sizes: { base: { step: 'display' } } }),
  },
  'short-lines': {
    short: node('section', {}, { slots: { blocks: ['beside'] } }),
    beside: node('row', {}, { slots: { blocks: ['left', 'right'] } }),
    left: node('text', { words: words(LONG) }, { sizes: { base: { step: 'title' } } }),
    right: node('text', { words: words('Stars') }),
  },
  'long-lines': {
    wide: node('section', {}, { slots: { blocks: ['list'] } }),
    list: node('list', { words: [{ type: 'list', ordered: false, items: [{ runs: [{ text: LONG }] }] }] }),
  },
  'small-text': {
    tiny: node('section', {}, { slots: { blocks: ['note'] } }),
    note: node('text', { words: words('Bring a red torch') }, { sizes: { base: { step: '9px' } } }),
  },
  'last-row': {
    rows: node('section', {}, { slots: { blocks: ['pictures'] } }),
    pictures: node(
      'gallery',
      {},
      {
        slots: { pictures: ['p1', 'p2', 'p3', 'p4'] },
        sizes: { base: { columns: '3' }, narrow: { columns: '2' } },
      },
    ),
    ...Object.fromEntries(
      ['p1', 'p2', 'p3', 'p4'].map((id) => [
        id,
        node('picture', { media: { id: 'tmnight' }, decoration: true }),
      ]),
    ),
  },
  'focus-order': {
    order: node('section', {}, { slots: { blocks: ['turned'] } }),
    turned: node(
      'columns',
      {},
      {
        slots: { columns: ['c1', 'c2'] },
        sizes: { base: { direction: 'across' }, narrow: { direction: 'down-last-first' } },
      },
    ),
    c1: node('column', {}, { slots: { blocks: ['b1'] } }),
    c2: node('column', {}, { slots: { blocks: ['b2'] } }),
    b1: node('button', { text: 'Tonight', link: { href: 'https://example.org/a' } }),
    b2: node('button', { text: 'Visit', link: { href: 'https://example.org/b' } }),
  },
  'covered-text': {
    placed: node('grid', {}, { slots: { blocks: ['under', 'above'] } }),
    under: node('text', { words: words('What lies behind') }, { sizes: place(1, 1, 6, 1) }),
    above: node('text', { words: words('What lies over it') }, { sizes: place(1, 1, 6, 1) }),
  },
  'blurred-picture': {
    large: node('section', {}, { slots: { blocks: ['square'] } }),
    square: node(
      'picture',
      { media: { id: 'tmnight' }, decoration: true },
      { sizes: { base: { band: 'full', ratio: '1/1' } } },
    ),
  },
  'small-target': {
    close: node('section', {}, { slots: { blocks: ['links'] } }),
    links: node('stack', {}, { slots: { blocks: ['n1', 'n2'] }, sizes: { base: { gap: 'none' } } }),
    n1: linkIn('First night'),
    n2: linkIn('Second night'),
  },
  jump: {
    leap: node('section', {}, { slots: { blocks: ['many'] } }),
    many: node(
      'gallery',
      {},
      {
        slots: { pictures: ['q1', 'q2', 'q3', 'q4', 'q5', 'q6'] },
        sizes: { base: { columns: '6' }, medium: { columns: '1' } },
      },
    ),
    ...Object.fromEntries(
      ['q1', 'q2', 'q3', 'q4', 'q5', 'q6'].map((id) => [
        id,
        node('picture', { media: { id: 'tmnight' }, decoration: true }),
      ]),
    ),
  },
}

async function openFaults(page: Page, app: App, rules: readonly string[]): Promise<string> {
  const { request } = page.context()
  const answer = await request.post(`${api(app)}/pages`, { data: { title: 'Broken', parentId: null } })
  const { summary, document } = (await answer.json()) as OpenedPage
  const root = document.nodes[document.root]!
  const faults = rules.map((rule) => FAULTS[rule]!)
  const sections = ['top', ...faults.map((nodes) => Object.keys(nodes)[0]!)]
  const nodes = {
    [document.root]: {
      ...root,
      content: { ...root.content, description: 'Broken' },
      slots: { ...root.slots, sections },
    },
    top: node('section', {}, { slots: { blocks: ['title'] } }),
    title: node('heading', { text: 'Broken', level: 1 }),
    ...Object.fromEntries(faults.flatMap((nodes) => Object.entries(nodes))),
  }
  const saved = await request.put(`${api(app)}/pages/${summary.id}/document`, {
    data: { base: summary.version, document: { ...document, nodes }, journal: null },
  })
  expect(saved.status(), await saved.text()).toBe(200)
  await page.goto(`${app.editor}/pages/${summary.id}`)
  return summary.id
}

const counter = (page: Page) =>
  page.getByRole('region', { name: 'Ruler' }).getByRole('button', { name: /at 1,601 widths/ })
const titleOf = (rule: string) => RULES.get(rule)!.title

test('a page with faults of many rules is mended by what is offered, and saved with none left', async ({
  page,
  app,
}) => {
  // Each fault is one more sweep of the page.
  test.slow()
  const rules = Object.keys(FAULTS)
  await openFaults(page, app, rules)
  await expect(counter(page)).toBeVisible({ timeout: 60_000 })
  await counter(page).click()
  const list = page.getByRole('dialog', { name: 'Gullies of this page' })
  for (const rule of rules) await expect(list.getByText(titleOf(rule), { exact: true }).first()).toBeVisible()
  await page.keyboard.press('Escape')
  for (let left = 40; left > 0; left--) {
    await expect(counter(page)).toBeVisible({ timeout: 60_000 })
    if ((await counter(page).textContent())?.startsWith('No gullies')) break
    // The focus that comes back from the dialog before closes a list that is opened meanwhile.
    await expect(async () => {
      if (!(await list.isVisible())) await counter(page).click({ timeout: 5_000 })
      await list.getByRole('button', { name: /^Fix/ }).first().click({ timeout: 5_000 })
    }).toPass()
    const dialog = page.getByRole('dialog', { name: /^Fix “/ })
    const apply = dialog.getByRole('button', { name: /^Apply/ })
    await expect(apply, (await dialog.textContent()) ?? '').toBeEnabled({ timeout: 30_000 })
    await apply.click()
    await expect(dialog).toBeHidden()
  }
  await expect(counter(page)).toContainText('No gullies')
  await page.keyboard.press('Control+S')
  await expectSaved(page)
})

test('a gully is gone to by keys and by the line, ignored with a reason that stays with the page, and shown again', async ({
  page,
  app,
}) => {
  const id = await openFaults(page, app, ['small-text'])
  await expect(counter(page)).toContainText('1 gully', { timeout: 60_000 })
  const width = page.getByRole('slider', { name: 'Width of the page' })
  await canvasOf(page).getByText('Bring a red torch').waitFor()
  await page.keyboard.press('F8')
  await expect(width).toHaveAttribute('aria-valuenow', '1120')
  const details = page.getByRole('complementary', { name: 'Details' })
  await expect(details.getByRole('list', { name: 'Problems of this block' })).toContainText('is 9 px high')
  await width.press('Home')
  await page
    .getByRole('img', { name: /^Gullyline with/ })
    .locator('path')
    .first()
    .click()
  await expect(width).toHaveAttribute('aria-valuenow', '1120')

  await counter(page).click()
  await page.getByRole('button', { name: `Ignore ${titleOf('small-text')}` }).click()
  await page.getByRole('textbox', { name: 'Reason' }).fill('It is a seal')
  await page.keyboard.press('Enter')
  await expect(counter(page)).toContainText('No gullies')
  await page.keyboard.press('Control+S')
  await expectSaved(page)
  await page.goto(`${app.editor}/pages/${id}`)
  await expect(counter(page)).toContainText('No gullies', { timeout: 60_000 })
  await counter(page).click()
  const list = page.getByRole('dialog', { name: 'Gullies of this page' })
  await list.getByRole('button', { name: 'Ignored' }).click()
  await expect(list).toContainText('It is a seal')
  await list.getByRole('button', { name: /Show .* again/ }).click()
  await page.keyboard.press('Escape')
  await expect(counter(page)).toContainText('1 gully')
})

test('the page as visitors see it who set their browser, and side by side at any widths', async ({
  page,
  app,
}) => {
  await openFaults(page, app, ['focus-order'])
  const canvas = canvasOf(page)
  const sizeOf = () =>
    canvas.getByRole('heading', { level: 1 }).evaluate((one) => parseFloat(getComputedStyle(one).fontSize))
  await expect(canvas.getByRole('heading', { level: 1 })).toBeVisible()
  const before = await sizeOf()
  await page.getByRole('button', { name: 'View as visitors' }).click()
  await page.getByRole('menuitemcheckbox', { name: 'Text at 200 %' }).click()
  await page.keyboard.press('Escape')
  expect(await sizeOf()).toBeGreaterThan(1.2 * before)
  await page.getByRole('button', { name: 'View as visitors: Text at 200 %' }).click()
  await page.getByRole('menuitemcheckbox', { name: 'Text at 200 %' }).click()
  await page.keyboard.press('Escape')
  expect(await sizeOf()).toBe(before)

  await page.keyboard.press('Control+Shift+L')
  const lineUp = page.getByRole('main', { name: 'Line-up' })
  await lineUp.getByRole('textbox', { name: 'Width' }).fill('600')
  await lineUp.getByRole('button', { name: 'Add width' }).click()
  await expect(lineUp.getByRole('region', { name: 'narrow, 600 pixels' })).toBeVisible()
  // On narrow screens the columns are turned round, which is told there and not at the wide size.
  await expect(lineUp.getByRole('region', { name: 'narrow, 390 pixels' })).toContainText('1 gully', {
    timeout: 60_000,
  })
  await expect(lineUp.getByRole('region', { name: 'wide, 1440 pixels' })).not.toContainText('gully')
  const at = (name: string) => page.frameLocator(`iframe[title^="The page at ${name}"]`)
  await at('wide, 1440').getByText('Tonight').last().click()
  for (const name of ['narrow, 390', 'narrow, 600', 'wide, 1440'])
    await expect(at(name).locator('[data-node="b1"]')).toHaveCSS('outline-style', 'solid')
  // What is at the top of one is at the top of all, also once a width has gone.
  const scrolled = (name: string) =>
    at(name)
      .locator('[data-node="order"]')
      .evaluate((section) => section.getBoundingClientRect().top)
  const scrollTo = (name: string) =>
    at(name)
      .locator('[data-node="order"]')
      .evaluate((section) => {
        const view = section.ownerDocument.defaultView!
        view.scrollTo({ top: view.scrollY + section.getBoundingClientRect().top, behavior: 'instant' })
      })
  await lineUp.getByRole('button', { name: 'Remove 600' }).click()
  await expect(lineUp.getByRole('region', { name: 'narrow, 600 pixels' })).toBeHidden()
  await at('narrow, 390')
    .locator('body')
    .evaluate(({ ownerDocument }) => {
      // So high that every section can come to the top.
      for (const frame of ownerDocument.defaultView!.parent.document.querySelectorAll('iframe'))
        if (frame.title.startsWith('The page at')) frame.contentDocument!.body.style.paddingBottom = '4000px'
    })
  await scrollTo('narrow, 390')
  await expect.poll(async () => Math.abs(await scrolled('wide, 1440'))).toBeLessThan(2)
})

test('what a save has broken is told after it, and before the page goes live', async ({ page, app }) => {
  await openFaults(page, app, [])
  await expect(counter(page)).toContainText('No gullies', { timeout: 60_000 })
  await canvasOf(page).getByRole('heading', { name: 'Broken' }).dblclick()
  await page.keyboard.press('Control+A')
  await page.keyboard.type('Spectroheliographically')
  await page.keyboard.press('Escape')
  await expect(counter(page)).toContainText('1 gully', { timeout: 60_000 })
  await page.keyboard.press('Control+S')
  await expectSaved(page)
  await expect(page.getByText(/^Saved\. 1 gully is new since the last save: Word broken/)).toBeVisible()
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  const note = page.getByRole('dialog').getByRole('region', { name: 'Gullies of this page' })
  await expect(note).toContainText('“Spectroheliographically” has no room')
  await expect(note).toContainText('this gully, which is new:')
  // Once it is live, the same is no news.
  await page.getByRole('dialog').getByRole('button', { name: 'Publish', exact: true }).click()
  await page.getByRole('dialog', { name: 'Published' }).getByRole('button', { name: 'Close' }).click()
  await canvasOf(page).getByRole('heading', { name: 'Spectroheliographically' }).dblclick()
  await page.keyboard.press('End')
  await page.keyboard.type('s')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+S')
  await expectSaved(page)
  await expect(counter(page)).toContainText('1 gully', { timeout: 60_000 })
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(note).toContainText('None is new: the live page has them already.', { timeout: 60_000 })
})

test('the chart tells height, lines and pictures at every width, and a press on it shows the page there', async ({
  page,
  app,
}) => {
  await openFaults(page, app, ['last-row', 'focus-order'])
  await expect(counter(page)).toContainText('at 1,601 widths', { timeout: 60_000 })
  await counter(page).click()
  await page.getByRole('button', { name: 'Chart by width…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Page at every width' })
  const figures = async (size: string) =>
    (
      await dialog
        .getByRole('row', { name: new RegExp(`^${size} `) })
        .getByRole('cell')
        .allInnerTexts()
    ).map((text) => Number(text.replace(/\D/g, '')))
  await expect(dialog.getByRole('row', { name: /^narrow .* kB$/ })).toBeVisible()
  const [narrow, wide] = [await figures('narrow'), await figures('wide')]
  for (const figure of [...narrow, ...wide]) expect(figure).toBeGreaterThan(0)
  // The picture that is loaded is a smaller one.
  expect(narrow[3]!).toBeLessThan(wide[3]!)
  const width = page.getByRole('slider', { name: 'Width of the page' })
  const chart = (await dialog.getByRole('img', { name: /^Height, lines of text/ }).boundingBox())!
  await page.mouse.click(chart.x + 90, chart.y + 60)
  await page.keyboard.press('Escape')
  await expect(width).toHaveAttribute('aria-valuenow', /^(3|4)\d\d$/)
  // The height that is told is the one that the page has there.
  await page
    .getByRole('region', { name: 'Ruler' })
    .getByRole('button', { name: 'narrow', exact: true })
    .click()
  await width.focus()
  for (let at = 390; at > narrow[0]!; at--) await page.keyboard.press('ArrowLeft')
  await expect(width).toHaveAttribute('aria-valuenow', String(narrow[0]))
  const height = () =>
    canvasOf(page)
      .locator('body')
      .evaluate((body) => body.getBoundingClientRect().height)
  await expect.poll(async () => Math.abs((await height()) - narrow[1]!)).toBeLessThan(3)
})

test('measuring is paused and resumed, and the browser remembers it', async ({ page, app }) => {
  await openFaults(page, app, ['broken-word'])
  await expect(counter(page)).toContainText(/^\d+ gull/, { timeout: 60_000 })
  await counter(page).click()
  await page.getByRole('button', { name: 'Pause measuring' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Measuring paused' })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Measuring paused' })).toBeVisible()
  await page.keyboard.press('F8')
  await expect(page.getByText(/^Measuring is paused: resume it/)).toBeVisible()
  await page.getByRole('button', { name: 'Measuring paused' }).click()
  await page.getByRole('button', { name: 'Resume measuring' }).click()
  await page.keyboard.press('Escape')
  await expect(counter(page)).toContainText(/^\d+ gull/, { timeout: 60_000 })
})

test('the page is shown at widths of common screens, turned, in its own size, and as visitors see it who chose their colours', async ({
  page,
  app,
}) => {
  await openFaults(page, app, [])
  const width = page.getByRole('slider', { name: 'Width of the page' })
  const screens = page.getByRole('button', { name: 'Screens' })
  const choose = async (name: RegExp | string): Promise<void> => {
    await screens.click()
    await page.getByRole('menuitem', { name }).click()
  }
  await choose(/^Phone, 390 px/)
  await expect(width).toHaveAttribute('aria-valuenow', '390')
  await choose(/^Rotate/)
  await expect(width).toHaveAttribute('aria-valuenow', '844')
  // By keyboard: the menu, and the first of its entries.
  await screens.press('Enter')
  await page.keyboard.press('Enter')
  await expect(width).toHaveAttribute('aria-valuenow', '320')

  await choose(/^Desktop, 1920 px/)
  const frame = page.locator('iframe[title^="The page,"]')
  const drawn = async () => Math.round((await frame.boundingBox())!.width)
  expect(await drawn()).toBeLessThan(1000)
  await choose('Zoom to 100 %')
  await expect.poll(drawn).toBe(1920)
  const left = async () => (await frame.boundingBox())!.x
  const before = await left()
  const pan = page.getByRole('slider', { name: 'Pan sideways' })
  await pan.focus()
  await page.keyboard.press('End')
  await expect.poll(left).toBeLessThan(before - 500)
  // Its right edge is in sight, and what is there can be selected.
  const canvas = page.getByRole('main', { name: 'Canvas' })
  const [box, room] = [(await frame.boundingBox())!, (await canvas.boundingBox())!]
  expect(box.x + box.width).toBeLessThanOrEqual(room.x + room.width + 1)
  await choose('Zoom to fit')
  await expect.poll(drawn).toBeLessThan(1000)

  await page.getByRole('button', { name: 'View as visitors' }).click()
  await page.getByRole('menuitemcheckbox', { name: 'Forced colours' }).click()
  await page.keyboard.press('Escape')
  await expect(canvasOf(page).getByRole('heading', { name: 'Broken' })).toHaveCSS(
    'color',
    'rgb(255, 255, 255)',
  )
})
