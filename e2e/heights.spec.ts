/** Bands as high as the screen, as Chromium lays them out. */
import { defaultRegistry as registry, getKind, newNode, renderPage, type PageNode } from '@gullyline/core'
import { contactSheet } from './contact-sheet.ts'
import { expect, test } from './app.ts'

test.use({ isTabKept: false })

const KINDS = ['section', 'grid', 'hero']

function htmlOf(words: string): string {
  const nodes: Record<string, PageNode> = {}
  const put = (kind: string, more: Partial<PageNode>): string => {
    const id = `h${Object.keys(nodes).length}`
    nodes[id] = newNode(getKind(registry, kind), more)
    return id
  }
  const sections = KINDS.map((kind) =>
    put(kind, {
      content: kind === 'hero' ? { media: { id: 'pica' }, decoration: true } : {},
      sizes: { base: { height: 'full', place: 'end' } },
      slots: {
        blocks: [put('text', { content: { words: [{ type: 'paragraph', runs: [{ text: words }] }] } })],
      },
    }),
  )
  const root = put('page', { slots: { sections } })
  return renderPage(
    { page: { format: 4, root, nodes }, title: 'Heights', description: '' },
    registry,
    contactSheet().context,
    'inline',
  ).html
}

test('a band of the screen’s height is as high as the screen, and higher where its words need it', async ({
  page,
}) => {
  const heights = () =>
    page
      .locator('main > *')
      .evaluateAll((bands) => bands.map((band) => Math.round(band.getBoundingClientRect().height)))
  for (const size of [
    { width: 1280, height: 800 },
    { width: 390, height: 700 },
  ]) {
    await page.setViewportSize(size)
    await page.setContent(htmlOf('Few words'))
    expect(await heights()).toEqual(KINDS.map(() => size.height))
    // What stands at the foot of it leaves the room above.
    const tops = await page
      .locator('main > *')
      .evaluateAll((bands) =>
        bands.map(
          (band) => band.querySelector('p')!.getBoundingClientRect().top - band.getBoundingClientRect().top,
        ),
      )
    for (const top of tops) expect(top).toBeGreaterThan(size.height / 2)
    await page.setContent(htmlOf('Many words '.repeat(1500)))
    for (const height of await heights()) expect(height).toBeGreaterThan(size.height)
  }
})
