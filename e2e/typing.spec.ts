/** Typing where the pointer and the caret are, on a slow machine too; what is too long, and pictures that are dropped and pasted. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Locator, Page } from '@playwright/test'
import { canvasOf, expect, openPage, test, type App } from './app.ts'
import { add, addPage, pointAt } from './building.ts'
import { beLate } from './late.ts'
import { makePage } from './shared-pages.ts'

const LATE_MS = 100

test('the caret goes where the pointer is, and a double press takes the word', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Visit')
  const text = canvas.getByText('Two pairs of socks, a hat and gloves.')
  const block = canvas.locator('.text', { hasText: 'Two pairs' })
  await text.click()
  const before = await pointAt(text, 'hat', 'beginning')
  await page.mouse.click(before.x, before.y)
  await expect(canvas.locator('[contenteditable="true"]')).toBeVisible()
  await page.keyboard.type('warm ')
  await expect(block).toContainText('socks, a warm hat and gloves.')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  const gloves = await pointAt(block, 'gloves', 'middle')
  await page.mouse.dblclick(gloves.x, gloves.y)
  await page.keyboard.type('mittens')
  await expect(block).toContainText('socks, a warm hat and mittens.')
})

test('a double press between two paragraphs takes no words of both, and what is typed after End is at an end', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  const text = canvas.locator('.site-footer .text').first()
  await expect(text.locator('p')).toHaveCount(2)
  const words = await text.innerText()
  await text.scrollIntoViewIfNeeded()
  for (let round = 0; round < 6; round++) {
    const [first, second] = [
      await text.locator('p').first().boundingBox(),
      await text.locator('p').last().boundingBox(),
    ]
    const between = (first!.y + first!.height + second!.y) / 2
    await page.mouse.dblclick(first!.x + 60, between)
    await page.keyboard.press('End')
    await page.keyboard.type('!')
    await expect.poll(async () => (await text.innerText()).replace('!', '')).toBe(words)
    await expect.poll(() => text.innerText()).toMatch(/!(\n|$)/)
    await page.keyboard.press('Escape')
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Escape')
  }
})

test('where all that is put off comes late, letters land where the caret was put, 16 times of 16', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Questions')
  const onTime = await beLate(page, LATE_MS)
  // By their ids: the one that is typed in is a heading no more, but a place for words.
  const ids = await canvas
    .locator('main h2[data-node]')
    .evaluateAll((all) => all.map((one) => (one as HTMLElement).dataset.node!))
  expect(ids.length).toBeGreaterThan(3)
  for (let round = 0; round < 16; round++) {
    const heading = canvas.locator(`[data-node="${ids[round % ids.length]}"]`)
    const words = (await heading.textContent())!
    await heading.dblclick()
    // Without a pause: the keys come while the screen is still behind.
    await page.keyboard.press('End')
    await page.keyboard.type(` ${round}`)
    // Nor does what has come meanwhile move the caret.
    await page.waitForTimeout(3 * LATE_MS)
    await page.keyboard.type('!')
    await expect(heading).toHaveText(`${words} ${round}!`)
    await page.keyboard.press('Escape')
    await page.keyboard.press('Escape')
  }
  await onTime()
})

/** A page with a text, in a tab in which all that is put off comes late. */
async function openTextLate(page: Page, app: App) {
  const canvas = await openPage(page, app, 'Visit')
  const onTime = await beLate(page, LATE_MS)
  const text = canvas.locator('main .text').first()
  return { canvas, text, words: (await text.textContent())!, onTime }
}

/** Types what to link to without a pause, while the screen is still behind, and leaves the text. */
async function linkToQuestions(page: Page, text: Locator): Promise<void> {
  await page.keyboard.type('questions')
  await expect(page.getByRole('option', { name: /\/questions\/$/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Link' })).toHaveCount(0)
  await page.keyboard.press('Escape')
  await expect(text.locator('a[href="/questions/"]')).toHaveCount(1)
}

test('where all that is put off comes late, what is typed after Ctrl K goes to the link and not into the text', async ({
  page,
  app,
}) => {
  const { canvas, text, words, onTime } = await openTextLate(page, app)
  for (let round = 0; round < 4; round++) {
    await text.dblclick()
    await expect(canvas.locator('[contenteditable="true"]')).toBeVisible()
    await page.keyboard.press('Control+k')
    await linkToQuestions(page, text)
    await expect(text).toHaveText(words)
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Escape')
    await expect(text.locator('a[href="/questions/"]')).toHaveCount(0)
  }
  await onTime()
})

test('where all that is put off comes late, keys after a press in the bar go to the text', async ({
  page,
  app,
}) => {
  const { text, words, onTime } = await openTextLate(page, app)
  const bar = page.getByRole('toolbar', { name: 'Text formatting' })
  for (const look of ['Bold', 'Accent colour', 'Clear formatting']) {
    const word = await pointAt(text, 'school', 'middle')
    await page.mouse.dblclick(word.x, word.y)
    await bar.getByRole('button', { name: look, exact: true }).click()
    // Without a pause: the screen is still behind.
    await page.keyboard.press('Control+End')
    await page.keyboard.type('!')
    await expect(text).toHaveText(`${words}!`)
    await page.keyboard.press('Backspace')
    await page.keyboard.press('Escape')
    await page.keyboard.press('Escape')
  }
  const word = await pointAt(text, 'school', 'middle')
  await page.mouse.dblclick(word.x, word.y)
  await bar.getByRole('button', { name: 'Link', exact: true }).click()
  await linkToQuestions(page, text)
  await expect(text).toHaveText(words)
  await onTime()
})

test('text pasted beyond the limit is told, stands nowhere, and what is typed after it is in the page', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Questions')
  // By its id: other tests leave copies of it.
  const heading = canvas.locator('[data-node="qu"]')
  const words = (await heading.textContent())!
  await heading.dblclick()
  await page.keyboard.press('End')
  const editor = canvas.locator('[contenteditable="true"]')
  await editor.evaluate((element) => {
    const data = new DataTransfer()
    data.setData('text/plain', 'x'.repeat(100_001))
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  })
  // Where it came before what edits are checked by, it is taken back once that is there.
  await expect(page.getByText(/at most 100.?000 characters|edits were undone/i)).toBeVisible()
  await expect(editor).toHaveText(words)
  await page.keyboard.type(' Yes.')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('textbox', { name: 'Text', exact: true })).toHaveValue(`${words} Yes.`)
})

test('a picture dropped on the page or pasted from the clipboard is uploaded and stands there', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Questions')
  const bytes = readFileSync(join(import.meta.dirname, '../demo/pictures/winter-cluster.jpg')).toString(
    'base64',
  )
  // By its id: other tests leave copies of it.
  const heading = canvas.locator('[data-node="ql"]')
  await heading.click()
  const send = (type: 'drop' | 'paste', name: string) =>
    heading.evaluate(
      (element, [act, title, base64]) => {
        const data = new DataTransfer()
        const raw = Uint8Array.from(atob(base64!), (letter) => letter.charCodeAt(0))
        data.items.add(new File([raw], title!, { type: 'image/jpeg' }))
        const { left, top, width, height } = element.getBoundingClientRect()
        const at = { clientX: left + width / 2, clientY: top + height - 1, bubbles: true, cancelable: true }
        const event = (kind: string) =>
          kind === 'paste'
            ? new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })
            : new DragEvent(kind, { ...at, dataTransfer: data })
        for (const kind of act === 'drop' ? ['dragenter', 'dragover', 'drop'] : ['paste'])
          element.dispatchEvent(event(kind))
      },
      [type, name, bytes],
    )
  const pictures = canvas.getByRole('main').locator('img')
  const before = await pictures.count()
  await send('drop', 'dropped.jpg')
  await expect(pictures).toHaveCount(before + 1)
  await heading.click()
  await send('paste', 'pasted.jpg')
  await expect(pictures).toHaveCount(before + 2)

  // What was said of one picture is not said of another.
  await page.getByRole('textbox', { name: 'Alternative text' }).fill('Stars that were pasted')
  await page.getByRole('button', { name: 'Picture: replace' }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Moon half lit/ })
    .click()
  await expect(page.getByRole('textbox', { name: 'Alternative text' })).toHaveValue('')
  await page.goto(`${app.editor}/media-library`)
  for (const name of ['dropped.jpg', 'pasted.jpg'])
    await expect(page.getByRole('list', { name: 'Pictures' }).getByText(name)).toBeVisible()
})

test('words of a heading are bold, coloured and linked, by keys and by mouse, and stay so when it is published', async ({
  page,
  app,
}) => {
  await addPage(page, app, 'Formatted', 'blank')
  const canvas = canvasOf(page)
  await add(page, 'Heading')
  await page.keyboard.press('Enter')
  await page.keyboard.type('A dark sky for all')
  const heading = canvas.locator('h2')
  const bar = page.getByRole('toolbar', { name: 'Text formatting' })
  await expect(bar.getByRole('button', { name: 'List', exact: true })).toHaveCount(0)
  const dark = await pointAt(heading, 'dark', 'middle')
  await page.mouse.dblclick(dark.x, dark.y)
  await page.keyboard.press('Control+b')
  const sky = await pointAt(heading, 'sky', 'middle')
  await page.mouse.dblclick(sky.x, sky.y)
  await bar.getByRole('button', { name: 'Accent colour' }).click()
  await page.keyboard.press('End')
  await page.keyboard.press('Control+Shift+ArrowLeft')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Link' }).fill('visit')
  await page.keyboard.press('Enter')
  await page.keyboard.type('!')
  // In the details it is words alone; what is typed there leaves the rest as it was.
  await page.keyboard.press('Escape')
  const words = page.getByRole('textbox', { name: 'Text', exact: true })
  await expect(words).toHaveValue('A dark sky for all!')
  await words.fill('A very dark sky for all!')
  const html =
    'A very <strong>dark</strong> <span class="in-accent">sky</span> for <a href="/visit/">all</a>!'
  await expect.poll(() => heading.innerHTML()).toBe(html)
  await words.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(heading).toHaveText('A dark sky for all!')
  await page.keyboard.press('Control+Shift+z')
  await page.keyboard.press('Alt+0')
  await expect(canvas.locator('.text a', { hasText: 'all' })).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Publish' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  expect(await (await fetch(`${app.site}/formatted/`)).text()).toContain(`>${html}</h2>`)
})

test('a locked block takes no letter, and says so', async ({ page, app }) => {
  const id = await makePage(page.context(), app, 'Locked')
  await page.goto(`${app.editor}/pages/${id}`)
  const heading = canvasOf(page).locator('[data-node="h1"]')
  await heading.click()
  await page.keyboard.press('Alt+h')
  await heading.dblclick()
  await page.keyboard.type('lost')
  await expect(page.getByRole('contentinfo').getByRole('status')).toContainText('is locked')
  await expect(canvasOf(page).locator('[contenteditable="true"]')).toHaveCount(0)
  await expect(heading).toHaveText('Locked')
})
