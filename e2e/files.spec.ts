/** Files that visitors can take with them: added while linking, listed with their uses, replaced, and refused with the reason. */
import { readFile } from 'node:fs/promises'
import { expect, openPage, otherBrowser, test } from './app.ts'
import { goTo } from './building.ts'

const PROGRAMME = Buffer.from('%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF\n')
const NEWER = Buffer.from(PROGRAMME.toString().replace('1.4', '1.5'))
const pdf = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/pdf', buffer })

test('a file is added where it is linked to, had by visitors, and replaced everywhere', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Open nights')
  await canvas.getByRole('link', { name: /^Put them in your calendar/ }).click()
  const details = page.getByRole('complementary', { name: 'Details' })
  const leadsTo = details.getByRole('combobox', { name: 'Link' })
  await expect(leadsTo).toHaveValue('open-nights.ics')
  await leadsTo.fill('upload')
  await page.getByRole('option', { name: 'Upload a file…' }).click()

  await test.step('what is no file to link to is refused, and the link is as it was', async () => {
    await details
      .getByLabel('File to upload and link to')
      .setInputFiles(pdf('x.pdf', Buffer.from('MZ\x90\x00')))
    await expect(details.getByRole('alert')).toHaveText(/of the kind EXE, .*It was not added/)
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  })

  await details.getByLabel('File to upload and link to').setInputFiles(pdf('Winter programme.pdf', PROGRAMME))
  await expect(leadsTo).toHaveValue('Winter programme.pdf')
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Save and publish' }).click()
  await expect(page.getByRole('dialog', { name: 'Published' })).toBeVisible()

  const visitor = await page.context().newPage()
  const take = async () => {
    await visitor.goto(`${app.site}/open-nights/`)
    const download = visitor.waitForEvent('download')
    await visitor.getByRole('link', { name: /^Put them in your calendar/ }).click()
    const got = await download
    return { name: got.suggestedFilename(), bytes: await readFile(await got.path()) }
  }
  expect(await take()).toEqual({ name: 'winter-programme.pdf', bytes: PROGRAMME })

  await page.goto(app.editor)
  await goTo(page, 'Media')
  await page.getByRole('button', { name: /^Files/ }).click()
  const row = page.getByRole('row', { name: /Winter programme\.pdf/ })
  await expect(row.getByRole('link', { name: 'Open nights' })).toBeVisible()
  await page
    .getByLabel('File for: Replace Winter programme.pdf everywhere')
    .setInputFiles(pdf('Spring programme.pdf', NEWER))
  await expect(page.getByRole('row', { name: /Spring programme\.pdf/ })).toBeVisible()
  expect(await take()).toEqual({ name: 'spring-programme.pdf', bytes: NEWER })
})

test('when the session ends during an upload, it is asked for, and the file can be sent again', async ({
  page,
  app,
}) => {
  await page.goto(`${app.editor}/media-library?show=files`)
  await expect(page.getByRole('row', { name: /open-nights\.ics/ })).toBeVisible()
  await page.context().clearCookies()
  await page.getByLabel('Files to upload').setInputFiles(pdf('Late.pdf', PROGRAMME))
  const dialog = page.getByRole('alertdialog', { name: 'Sign in to continue' })
  await expect(dialog).toBeVisible()
  const { password } = app.accounts.find(({ role }) => role === 'keeper')!
  await dialog.getByLabel('Password').fill(password)
  await dialog.getByRole('button', { name: 'Sign in' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'Upload Late.pdf again' }).click()
  await expect(page.getByRole('row', { name: /^Late\.pdf PDF/ })).toBeVisible()
})

test('a reviewer sees the files, and can change none', async ({ app, browser }) => {
  const context = await otherBrowser(browser, app, 'reviewer')
  const page = await context.newPage()
  await page.goto(`${app.editor}/media-library?show=files`)
  await expect(page.getByRole('row', { name: /open-nights\.ics/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /Upload|Replace/ })).toHaveCount(0)
  await context.close()
})
