import { noFindings } from './axe.ts'
import type { Browser, BrowserContext, Page } from '@playwright/test'
import { canvasOf, expect, otherBrowser, test, untilWhole, type App } from './app.ts'

async function open(browser: Browser, app: App, role: 'editor' | 'keeper', path: string) {
  const context = await otherBrowser(browser, app, role)
  // What a page of a test before sent as it was closed may have come after that test had ended.
  await app.forgetJournals()
  const page = await context.newPage()
  await page.goto(app.editor + path)
  await untilWhole(page)
  return { context, page }
}
const close = (...contexts: readonly BrowserContext[]) => Promise.all(contexts.map((one) => one.close()))

async function retitle(page: Page, heading: string, words: string): Promise<void> {
  await canvasOf(page).getByRole('heading', { name: heading }).dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type(words)
  await page.keyboard.press('Escape')
}

test('two people see each other; what each saves goes together where it does not touch', async ({
  app,
  browser,
}) => {
  const ines = await open(browser, app, 'editor', '/pages/tmvisit')
  const tarn = await open(browser, app, 'keeper', '/pages/tmvisit')
  await expect(
    ines.page.getByRole('list', { name: 'Also on this page' }).getByRole('img', { name: 'Tarn' }),
  ).toBeVisible()
  await expect(
    tarn.page.getByRole('list', { name: 'Also on this page' }).getByRole('img', { name: 'Ines' }),
  ).toBeVisible()

  // A person with two tabs on the page has one face.
  const again = await tarn.context.newPage()
  await again.goto(`${app.editor}/pages/tmvisit`)
  await expect(ines.page.getByTitle('Tarn also has this page open, in 2 tabs')).toHaveCount(1)
  await again.close()
  await expect(ines.page.getByTitle('Tarn also has this page open', { exact: true })).toHaveCount(1)

  await retitle(ines.page, 'What to bring', 'What Ines says to bring')
  await retitle(tarn.page, 'Getting here', 'Getting here with Tarn')
  await tarn.page.keyboard.press('Control+s')
  await expect(tarn.page.getByText('Saved', { exact: true })).toBeVisible()
  await expect(ines.page.getByRole('button', { name: /^Tarn saved version \d+: merge it$/ })).toBeVisible()
  await ines.page.keyboard.press('Control+s')
  await expect(ines.page.getByText('Saved', { exact: true })).toBeVisible()
  const inesSees = canvasOf(ines.page)
  await expect(inesSees.getByRole('heading', { name: 'Getting here with Tarn' })).toBeVisible()
  await expect(inesSees.getByRole('heading', { name: 'What Ines says to bring' })).toBeVisible()

  await tarn.page.getByRole('button', { name: /^Ines saved version \d+: merge it$/ }).click()
  await expect(canvasOf(tarn.page).getByRole('heading', { name: 'What Ines says to bring' })).toBeVisible()
  await expect(tarn.page.getByText('Saved', { exact: true })).toBeVisible()
  await tarn.context.close()
  await expect(ines.page.getByRole('list', { name: 'Also on this page' })).toHaveCount(0)
  await ines.context.close()
})

test('where both changed the same spot the person chooses, and the other is an undo away', async ({
  app,
  browser,
}) => {
  const ines = await open(browser, app, 'editor', '/pages/tmquestions')
  const tarn = await open(browser, app, 'keeper', '/pages/tmquestions')
  await retitle(ines.page, 'What if it is cloudy?', 'Ines on the cold')
  await retitle(tarn.page, 'What if it is cloudy?', 'Tarn on the cold')
  await ines.page.keyboard.press('Control+s')
  await expect(ines.page.getByText('Saved', { exact: true })).toBeVisible()
  await tarn.page.keyboard.press('Control+s')
  const dialog = tarn.page.getByRole('dialog', { name: 'Ines changed the same spot' })
  await expect(dialog.getByText('Text of heading “Tarn on the cold”')).toBeVisible()
  await expect(dialog.getByRole('radio', { name: /Yours Tarn on the cold/ })).toBeChecked()
  await noFindings(tarn.page)
  await dialog.getByRole('radio', { name: /Ines Ines on the cold/ }).press('Space')
  await dialog.getByRole('button', { name: 'Use these and save' }).click()
  await expect(tarn.page.getByText('Saved', { exact: true })).toBeVisible()
  await expect(canvasOf(tarn.page).getByRole('heading', { name: 'Ines on the cold' })).toBeVisible()
  await tarn.page.keyboard.press('Control+z')
  await expect(canvasOf(tarn.page).getByRole('heading', { name: 'Tarn on the cold' })).toBeVisible()
  await expect(tarn.page.getByText('1 edit not saved')).toBeVisible()
  await tarn.page.keyboard.press('Control+s')
  await expect(tarn.page.getByText('Saved', { exact: true })).toBeVisible()
  await close(ines.context, tarn.context)
})
