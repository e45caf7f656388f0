/** Small pictures of pages and blocks stand in the editor's own document; they look as in a document of their own. */
import type { Page } from '@playwright/test'
import { expect, openPage, test } from './app.ts'

// Scripts that run in every document can't be taken back.
test.use({ isTabKept: false })

/** Lets the test look into pictures, and keeps the documents that they are made of. */
async function lookInside(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const made = new Map<Element, string>()
    Object.assign(window, { madeOf: made })
    const parser = new DOMParser()
    const parse = parser.parseFromString.bind(parser)
    DOMParser.prototype.parseFromString = function (html, type) {
      const parsed = parse(html, type)
      made.set(parsed.documentElement, html)
      return parsed
    }
    type Attach = (this: Element, init: ShadowRootInit) => ShadowRoot
    const attach: Attach = Reflect.get(Element.prototype, 'attachShadow')
    Element.prototype.attachShadow = function (init) {
      return attach.call(this, { ...init, mode: 'open' })
    }
  })
}

interface Placed {
  readonly name: string
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
  readonly font: string
  readonly ink: string
}

/** What differs between pictures on the screen and the same documents in frames of the same size. */
async function differences(page: Page): Promise<{ readonly elements: number; readonly found: string[] }> {
  return page.evaluate(async () => {
    await document.fonts.ready
    const placed = (within: Element, origin: DOMRect, scale: number): Placed[] =>
      [within, ...within.querySelectorAll('*')].flatMap((element) => {
        if (element.closest('head') || !element.checkVisibility()) return []
        const { left, top, width, height } = element.getBoundingClientRect()
        const { fontFamily, fontSize, fontWeight, color, backgroundColor } = getComputedStyle(element)
        return {
          name: `${element.tagName} ${element.getAttribute('class') ?? ''}`,
          left: (left - origin.left) / scale,
          top: (top - origin.top) / scale,
          width: width / scale,
          height: height / scale,
          font: `${fontFamily} ${fontSize} ${fontWeight}`,
          ink: `${color} ${backgroundColor}`,
        }
      })
    let elements = 0
    const found: string[] = []
    const made = (window as unknown as { madeOf: Map<Element, string> }).madeOf
    for (const host of document.querySelectorAll<HTMLElement>('[data-picture]')) {
      const shown = host.shadowRoot!.querySelector('body')!
      const size = { width: host.offsetWidth, height: host.offsetHeight }
      const frame = document.createElement('iframe')
      // In px of the screen that the picture is of; no bar to scroll takes any of its width.
      frame.style.cssText = `position:fixed;left:0;top:0;border:0;width:${size.width}px;height:${size.height}px`
      const more = [...host.shadowRoot!.adoptedStyleSheets[1]!.cssRules].map((rule) => rule.cssText).join('')
      frame.srcdoc = made
        .get(shown.parentElement!)!
        .replace('</head>', `<style>${more} html{scrollbar-width:none}</style></head>`)
      document.body.append(frame)
      await new Promise((done) => frame.addEventListener('load', done))
      const inner = frame.contentDocument!
      await inner.fonts.ready
      const box = host.getBoundingClientRect()
      const own = placed(shown, box, box.width / size.width)
      const other = placed(inner.body, inner.documentElement.getBoundingClientRect(), 1)
      if (own.length !== other.length) found.push(`${own.length} elements, not ${other.length}`)
      own.forEach((one, i) => {
        elements++
        const there = other[i]!
        const isNear = (['left', 'top', 'width', 'height'] as const).every(
          (side) => Math.abs(one[side] - there[side]) < 1,
        )
        if (!isNear || one.font !== there.font || one.ink !== there.ink)
          found.push(`${JSON.stringify(one)} is not ${JSON.stringify(there)}`)
      })
      frame.remove()
    }
    return { elements, found: found.slice(0, 10) }
  })
}

test('each picture of the shelf is laid out as a document of its own on its screen', async ({
  page,
  app,
}) => {
  await lookInside(page)
  await openPage(page, app, 'Visit')
  await page.getByRole('button', { name: 'Add to page' }).click()
  const shelf = page.getByRole('region', { name: 'Shelf' })
  const entries = shelf.getByRole('listitem')
  for (const entry of await entries.all()) {
    await entry.scrollIntoViewIfNeeded()
    await expect(entry.locator('[data-picture]')).toBeAttached()
  }
  const { elements, found } = await differences(page)
  expect(found).toEqual([])
  expect(elements).toBeGreaterThan(300)
})
