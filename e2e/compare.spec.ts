/** The page beside the one that was saved last, and the one that visitors see. */
import { defaultRegistry, getKind, newNode, type PageNode } from '@gullyline/core'
import { asking, canvasOf, drag, expect, test } from './app.ts'
import { addPage } from './building.ts'
import { addPageOf, expectSaved, publishPage } from './shared-pages.ts'

test('what differs is marked beside what was saved and beside what is live, by mouse and by keyboard', async ({
  page,
  app,
}) => {
  const node = (kind: string, content: PageNode['content'], slots: PageNode['slots'] = {}): PageNode =>
    newNode(getKind(defaultRegistry, kind), { content, slots })
  const paragraphs = Array.from({ length: 24 }, (_, at) => ({
    type: 'paragraph',
    runs: [{ text: `Lamp ${at} along the way up` }],
  }))
  const { id, version } = await addPageOf(page.context(), app, {
    title: 'The way up',
    description: 'Compared',
    sections: ['s'],
    nodes: {
      s: node('section', {}, { blocks: ['title', 'words'] }),
      title: node('heading', { text: 'The way up', level: 1 }),
      words: node('text', { words: paragraphs }),
    },
  })
  await publishPage(page.context(), app, id, version + 1)
  await page.goto(`${app.editor}/pages/${id}`)
  const heading = canvasOf(page).getByRole('heading', { level: 1 })
  const was = (await heading.innerText()).trim()
  await heading.dblclick()
  await page.keyboard.press('Control+A')
  await page.keyboard.type('Come at dusk')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+s')
  await expectSaved(page)

  await page.keyboard.press('Control+Shift+L')
  const lineUp = page.getByRole('main', { name: 'Line-up' })
  await lineUp.getByRole('button', { name: 'With last saved' }).click()
  await expect(lineUp.getByRole('status')).toHaveText('Nothing differs.')
  await lineUp.getByRole('button', { name: 'With live' }).click()
  await expect(lineUp.getByRole('status')).toHaveText('1 block differs.')
  const side = (title: string) => page.frameLocator(`iframe[title^="The page ${title},"]`)
  await expect(side('live').getByRole('heading', { level: 1 })).toHaveText(was)
  await expect(side('now').getByRole('heading', { level: 1 })).toHaveText('Come at dusk')
  for (const title of ['live', 'now'])
    await expect(side(title).getByRole('heading', { level: 1 })).toHaveCSS('outline-style', 'dashed')
  await lineUp.getByRole('checkbox', { name: 'Mark what differs' }).uncheck()
  await expect(side('now').getByRole('heading', { level: 1 })).toHaveCSS('outline-style', 'none')

  // Scrolled together.
  const scroll = (title: string) =>
    side(title)
      .locator('html')
      .evaluate((root) => root.scrollTop)
  await side('now')
    .locator('html')
    .evaluate((root) => root.ownerDocument.defaultView!.scrollTo({ top: 400, behavior: 'instant' }))
  await expect.poll(() => scroll('live')).toBeGreaterThan(300)

  await lineUp.getByRole('button', { name: 'Slider' }).click()
  const slider = lineUp.getByRole('slider', { name: 'Divide at' })
  await slider.focus()
  await page.keyboard.press('End')
  await expect(slider).toHaveAttribute('aria-valuetext', '100 % live')
  const now = page.getByRole('figure', { name: 'Now' })
  await expect(now).toHaveCSS('clip-path', 'inset(0px 0px 0px 100%)')
  await page.keyboard.press('Home')
  await expect(now).toHaveCSS('clip-path', 'inset(0px 0px 0px 0%)')
  // By hand, to about the middle; and back beside each other by keyboard.
  const bar = (await slider.boundingBox())!
  const y = bar.y + bar.height / 2
  await drag(page, { x: bar.x + 8, y }, { x: bar.x + bar.width / 2, y })
  await expect(slider).toHaveAttribute('aria-valuetext', /^(4|5)\d % live$/)
  await lineUp.getByRole('button', { name: 'Next to each other' }).press('Enter')
  await expect(slider).toBeHidden()
  await lineUp.getByRole('button', { name: 'With last saved' }).press('Enter')
  await expect(lineUp.getByRole('status')).toHaveText('Nothing differs.')
})

test('a page that is not live is compared with what was saved alone', async ({ page, app }) => {
  await addPage(page, app, 'Not live', 'plain')
  await asking(canvasOf(page), 'First part').click()
  await page.keyboard.press('Delete')
  await page.keyboard.press('Control+Shift+L')
  const lineUp = page.getByRole('main', { name: 'Line-up' })
  await expect(lineUp.getByRole('button', { name: 'With live' })).toBeHidden()
  await lineUp.getByRole('button', { name: 'With last saved' }).click()
  await expect(lineUp.getByRole('status')).toHaveText(/^[1-9]\d* blocks? differs?\.$/)
})
