/** Page templates of the site: made from a page by its keeper, used for a new page, and taken over where they changed. */
import { canvasOf, expect, test } from './app.ts'
import { noFindings } from './axe.ts'
import { expectSaved, makePage } from './shared-pages.ts'

test('a keeper makes a template of a page; a page made from it keeps what is fixed and takes over what changes there', async ({
  page,
  app,
}) => {
  const source = await makePage(page.context(), app, 'Nights of the fox')
  const details = page.getByRole('complementary', { name: 'Details' })
  const dialog = page.getByRole('dialog')
  const canvas = canvasOf(page)
  await page.goto(`${app.editor}/pages/${source}`)
  await expect(canvas.getByRole('heading', { name: 'More here' })).toBeVisible()
  await details.getByRole('button', { name: 'Make a page template…' }).click()
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Fox night')
  await dialog.getByRole('textbox', { name: 'Description' }).fill('For nights out with the fox')
  await dialog
    .getByRole('combobox', { name: /More here/ })
    .first()
    .selectOption('Only its text can be changed')
  await dialog.getByRole('checkbox', { name: /^Description.* must be filled in/ }).check()
  await noFindings(page)
  await dialog.getByRole('button', { name: 'Make template' }).click()
  await expect(
    page.getByText('Made the page template “Fox night”. It is offered when a page is added'),
  ).toBeVisible()

  await page.keyboard.press('Control+S')
  await expectSaved(page)

  // A page made from it, by keys.
  await page.goto(`${app.editor}/`)
  await page.getByRole('button', { name: 'Add page' }).first().press('Enter')
  await dialog.getByRole('textbox', { name: 'Title' }).fill('The fox in May')
  await dialog.getByRole('radio', { name: /^Fox night/ }).focus()
  await page.keyboard.press('Space')
  await dialog.getByRole('button', { name: 'Add page' }).press('Enter')
  await expect(details.getByText('Made from the page template “Fox night”.')).toBeVisible()
  const made = page.url()
  const heading = canvas.getByRole('heading', { name: 'More here' })
  await heading.click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Delete')
  await expect(page.getByText(/fixed by the page’s template/)).toBeVisible()
  await expect(heading).toBeVisible()
  await page.getByRole('button', { name: /problem/ }).click()
  await expect(page.getByText('The page’s template asks for “Description”').first()).toBeVisible()

  // The template changes where it was made from, fixed blocks too.
  await page.goto(`${app.editor}/pages/${source}`)
  await heading.click()
  await page.keyboard.press('Enter')
  await page.keyboard.press('Control+A')
  await page.keyboard.type('Where the fox lives')
  await page.keyboard.press('Escape')
  await expect(canvas.getByRole('heading', { name: 'Where the fox lives' })).toBeVisible()
  await page.keyboard.press('Control+S')
  await expectSaved(page)
  for (let up = 0; up < 3; up++) await page.keyboard.press('Escape')
  await details.getByRole('button', { name: 'Change “Fox night”…' }).click()
  await dialog.getByRole('button', { name: 'Change template' }).click()
  await expect(page.getByText(/Changed the page template “Fox night”. .* can take this over/)).toBeVisible()
  await page.keyboard.press('Control+S')
  await expectSaved(page)

  // The other page is told, takes it over, and takes that back.
  await page.goto(made)
  await expect(canvas.getByRole('heading', { name: 'More here' })).toBeVisible()
  await expect(details.getByText('which has changed since')).toBeVisible()
  await details.getByRole('button', { name: 'See what changed…' }).press('Enter')
  await expect(dialog.getByRole('checkbox', { name: /^Section “Where the fox lives”/ })).toBeChecked()
  await noFindings(page)
  await dialog.getByRole('button', { name: 'Take over' }).press('Enter')
  await expect(canvas.getByRole('heading', { name: 'Where the fox lives' })).toBeVisible()
  await expect(canvas.getByRole('heading', { name: 'The fox in May' })).toBeVisible()
  await expect(details.getByText('Made from the page template “Fox night”.')).toBeVisible()
  await page.keyboard.press('Control+Z')
  await expect(canvas.getByRole('heading', { name: 'More here' })).toBeVisible()
  await page.keyboard.press('Control+Shift+Z')
  await page.keyboard.press('Control+S')
  await expectSaved(page)
  await page.goto(`${app.editor}/library`)
  await page.getByRole('button', { name: /^Page templates \d/ }).click()
  await page.getByRole('button', { name: 'Fox night. Page template' }).click()
  await expect(
    page.getByRole('list', { name: 'Pages that show it' }).getByText('The fox in May'),
  ).toBeVisible()
  await noFindings(page)
})
