/** Known attacks typed into every screen: as words they are shown, as script they never run. */
import type { Page } from '@playwright/test'
import type { PageDocument, Page as Document } from '@gullyline/core'
import { ATTACK_ADDRESSES, ATTACK_WORDS } from '../core/test/fixtures/attack-strings.ts'
import { canvasOf, expect, test, type App } from './app.ts'
import { wordsOfPictures } from './small-pictures.ts'

/** Strings with control characters can't be kept; those are refused before they come so far, which server tests show. */
const isKept = (words: string): boolean => !/[\u0000-\u001f\u007f]/.test(words)
const WORDS = ATTACK_WORDS.filter(isKept)
const ADDRESSES = ATTACK_ADDRESSES.filter(isKept)

/** A page on which every attack stands in a heading, a text, a link, a caption, a name and an anchor. */
function attackedPage(document: Document, addresses: readonly string[]): Document {
  const nodes: Record<string, unknown> = { ...document.nodes }
  const sections = WORDS.map((words, i) => {
    const address = addresses[i % addresses.length]!
    const empty = { content: {}, look: {}, sizes: { base: {} }, slots: {} }
    const blocks = {
      heading: { text: words, level: 2 },
      text: {
        words: [{ type: 'paragraph', runs: [{ text: words }, { text: words, link: { href: address } }] }],
      },
      button: { text: words.slice(0, 200), link: { href: address } },
      picture: { media: { id: 'tmmoon' }, alt: words, caption: words },
    }
    const ids = Object.entries(blocks).map(([kind, content], n) => {
      const id = `a${i}n${n}`
      nodes[id] = { ...empty, kind, content, name: words.slice(0, 200) }
      return id
    })
    nodes[`s${i}`] = { ...empty, kind: 'section', name: words.slice(0, 200), slots: { blocks: ids } }
    return `s${i}`
  })
  const root = document.nodes[document.root]!
  return {
    ...document,
    nodes: {
      ...nodes,
      [document.root]: { ...root, slots: { ...root.slots, sections } },
    } as Document['nodes'],
  }
}

/** Fails when anything ran, or anything that could run is on the screen. */
async function expectNothingRan(page: Page): Promise<void> {
  for (const frame of page.frames()) {
    const found = await frame.evaluate(() => {
      const all = [...document.querySelectorAll('*')]
      const events = all.filter((one) => one.getAttributeNames().some((name) => name.startsWith('on')))
      const scripts = all.filter(
        (one) => one.tagName.toLowerCase() === 'script' && !one.getAttribute('src')?.startsWith('/assets/'),
      )
      const addresses = all.flatMap((one) =>
        ['href', 'src', 'action', 'formaction'].flatMap((name) => one.getAttribute(name) ?? []),
      )
      const running = addresses.filter((address) => {
        const { protocol } = new URL(address, 'https://site.example/')
        return !['http:', 'https:', 'mailto:', 'tel:', 'data:'].includes(protocol)
      })
      return [...events, ...scripts].map((one) => one.outerHTML.slice(0, 120)).concat(running)
    })
    expect(found).toEqual([])
  }
}

async function askServer<T>(page: Page, app: App, path: string, method: string, data?: unknown): Promise<T> {
  const answer = await page.request.fetch(app.editor + path, { method, data })
  expect([path, answer.status(), answer.ok() ? '' : await answer.text()]).toEqual([path, answer.status(), ''])
  return (await answer.json()) as T
}

test('attacks in words, links, captions, names and titles reach no screen and no page as script', async ({
  page,
  app,
}) => {
  test.setTimeout(180_000)
  const dialogs: string[] = []
  page.on('dialog', (dialog) => {
    dialogs.push(dialog.message())
    void dialog.dismiss()
  })
  const title = '<img src=x onerror=alert(1)>'
  const { summary, document } = await askServer<PageDocument>(
    page,
    app,
    '/api/sites/tarrowmoor/pages',
    'POST',
    {
      title,
      parentId: null,
    },
  )
  await askServer(page, app, `/api/sites/tarrowmoor/pages/${summary.id}/document`, 'PUT', {
    base: summary.version,
    document: attackedPage(document, ADDRESSES),
    journal: null,
  })
  const refused = await page.request.post(`${app.editor}/api/sites/tarrowmoor/pages/${summary.id}/publish`, {
    data: { version: summary.version + 1 },
  })
  expect([refused.status(), ((await refused.json()) as { code: string }).code]).toEqual([409, 'has-problems'])

  await test.step('the list of pages and its picture', async () => {
    await page.goto(app.editor)
    await page.getByRole('link', { name: title }).focus()
    await expect.poll(async () => (await wordsOfPictures(page)).join()).toContain(WORDS[0]!)
    await expectNothingRan(page)
  })
  await test.step('the canvas, the spine, the details, the problems', async () => {
    await page.goto(`${app.editor}/pages/${summary.id}`)
    await expect(canvasOf(page).getByRole('heading', { level: 2 })).toHaveCount(WORDS.length)
    await canvasOf(page).getByRole('heading', { level: 2 }).nth(20).click()
    await expect(page.getByLabel('Text', { exact: true })).toHaveValue(WORDS[20]!)
    await page.getByRole('button', { name: /problem/ }).click()
    await expectNothingRan(page)
    await page.keyboard.press('Escape')
  })
  await test.step('the line-up', async () => {
    await page.getByRole('button', { name: 'Line-up' }).click()
    await expect(
      page.frameLocator('iframe[title^="The page at narrow"]').getByRole('heading', { level: 2 }),
    ).toHaveCount(WORDS.length)
    await expectNothingRan(page)
  })
  await test.step('the live page, which addresses that run keep from going live', async () => {
    await askServer(page, app, `/api/sites/tarrowmoor/pages/${summary.id}/document`, 'PUT', {
      base: summary.version + 1,
      document: attackedPage(document, ['/', 'https://elsewhere.example/']),
      journal: null,
    })
    await askServer(page, app, `/api/sites/tarrowmoor/pages/${summary.id}/publish`, 'POST', {
      version: summary.version + 2,
    })
    await page.goto(`${app.site}${summary.path}`)
    await expect(page.getByRole('heading', { level: 2 })).toHaveCount(WORDS.length)
    for (const i of [0, 20, WORDS.length - 1])
      await expect(page.getByRole('heading', { level: 2 }).nth(i)).toContainText(
        WORDS[i]!.slice(0, 12).trim(),
      )
    expect(await page.title()).toContain(title)
    await expectNothingRan(page)
    expect(await page.locator('script').count()).toBe(0)
  })
  expect(dialogs).toEqual([])
})
