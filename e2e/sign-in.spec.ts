import { canvasOf, expect, openPage, otherBrowser, test } from './app.ts'
import { noFindings } from './axe.ts'

test('nobody sees anything before signing in; a wrong password says so and keeps the name', async ({
  app,
  browser,
}) => {
  const context = await browser.newContext()
  const page = await context.newPage()
  await page.goto(`${app.editor}/pages/tmvisit`)
  await expect(page.getByRole('heading', { name: 'Sign in to Gullyline' })).toBeVisible()
  await noFindings(page)
  await expect(page.getByRole('textbox', { name: 'Sign-in name' })).toBeFocused()
  await page.keyboard.type('ines')
  await page.keyboard.press('Tab')
  await page.keyboard.type('not the password')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText('Wrong name or password. Try again.')
  await expect(page.getByRole('textbox', { name: 'Sign-in name' })).toHaveValue('ines')
  await page
    .getByRole('textbox', { name: 'Password' })
    .fill(app.accounts.find((one) => one.login === 'ines')!.password)
  await page.keyboard.press('Enter')
  // The page that was asked for, not another one.
  await expect(canvasOf(page).getByRole('heading', { name: 'Visit us' })).toBeVisible()
  await page.getByRole('button', { name: 'You are Ines. Account' }).click()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByRole('heading', { name: 'Sign in to Gullyline' })).toBeVisible()
  expect((await context.request.get(`${app.editor}/api/sites/tarrowmoor/pages`)).status()).toBe(401)
  await context.close()
})

test('a session that ends while somebody works is asked for over the screen, and no edit is lost', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Questions')
  await canvas.getByRole('heading', { name: 'Do you take schools?' }).click()
  await page.keyboard.press('Alt+Shift+ArrowDown')
  await expect(page.getByText('1 edit not saved')).toBeVisible()
  await page.context().clearCookies()
  await page.keyboard.press('Control+s')
  const dialog = page.getByRole('alertdialog', { name: 'Sign in to continue' })
  await expect(dialog).toBeVisible()
  await dialog
    .getByRole('textbox', { name: 'Password' })
    .fill(app.accounts.find((one) => one.role === 'keeper')!.password)
  await page.keyboard.press('Enter')
  await expect(dialog).toHaveCount(0)
  // The save that was refused is made up for by itself.
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('a reviewer looks at every width and publishes, and changes nothing', async ({ app, browser }) => {
  const context = await otherBrowser(browser, app, 'reviewer')
  const page = await context.newPage()
  const canvas = await openPage(page, app, 'Questions')
  const heading = canvas.getByRole('heading', { level: 1 })
  const words = await heading.textContent()
  await heading.dblclick()
  await page.keyboard.type('Changed')
  await page.keyboard.press('Escape')
  await heading.click()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('contentinfo').getByRole('status')).toContainText('needs the role of editor')
  await expect(heading).toHaveText(words!)
  // Nothing is offered that would be refused.
  for (const name of ['Save', 'Add to page', 'Undo', 'Delete', 'Duplicate', 'Add below'])
    await expect(page.getByRole('button', { name, exact: true })).toHaveCount(0)
  const details = page.getByRole('complementary', { name: 'Details' })
  await expect(details.getByRole('combobox', { name: 'Text size', exact: true })).toBeDisabled()
  await page.keyboard.press('Control+Shift+Enter')
  const commands = page.getByRole('dialog', { name: 'Search everything' }).getByRole('menuitem')
  await expect(commands.filter({ hasText: 'Line-up' })).toHaveCount(1)
  await expect(commands.filter({ hasText: /^(Delete|Group|Paste|Add block|Save)/ })).toHaveCount(0)
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Published' })).toBeVisible()
  await context.close()
})
