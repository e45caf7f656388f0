/** Pictures cut to shapes, as Chromium cuts them: what lies outside of a shape is neither seen nor pressed. */
import { defaultRegistry as registry, getKind, newNode, renderPage, type PageNode } from '@gullyline/core'
import { contactSheet } from './contact-sheet.ts'
import { expect, test } from './app.ts'

test.use({ isTabKept: false })

/** Whether a point, given as shares of the box from its top left, lies in a shape, by plain geometry. `ratio` is width over height. */
const INSIDE: Readonly<Record<string, (x: number, y: number, ratio: number) => boolean>> = {
  circle: (x, y, ratio) =>
    Math.hypot((x - 0.5) * Math.max(1, ratio), (y - 0.5) * Math.max(1, 1 / ratio)) < 0.5,
  ellipse: (x, y) => Math.hypot(x - 0.5, y - 0.5) < 0.5,
  arch: (x, y) => y >= 0.4 || ((x - 0.5) / 0.5) ** 2 + ((0.4 - y) / 0.4) ** 2 < 1,
  slant: (x, y) => y < 1 - 0.12 * x,
  hexagon: (x, y) => Math.abs(x - 0.5) < 0.5 - 0.25 * Math.abs((y - 0.5) / 0.5),
  diamond: (x, y) => Math.abs(x - 0.5) + Math.abs(y - 0.5) < 0.5,
}

test('each shape is there where geometry says, and nowhere else', async ({ page }) => {
  const nodes: Record<string, PageNode> = {}
  const put = (kind: string, more: Partial<PageNode>): string => {
    const id = `s${Object.keys(nodes).length}`
    nodes[id] = newNode(getKind(registry, kind), more)
    return id
  }
  const shapes = Object.keys(INSIDE)
  const blocks = ['1/1', '16/9'].flatMap((ratio) =>
    shapes.map((shape) =>
      put('picture', {
        content: { media: { id: 'pica' }, decoration: true },
        look: { shape },
        sizes: { base: { ratio, most: 'small' } },
      }),
    ),
  )
  const root = put('page', { slots: { sections: [put('section', { slots: { blocks } })] } })
  const { html } = renderPage(
    { page: { format: 4, root, nodes }, title: 'Shapes', description: '' },
    registry,
    contactSheet().context,
    'inline',
  )
  await page.setContent(html)
  const seen = await page.locator('.picture img').evaluateAll((images) =>
    images.map((image) => {
      image.scrollIntoView({ block: 'center', behavior: 'instant' })
      const { left, top, width, height } = image.getBoundingClientRect()
      const found: [number, number, boolean][] = []
      for (let x = 0.03; x < 1; x += 0.06)
        for (let y = 0.03; y < 1; y += 0.06)
          found.push([x, y, document.elementFromPoint(left + x * width, top + y * height) === image])
      return { ratio: width / height, found }
    }),
  )
  expect(seen).toHaveLength(shapes.length * 2)
  for (const [i, { ratio, found }] of seen.entries()) {
    const shape = shapes[i % shapes.length]!
    const isIn = INSIDE[shape]!
    for (const [x, y, isThere] of found) {
      // At the very edge a px decides.
      const near = [-0.01, 0.01].flatMap((dx) => [-0.01, 0.01].map((dy) => isIn(x + dx, y + dy, ratio)))
      if (new Set(near).size === 1)
        expect([shape, ratio, x, y, isThere]).toEqual([shape, ratio, x, y, near[0]])
    }
  }
})
