/** The editor in a browser of Safari's family: `npm test -- --only webkit`. */
import type { PageDocument } from '@gullyline/core'
import { expect, signIn, test } from './app.ts'
import { KEYS, WebKit } from './webkit.ts'

const FRAME = `document.querySelector('iframe[title^="The page,"]')`

test('a page is measured, typed into, added to and saved in WebKit', async ({ app, context }) => {
  const webkit = await WebKit.start()
  try {
    await webkit.open(`${app.editor}/help`)
    const { login, password } = app.accounts.find(({ role }) => role === 'keeper')!
    const signed = await webkit.run<number>(
      `const answer = await fetch('/api/session', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(given[0]),
      })
      return answer.status`,
      { login, password },
    )
    expect(signed).toBe(201)
    await webkit.open(`${app.editor}/pages/tmvisit`)
    const screen = (): Promise<string> => webkit.run('return document.body.textContent')
    await expect.poll(screen, { timeout: 120_000 }).toContain('at 1,601 widths')

    const heading = (): Promise<{ x: number; y: number; words: string; isTyped: boolean }> =>
      webkit.run(`const frame = ${FRAME}
        const { x, y, width } = frame.getBoundingClientRect()
        const scale = width / frame.offsetWidth
        const heading = frame.contentDocument.querySelector('h1')
        const box = heading.getBoundingClientRect()
        return {
          x: x + (box.left + 40) * scale,
          y: y + (box.top + box.height / 2) * scale,
          words: heading.textContent,
          isTyped: heading.isContentEditable,
        }`)
    const before = await heading()
    await webkit.press(before.x, before.y)
    await expect.poll(screen).toContain('A title for what follows')
    await webkit.press(before.x, before.y)
    await expect.poll(async () => (await heading()).isTyped).toBe(true)
    await webkit.type('12')
    await expect.poll(async () => (await heading()).words).toContain('12')

    await webkit.chord(KEYS.escape)
    await webkit.chord(KEYS.control, KEYS.enter)
    const focused = (): Promise<string | null> =>
      webkit.run(`return document.activeElement.getAttribute('aria-label')`)
    await expect.poll(focused).toBe('Search blocks and patterns')
    await webkit.type('quote')
    await webkit.chord(KEYS.enter)
    const words = (): Promise<string> => webkit.run(`return ${FRAME}.contentDocument.body.textContent`)
    const quotes = (): Promise<number> =>
      webkit.run(`return ${FRAME}.contentDocument.querySelectorAll('main blockquote').length`)
    await expect.poll(quotes).toBeGreaterThan(0)
    await webkit.type('Typed in WebKit.')
    await expect.poll(words).toContain('Typed in WebKit.')
    await webkit.chord(KEYS.control, 's')
    await expect.poll(screen).toMatch(/Saved as version \d+/)

    await signIn(context, app)
    const saved = await context.request.get(`${app.editor}/api/sites/tarrowmoor/pages/tmvisit`)
    const nodes = JSON.stringify(((await saved.json()) as PageDocument).document.nodes)
    expect(nodes).toContain('Typed in WebKit.')
    expect(nodes).toContain((await heading()).words)
  } finally {
    await webkit.stop()
  }
})
