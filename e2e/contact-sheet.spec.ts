/** Every kind in all its variants: valid HTML, and accessible at three widths. */
import { HtmlValidate } from 'html-validate'
import { defaultRegistry, renderPage } from '@gullyline/core'
import { contactSheet } from './contact-sheet.ts'
import type { PageDocument } from '@gullyline/core'
import { expect, test, untilWhole } from './app.ts'
import { noFindings } from './axe.ts'

test.use({ isTabKept: false })

const { page: sheet, context } = contactSheet()
const { html } = renderPage(
  { page: sheet, title: 'Every block', description: 'All of them' },
  defaultRegistry,
  context,
  'inline',
)

test('is valid HTML', async () => {
  const validator = new HtmlValidate({
    extends: ['html-validate:recommended', 'html-validate:document'],
    // The same words twice are the point of a contact sheet; line lengths and spelling of the doctype are ours.
    rules: {
      'long-title': 'off',
      'doctype-style': 'off',
      'unique-landmark': 'off',
      'no-inline-style': 'off',
    },
  })
  const report = await validator.validateString(html)
  expect(
    report.results.flatMap((one) => one.messages.map((m) => `${m.ruleId}: ${m.message} ${m.selector}`)),
  ).toEqual([])
})

for (const width of [1440, 820, 390]) {
  test(`has no finding of axe at ${width} px, and nothing wider than the screen`, async ({ page }) => {
    await page.setViewportSize({ width, height: 900 })
    await page.setContent(html)
    await noFindings(page, { tags: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
  })
}

test('every kind in every variant is on the canvas as it is on the live page, element by element', async ({
  page,
  app,
  browser,
}) => {
  test.setTimeout(240_000)
  const { request } = page.context()
  const json = async <T>(answer: { json(): Promise<unknown> }): Promise<T> => (await answer.json()) as T
  const { summary, document } = await json<PageDocument>(
    await request.post(`${app.editor}/api/sites/tarrowmoor/pages`, {
      data: { title: 'Every kind', parentId: null },
    }),
  )
  const own = document.nodes[document.root]!
  // The same blocks, with pictures and pages that this site has.
  const nodes = JSON.parse(
    JSON.stringify(sheet.nodes)
      .replaceAll('"id":"pica"', '"id":"tmdusk"')
      .replaceAll('"page":"one"', '"page":"tmvisit"'),
  ) as typeof sheet.nodes
  const root = { ...nodes[sheet.root]!, content: { ...nodes[sheet.root]!.content, ...own.content } }
  const saved = await request.put(`${app.editor}/api/sites/tarrowmoor/pages/${summary.id}/document`, {
    data: {
      base: summary.version,
      document: { ...sheet, nodes: { ...nodes, [sheet.root]: root } },
      journal: null,
    },
  })
  expect(saved.status()).toBe(200)
  const { version } = await json<{ version: number }>(saved)
  const published = await request.post(`${app.editor}/api/sites/tarrowmoor/pages/${summary.id}/publish`, {
    data: { version },
  })
  expect([published.status(), await published.text()]).toEqual([200, expect.any(String)])

  await page.goto(`${app.editor}/pages/${summary.id}`)
  const canvas = await untilWhole(page)
  const onCanvas = await canvas.locator('main.page').evaluate(linesOf)
  // What visitors get before any script has run.
  const visitor = await browser.newContext({ javaScriptEnabled: false })
  const live = await visitor.newPage()
  await live.goto(app.site + summary.path)
  const onSite = await live.locator('main.page').evaluate(linesOf)
  await visitor.close()
  expect(onSite.length).toBeGreaterThan(300)
  expect(onCanvas).toEqual(onSite)
})

/** An element and all in it, a line each: its tag, its attributes in order, and its text. Runs in the page. */
function linesOf(top: Element): string[] {
  const lines: string[] = []
  const visit = (element: Element): void => {
    // The editor leads to pages that are not live yet as well; see `viewSite`.
    if (element.matches('.menu, .sub-pages')) return
    const attributes = [...element.attributes]
      .filter(({ name }) => !name.startsWith('data-'))
      // The same declarations, however they were written.
      .map(
        ({ name, value }) => `${name}="${name === 'style' ? (element as HTMLElement).style.cssText : value}"`,
      )
      .sort()
    const text = [...element.childNodes]
      .filter((one) => one.nodeType === Node.TEXT_NODE)
      .map((one) => one.textContent)
      .join('|')
    lines.push([element.tagName.toLowerCase(), ...attributes, text].join(' '))
    for (const child of element.children) visit(child)
  }
  visit(top)
  return lines
}
