/** A second site, and packages: exported from one site, looked at and imported into the other, with each of the answers. */
import { noFindings } from './axe.ts'
import type { BrowserContext, Page } from '@playwright/test'
import type { Account, PageSummary, SavedPart } from '@gullyline/core'
import { expect, test, type App } from './app.ts'

const first = (app: App): string => `${app.editor}/api/sites/tarrowmoor`

async function ask<T>(context: BrowserContext, url: string): Promise<T> {
  return (await (await context.request.get(url)).json()) as T
}

/** Adds a site as a person does, and gives its address. */
async function addSite(page: Page, app: App, name: string): Promise<string> {
  await page.goto(`${app.editor}/sites-and-people`)
  await page.getByRole('button', { name: 'Add a site…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add a site' })
  await dialog.getByRole('textbox', { name: 'Site name' }).fill(name)
  await dialog.getByRole('textbox', { name: 'Site name' }).press('Enter')
  await page.waitForURL(/\/sites\/[a-z0-9]+\/$/)
  await expect(page.getByRole('banner').getByRole('link', { name })).toBeVisible()
  return page.url().replace(/\/$/, '')
}

const apiOf = (site: string): string => site.replace('/sites/', '/api/sites/')

async function importing(page: Page, site: string, bytes: Buffer): Promise<void> {
  await page.goto(`${site}/library`)
  await page.getByRole('button', { name: 'Import a package…' }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose a file…' }).click()
  const name = 'a.gullyline.zip'
  await (await chooser).setFiles({ name, mimeType: 'application/zip', buffer: bytes })
}

async function exported(context: BrowserContext, app: App, query: string): Promise<Buffer> {
  return (await context.request.get(`${first(app)}/export?${query}`)).body()
}

test('by mouse: a site is added, a part and a page come to it from the first, are published and found under its own name', async ({
  page,
  app,
}) => {
  const context = page.context()
  const site = await addSite(page, app, 'Fog Friends')
  await noFindings(page)

  // Exported where a person does it.
  await page.goto(`${app.editor}/library`)
  await page.getByRole('button', { name: /^Shared sections/ }).click()
  await page.getByRole('button', { name: /^Call to join/ }).click()
  const download = page.waitForEvent('download')
  await page
    .getByRole('complementary', { name: 'Selected part' })
    .getByRole('button', { name: 'Export' })
    .click()
  const saved = await download
  expect(saved.suggestedFilename()).toBe('call-to-join.gullyline.zip')
  const bytes = await (await saved.createReadStream()).toArray()
  await expect(page.getByText(/^Exported 1 part/)).toBeVisible()

  await importing(page, site, Buffer.concat(bytes as Buffer[]))
  const dialog = page.getByRole('dialog', { name: 'Import a package' })
  await expect(dialog.getByText('new on this site', { exact: false })).toBeVisible()
  await noFindings(page)
  await dialog.getByRole('button', { name: 'Import', exact: true }).click()
  await expect(dialog.getByText(/added\./)).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).click()
  const parts = await ask<SavedPart[]>(context, `${apiOf(site)}/parts`)
  expect(parts.map(({ name }) => name)).toEqual(['Call to join'])

  // A page comes with what it shows, and visitors of this site find it.
  await importing(page, site, await exported(context, app, 'page=tmschools'))
  await dialog.getByRole('button', { name: 'Import', exact: true }).click()
  await expect(dialog.getByText(/added\./)).toBeVisible({ timeout: 30_000 })
  const schools = (await ask<PageSummary[]>(context, `${apiOf(site)}/pages`)).find(
    ({ path }) => path === '/schools/',
  )!
  const answer = await context.request.post(`${apiOf(site)}/pages/${schools.id}/publish`, {
    data: { version: schools.version },
  })
  const { url } = (await answer.json()) as { url: string }
  expect(new URL(url).hostname).toBe('fog-friends.localhost')
  await page.goto(url)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.goto(`${app.site}/schools/`)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
})

test('by keyboard: of what is there already, mine stays, theirs comes as a new version, and both stand beside each other', async ({
  page,
  app,
}) => {
  const context = page.context()
  const site = await addSite(page, app, 'Night Friends')
  const bytes = await exported(context, app, 'part=tmjoin')
  const dialog = page.getByRole('dialog', { name: 'Import a package' })
  const take = async (): Promise<void> => {
    const button = dialog.getByRole('button', { name: 'Import', exact: true })
    await expect(button).toBeEnabled()
    await button.press('Enter')
    await expect(dialog.getByRole('status')).toContainText(/added\./)
    await dialog.getByRole('button', { name: 'Close' }).press('Enter')
  }
  const parts = async () =>
    (await ask<SavedPart[]>(context, `${apiOf(site)}/parts`)).map(({ name, version }) => [name, version])
  const choose = async (keys: readonly string[]): Promise<void> => {
    await importing(page, site, bytes)
    const choice = dialog.getByRole('combobox', { name: 'What to do with Call to join' })
    await choice.focus()
    for (const key of keys) await page.keyboard.press(key)
    await take()
  }
  await importing(page, site, bytes)
  await take()
  expect(await parts()).toEqual([['Call to join', 1]])
  await choose([])
  expect(await parts()).toEqual([['Call to join', 1]])
  await choose(['ArrowDown'])
  expect(await parts()).toEqual([['Call to join', 2]])
  await choose(['ArrowDown', 'ArrowDown'])
  expect(await parts()).toEqual([
    ['Call to join', 2],
    ['Call to join 2', 1],
  ])
})

test('a file that is no package is refused in words, and Escape leaves everything as it was', async ({
  page,
  app,
}) => {
  const before = await ask<SavedPart[]>(page.context(), `${first(app)}/parts`)
  await importing(page, app.editor, Buffer.from('Dear all, here is the programme.'))
  const dialog = page.getByRole('dialog', { name: 'Import a package' })
  await expect(dialog.getByRole('alert')).toContainText(
    'it is no zip file, or a damaged one. Nothing was changed.',
  )
  await page.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
  expect(await ask<SavedPart[]>(page.context(), `${first(app)}/parts`)).toEqual(before)
})

test('who does not work on a site is told so, and comes to it once its administrator has added them', async ({
  page,
  app,
  browser,
}) => {
  const site = await addSite(page, app, 'Moor Friends')
  const ines = app.accounts.find(({ login }) => login === 'ines')!
  const other = await browser.newContext()
  const { login, password } = ines
  await other.request.post(`${app.editor}/api/session`, { data: { login, password } })
  const theirs = await other.newPage()
  await theirs.goto(`${site}/library`)
  await expect(theirs.getByRole('heading', { name: 'Site not found' })).toBeVisible()
  await page
    .getByRole('navigation', { name: 'Screens' })
    .getByRole('link', { name: 'Sites and people' })
    .click()
  await page.getByRole('checkbox', { name: 'Ines works on this site' }).check()
  await expect
    .poll(async () => (await ask<Account>(other, `${app.editor}/api/session`)).sites.map(({ name }) => name))
    .toContain('Moor Friends')
  await theirs.goto(`${app.editor}/`)
  await theirs.getByRole('button', { name: 'Switch site' }).click()
  await theirs.getByRole('menuitem', { name: 'Moor Friends' }).click()
  await expect(theirs.getByRole('banner').getByRole('link', { name: 'Moor Friends' })).toBeVisible()
  await other.close()
})

test('the library tells components from shared sections, duplicates one, and finds what stands nowhere', async ({
  page,
  app,
}) => {
  await page.goto(`${app.editor}/library`)
  await page.getByRole('button', { name: /^Components [0-9]/ }).click()
  await page.getByRole('button', { name: /^Sky card\./ }).click()
  const side = page.getByRole('complementary', { name: 'Selected part' })
  await side.getByRole('button', { name: 'Duplicate' }).press('Enter')
  await expect(page.getByText('Made “Sky card (copy)”, with nothing on any page yet.')).toBeVisible()
  await page.getByRole('button', { name: /^Unused [0-9]/ }).click()
  await page.getByRole('button', { name: /^Sky card \(copy\)\./ }).click()
  await expect(side.getByText('Not used on any page.')).toBeVisible()
  await noFindings(page)
  await side.getByRole('button', { name: 'Delete component' }).click()
  await expect(page.getByText('Deleted the component “Sky card (copy)”', { exact: false })).toBeVisible()
})

test('a component is copied to another site without a file, and what was the same there stays', async ({
  page,
  app,
}) => {
  const site = await addSite(page, app, 'Owls of the moor')
  await page.goto(`${app.editor}/library`)
  await page.getByRole('button', { name: /^Components/ }).click()
  await page.getByRole('button', { name: /^Event card/ }).click()
  const part = page.getByRole('complementary', { name: 'Selected part' })
  const dialog = page.getByRole('dialog', { name: 'Copy to another site' })
  const copy = async (): Promise<void> => {
    await part.getByRole('button', { name: 'Copy to another site…' }).press('Enter')
    await dialog.getByRole('combobox', { name: 'To the site' }).selectOption('Owls of the moor')
    await dialog.getByRole('button', { name: 'Show what would come' }).press('Enter')
  }
  await copy()
  await expect(dialog.getByText('Event card', { exact: true })).toBeVisible()
  await noFindings(page)
  await dialog.getByRole('button', { name: 'Copy', exact: true }).press('Enter')
  await expect(dialog.getByText(/On “Owls of the moor”: .* added/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).press('Enter')
  const there = async () => ask<SavedPart[]>(page.context(), `${apiOf(site)}/parts`)
  expect((await there()).map(({ name }) => name)).toContain('Event card')
  const before = await there()

  // Once more: it is there already, and stays as it is.
  await copy()
  await expect(dialog.getByRole('combobox', { name: 'What to do with Event card' })).toHaveValue('mine')
  await dialog.getByRole('button', { name: 'Copy', exact: true }).press('Enter')
  await expect(dialog.getByText(/stayed as they were here/)).toBeVisible()
  expect(await there()).toEqual(before)
})
