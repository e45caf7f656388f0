/** Stylesheets answered for one screen; that pages look the same with them is seen in the browser (small-pictures.spec.ts). */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { transform } from 'lightningcss'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { fluidCss, fluidPx } from '../src/look/look.ts'
import { sizesOnScreen, stylesheetOnScreen } from '../src/render/on-screen.ts'
import { renderPage } from '../src/render/render-page.ts'
import { anyPage } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'

const screen = fc.record({
  width: fc.integer({ min: 200, max: 3000 }),
  height: fc.integer({ min: 50, max: 2000 }),
})

describe('a stylesheet on a screen', () => {
  test('asks the window nothing, and is one still, whatever the page', () => {
    fc.assert(
      fc.property(anyPage, screen, (page, at) => {
        const { css } = renderPage(
          { page, title: 'A page', description: '' },
          registry,
          testSite('canvas'),
          'inline',
        )
        const settled = stylesheetOnScreen(css, at)
        // Read by a parser of its own, so that no unit hides in a name or an address.
        const windowUnits: string[] = []
        const conditions: string[] = []
        transform({
          filename: 'page.css',
          code: Buffer.from(settled),
          visitor: {
            Length: ({ unit }) => void (/^[sld]?v/.test(unit) && windowUnits.push(unit)),
            MediaQuery: (query) => void (query.condition && conditions.push(JSON.stringify(query.condition))),
          },
        })
        expect(windowUnits).toEqual([])
        expect(conditions.filter((one) => one.includes('width'))).toEqual([])
      }),
    )
  })

  test('has the rules of a size where the screen is narrower than it says, and only there', () => {
    const css = 'p{color:red}@media (width<600px){p{color:blue}}'
    expect(stylesheetOnScreen(css, { width: 599, height: 1 })).toBe('p{color:red}@media all{p{color:blue}}')
    expect(stylesheetOnScreen(css, { width: 600, height: 1 })).toBe(
      'p{color:red}@media not all{p{color:blue}}',
    )
  })

  test('leaves names, addresses and other conditions as they are', () => {
    const css =
      '.c3vw,#a-5vh{background:url(/50vw.png)}@media (prefers-reduced-motion:reduce){html{scroll-behavior:auto}}'
    expect(stylesheetOnScreen(css, { width: 500, height: 500 })).toBe(css)
  })

  test('gives fluid lengths as they are at that width', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 90 }),
        fc.integer({ min: 4, max: 90 }),
        screen,
        (from, to, at) => {
          const css = stylesheetOnScreen(`p{margin:${fluidCss({ from, to })}}`, at)
          const px = (length: string): number =>
            length
              .split(' + ')
              .reduce((sum, part) => sum + parseFloat(part) * (part.endsWith('rem') ? 16 : 1), 0)
          const [low, middle, high] = /(?:clamp\()?([^)}]*)\)?\}$/
            .exec(css.replace('p{margin:', ''))![1]!
            .split(',')
            .map(px)
          const shown = middle === undefined ? low! : Math.min(high!, Math.max(low!, middle))
          expect(Math.abs(shown - fluidPx({ from, to }, at.width))).toBeLessThan(0.5)
        },
      ),
    )
  })
})

test('of a source size list, the first length whose condition holds is given', () => {
  const list = '(width<600px) calc(100vw - 40px), (width<1000px) 50vw, 480px'
  expect(sizesOnScreen(list, { width: 500, height: 1 })).toBe('calc(500px - 40px)')
  expect(sizesOnScreen(list, { width: 600, height: 1 })).toBe('300px')
  expect(sizesOnScreen(list, { width: 1000, height: 1 })).toBe('480px')
})
