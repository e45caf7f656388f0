/** The look of a site as a file of design tokens: read, seen before it is used, used, taken back, and written. */
import { readFile } from 'node:fs/promises'
import { expect, test } from './app.ts'
import { noFindings } from './axe.ts'

const TOKENS = {
  colors: {
    $type: 'color',
    'paper-background': { $value: '#fbf7ee' },
    'text-strong': { $value: { colorSpace: 'srgb', components: [0.1, 0.08, 0.2] } },
    alias: { $value: '{colors.text-strong}' },
  },
  motion: { $type: 'duration', fast: { $value: { value: 100, unit: 'ms' } } },
}

test('a keeper reads design tokens, sees what becomes of them, uses the look, and takes it back', async ({
  page,
  app,
}) => {
  const dialog = page.getByRole('dialog')
  const choose = async (text: string): Promise<void> => {
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Read design tokens…' }).click()
    await (
      await chooser
    ).setFiles({ name: 'brand.tokens.json', mimeType: 'application/json', buffer: Buffer.from(text) })
  }
  const paper = async (): Promise<string> => {
    await page.goto(`${app.site}/about/`)
    return page.evaluate(() => getComputedStyle(document.body).backgroundColor)
  }
  const before = await paper()
  await page.goto(`${app.editor}/settings#look`)
  await choose('no tokens at all')
  await expect(page.getByRole('alert')).toContainText('is not JSON')
  await choose('{"a":{"$value":"{b}"},"b":{"$value":"{a}"}}')
  await expect(page.getByRole('alert')).toContainText('in a ring')

  await choose(JSON.stringify(TOKENS))
  await expect(dialog.getByRole('heading', { name: 'The look of “brand.tokens.json”' })).toBeVisible()
  const left = dialog.getByRole('region', { name: 'Not taken over' })
  await expect(left.getByRole('row', { name: /motion\.fast.*duration/ })).toBeVisible()
  const taken = dialog.getByRole('region', { name: 'Taken over' })
  await expect(
    taken.getByRole('row', { name: /Paper: background #fbf7ee colors\.paper-background/ }),
  ).toBeVisible()
  await noFindings(page)
  await dialog.getByRole('button', { name: 'Use this look' }).press('Enter')
  await expect(page.getByText('The site has another look.')).toBeVisible()
  const undo = page.getByRole('button', { name: 'Undo the change of the look' })
  await expect(undo).toBeVisible()
  const other = await page.context().newPage()
  await other.goto(`${app.site}/about/`)
  expect(await other.evaluate(() => getComputedStyle(document.body).backgroundColor)).toBe(
    'rgb(251, 247, 238)',
  )

  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as design tokens' }).click()
  const saved = JSON.parse(await readFile(await (await download).path(), 'utf8')) as {
    color: { plain: { background: { $value: { hex: string } } } }
  }
  expect(saved.color.plain.background.$value.hex).toBe('#fbf7ee')
  await undo.press('Enter')
  await expect(page.getByText('The site has the look that it had before.')).toBeVisible()
  expect(await paper()).toBe(before)
})
