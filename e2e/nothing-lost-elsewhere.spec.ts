/** What is typed outside of pages and then left, closed, loaded again or changed by somebody else is not lost either. */
import type { Page } from '@playwright/test'
import { expect, otherBrowser, test } from './app.ts'
import { sentence } from './sentence.ts'

test('fields outside of pages: closing, leaving, loading again and two people lose nothing', async ({
  page,
  app,
  browser,
}) => {
  page.on('dialog', (dialog) => void dialog.accept())
  await test.step('a dialog that is closed by Escape, or pressed beside, has the title again', async () => {
    const words = sentence()
    await page.goto(app.editor)
    await page.getByRole('button', { name: 'Add page' }).click()
    await page.getByRole('textbox', { name: 'Title' }).fill(words)
    await page.mouse.click(5, 400)
    await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue(words)
    await page.keyboard.press('Escape')
    await expect(page.getByRole('dialog')).toHaveCount(0)
    await page.getByRole('button', { name: 'Add page' }).click()
    await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue(words)
    await page.getByRole('button', { name: 'Cancel' }).click()
  })
  await test.step('a title that is typed in a rename dialog survives loading again', async () => {
    const words = sentence()
    await page.getByRole('button', { name: 'More actions: Questions' }).click()
    await page.getByRole('menuitem', { name: /^Rename/ }).click()
    await page.getByRole('textbox', { name: 'Title' }).fill(words)
    await page.reload()
    await page.getByRole('button', { name: 'More actions: Questions' }).click()
    await page.getByRole('menuitem', { name: /^Rename/ }).click()
    await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue(words)
    await page.getByRole('button', { name: 'Cancel' }).click()
  })
  let before = ''
  await test.step('an alternative text: leaving asks, loading again has it', async () => {
    const words = sentence()
    await page.goto(`${app.editor}/media-library`)
    await page.getByRole('list', { name: 'Pictures' }).getByRole('button').first().click()
    const field = page.getByRole('textbox', { name: /^Alternative text of/ })
    before = await field.inputValue()
    await page.route('**/api/sites/tarrowmoor/media/*', (route) => route.abort())
    await field.fill(words)
    await page.getByRole('link', { name: 'Pages' }).click()
    const question = page.getByRole('alertdialog', { name: 'Leave without saving?' })
    await expect(question).toContainText('Alternative text of')
    await question.getByRole('button', { name: 'Stay here' }).click()
    await page.reload()
    await page.unroute('**/api/sites/tarrowmoor/media/*')
    await page.getByRole('list', { name: 'Pictures' }).getByRole('button').first().click()
    await expect(field).toHaveValue(words)
    await field.focus()
    await field.blur()
    await expect
      .poll(async () =>
        (
          await (await page.context().request.get(`${app.editor}/api/sites/tarrowmoor/library`)).text()
        ).includes(words),
      )
      .toBe(true)
  })
  await test.step('two people on one alternative text: the second is asked', async () => {
    const other = await otherBrowser(browser, app, 'editor')
    const second = await other.newPage()
    await second.goto(`${app.editor}/media-library`)
    for (const one of [page, second])
      await one.getByRole('list', { name: 'Pictures' }).getByRole('button').first().click()
    const fieldOf = (one: Page) => one.getByRole('textbox', { name: /^Alternative text of/ })
    const [mine, theirs] = [sentence(), sentence()]
    await fieldOf(page).fill(mine)
    await fieldOf(second).fill(theirs)
    await fieldOf(second).blur()
    await expect
      .poll(async () =>
        (await (await other.request.get(`${app.editor}/api/sites/tarrowmoor/library`)).text()).includes(
          theirs,
        ),
      )
      .toBe(true)
    await fieldOf(page).blur()
    const asked = page.getByRole('alert').filter({ hasText: theirs })
    await expect(fieldOf(page)).toHaveValue(mine)
    await asked.getByRole('button', { name: 'Use mine' }).click()
    await expect
      .poll(async () =>
        (await (await other.request.get(`${app.editor}/api/sites/tarrowmoor/library`)).text()).includes(mine),
      )
      .toBe(true)
    // As it was, for the tests that know the picture by it.
    await fieldOf(page).fill(before)
    await fieldOf(page).blur()
    await expect
      .poll(async () =>
        (await (await other.request.get(`${app.editor}/api/sites/tarrowmoor/library`)).text()).includes(mine),
      )
      .toBe(false)
    await other.close()
  })
  await test.step('a link for the navigation that is not added yet', async () => {
    const words = sentence()
    await page.goto(`${app.editor}/navigation`)
    await page.getByRole('textbox', { name: 'Text' }).fill(words)
    await page.reload()
    await expect(page.getByRole('textbox', { name: 'Text' })).toHaveValue(words)
  })
})
