/** Targets that are too small and too near: our rule against that of axe (WCAG 2.2, 2.5.8), over random pairs of buttons. */
import { sweepInChromium } from '@gullyline/measuring/chromium'
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from './app.ts'

test.use({ isTabKept: false })

const WIDTH = 1280
const PAIRS = 150

/** The same numbers each time, from 0 to 1 (Park and Miller, 1988). */
let now = 7
const random = (): number => (now = (now * 48271) % 2147483647) / 2147483647
const between = (from: number, to: number): number => from + Math.floor(random() * (to - from + 1))

/** Two buttons beside or below each other, of 10 to 40 px, up to 20 px apart. */
function pair(n: number): string {
  const button = (name: string): string =>
    `<button id="${name}${n}" data-node="${name}${n}" aria-label="${name}${n}" style="width:${between(10, 40)}px;height:${between(10, 40)}px"></button>`
  const direction = random() < 0.5 ? 'row' : 'column'
  return `<div style="display:flex;flex-direction:${direction};gap:${between(0, 20)}px;height:140px">${button('a')}${button('b')}</div>`
}

test('the same targets of 150 random pairs are too small and too near for both', async ({ page }) => {
  const body = Array.from({ length: PAIRS }, (_unused, n) => pair(n)).join('')
  const html = `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>Targets</title><style>
    *{box-sizing:border-box} body{margin:0} button{appearance:none;border:0;padding:0;margin:0;background:#333;flex:none}
    </style></head><body><main><section data-node="s">${body}</section></main></body></html>`
  await page.setViewportSize({ width: WIDTH, height: 800 })
  await page.setContent(html)
  const { violations } = await new AxeBuilder({ page })
    .withRules(['target-size'])
    .setLegacyMode(true)
    .analyze()
  const axe = violations.flatMap(({ nodes }) => nodes.map(({ target }) => String(target[0]).replace('#', '')))
  const gullies = await sweepInChromium(
    page.context().browser()!,
    {
      html,
      bounds: [],
      fileAt: () => undefined,
    },
    { ends: { from: WIDTH, to: WIDTH + 1 } },
  )
  const ours = gullies.flatMap(({ rule, nodeId }) => (rule === 'small-target' ? [nodeId!] : []))
  expect(axe.length).toBeGreaterThan(PAIRS / 10)
  expect(new Set(ours)).toEqual(new Set(axe))
})
