/** Every kind in all its variants: valid HTML, and accessible at three widths. */
import AxeBuilder from '@axe-core/playwright'
import { HtmlValidate } from 'html-validate'
import { defaultRegistry, renderPage } from '@gullyline/core'
import { contactSheet } from './contact-sheet.ts'
import { expect, test } from './app.ts'

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
    const { violations } = await new AxeBuilder({ page })
      .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
      .analyze()
    expect(violations.map((one) => [one.id, ...one.nodes.map((node) => node.html.slice(0, 150))])).toEqual([])
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
  })
}
