/** Files of other programs: read as pages, with what was not taken over, and written from pages. */
import { readFile } from 'node:fs/promises'
import { canvasOf, expect, test } from './app.ts'
import { noFindings } from './axe.ts'

const HTML = `<!doctype html><title>The moor by foot</title>
<h1>The moor by foot</h1><p>It takes <strong>an hour</strong>.</p>
<h2>What to bring</h2><ul><li>Boots</li><li>A lamp</li></ul>
<details><summary>Is there a bus?</summary><p>On Fridays.</p></details>
<img src="ridge.jpg" alt="The ridge"><script>document.title = 'Taken over'</script>`

test('an HTML file becomes a page after it is shown what was not taken over; hostile and strange files are refused in words', async ({
  page,
  app,
}) => {
  await page.goto(app.editor)
  await page.getByRole('button', { name: 'Add from a file…' }).click()
  const dialog = page.getByRole('dialog')
  const choose = async (name: string, text: string): Promise<void> => {
    const chooser = page.waitForEvent('filechooser')
    await dialog.getByRole('button', { name: /^Choose/ }).press('Enter')
    await (await chooser).setFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  }
  await choose('sheet.ods', 'x')
  await expect(dialog.getByRole('alert')).toContainText('is neither HTML nor Markdown')
  await choose('deep.html', '<div>'.repeat(30_000))
  await expect(dialog.getByRole('alert')).toContainText('nested too deeply')
  await choose('moor.html', HTML)
  await expect(dialog.getByRole('textbox', { name: 'Title' })).toHaveValue('The moor by foot')
  await expect(dialog.getByText('It becomes 10 blocks.')).toBeVisible()
  const missed = dialog.getByRole('group', { name: 'What was not taken over' })
  await expect(missed.getByRole('listitem')).toHaveText([/The picture “ridge.jpg”/, /A script.*left out/])
  await noFindings(page)
  await dialog.getByRole('button', { name: 'Add page' }).press('Enter')
  const canvas = canvasOf(page)
  await expect(canvas.getByRole('heading', { name: 'What to bring' })).toBeVisible()
  await expect(canvas.getByText('Is there a bus?')).toBeVisible()
  expect(await page.title()).not.toContain('Taken over')
})

test('a Markdown file becomes a page, and a page is saved as HTML, Markdown and JSON', async ({
  page,
  app,
}) => {
  await page.goto(app.editor)
  await page.getByRole('button', { name: 'Add from a file…' }).press('Enter')
  const dialog = page.getByRole('dialog')
  const chooser = page.waitForEvent('filechooser')
  await dialog.getByRole('button', { name: 'Choose a file…' }).click()
  const text = '# By bus\n\n| From | Hour |\n|-|-|\n| Gate | 17:10 |\n\n> Wave at the driver.'
  await (await chooser).setFiles({ name: 'bus.md', mimeType: 'text/markdown', buffer: Buffer.from(text) })
  await dialog.getByRole('button', { name: 'Add page' }).click()
  await expect(canvasOf(page).getByRole('cell', { name: '17:10' })).toBeVisible()
  await page.goto(app.editor)
  // Of a long list only the rows in view are there.
  await page.getByRole('textbox', { name: 'Search pages' }).fill('By bus')
  await page.getByRole('row', { name: /By bus/ }).click()
  const copies = page.getByRole('group', { name: 'Save a copy as' })
  const saved: Record<string, string> = {}
  for (const format of ['HTML', 'Markdown', 'JSON']) {
    const download = page.waitForEvent('download')
    await copies.getByRole('button', { name: format }).click()
    const file = await download
    saved[file.suggestedFilename()] = await readFile(await file.path(), 'utf8')
  }
  expect(Object.keys(saved)).toEqual(['by-bus.html', 'by-bus.md', 'by-bus.json'])
  expect(saved['by-bus.md']).toContain('| Gate | 17:10 |')
  expect(saved['by-bus.html']).toContain('<blockquote>')
  expect(JSON.parse(saved['by-bus.json']!)).toMatchObject({ title: 'By bus' })
})
