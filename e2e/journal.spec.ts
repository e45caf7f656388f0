import { canvasOf, expect, openPage, otherBrowser, test, untilWhole } from './app.ts'

test('a killed tab loses no edit: the page goes on from the last letter, or drops the edits when told to', async ({
  app,
  browser,
}) => {
  const context = await otherBrowser(browser, app)
  const page = await context.newPage()
  const canvas = await openPage(page, app, 'Questions')
  await canvas.getByRole('heading', { level: 1 }).dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Asked by the li')
  // Closing without running the page's own handlers is what a crash does.
  await page.close({ runBeforeUnload: false })

  const again = await context.newPage()
  await again.goto(`${app.editor}/pages/tmquestions`)
  const question = again.getByRole('alertdialog', { name: 'Unsaved edits from last time' })
  await question.getByRole('button', { name: 'Continue editing' }).click()
  await expect(canvasOf(again).getByRole('heading', { level: 1 })).toHaveText('Asked by the li')
  await expect(again.getByText('1 edit not saved')).toBeVisible()
  await again.keyboard.press('Control+z')
  await expect(canvasOf(again).getByRole('heading', { level: 1 })).not.toHaveText('Asked by the li')
  await again.keyboard.press('Control+Shift+z')
  await again.close({ runBeforeUnload: false })

  const third = await context.newPage()
  await third.goto(`${app.editor}/pages/tmquestions`)
  await third.getByRole('button', { name: 'Discard' }).click()
  await expect(third.getByText('Saved', { exact: true })).toBeVisible()
  await third.reload()
  await expect(third.getByText('Saved', { exact: true })).toBeVisible()
  await context.close()
})

test('a saved page has nothing left in the journal', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Visit')
  await canvas.getByRole('heading', { name: 'What to bring' }).click()
  await page.keyboard.press('Alt+ArrowDown')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(canvasOf(page).getByRole('heading', { name: 'What to bring' })).toBeAttached()
  await expect(page.getByRole('alertdialog')).toHaveCount(0)
})

test('without a connection work goes on, is kept here, and catches up when it is back', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Questions')
  const heading = canvas.getByRole('heading', { name: 'Can children come?' })
  await page.context().setOffline(true)
  await heading.dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('May children come?')
  await page.keyboard.press('Escape')
  await expect(page.getByText('Can’t reach the server: draft saved on this device only')).toBeVisible()
  await page.keyboard.press('Control+s')
  await expect(page.getByRole('alert').filter({ hasText: 'Not saved yet, trying again' })).toBeVisible()
  await page.context().setOffline(false)
  // The save that failed is made up for by itself.
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('edits of a browser that is lost are offered in another one: the server has them two seconds later', async ({
  app,
  browser,
}) => {
  const lost = await otherBrowser(browser, app, 'editor')
  const page = await lost.newPage()
  const canvas = await openPage(page, app, 'Questions')
  await canvas.getByRole('heading', { level: 1 }).dblclick()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Written elsewhere')
  await page.waitForTimeout(2_000)
  await lost.close()

  const other = await otherBrowser(browser, app, 'keeper')
  const stranger = await other.newPage()
  await openPage(stranger, app, 'Questions')
  await expect(stranger.getByRole('alertdialog')).toHaveCount(0)
  await other.close()

  const own = await otherBrowser(browser, app, 'editor')
  const again = await own.newPage()
  await again.goto(`${app.editor}/pages/tmquestions`)
  await again.getByRole('button', { name: 'Continue editing' }).click()
  await expect(canvasOf(again).getByRole('heading', { level: 1 })).toHaveText('Written elsewhere')
  await again.keyboard.press('Control+s')
  await expect(again.getByText('Saved', { exact: true })).toBeVisible()
  await again.reload()
  await expect(canvasOf(again).getByRole('heading', { level: 1 })).toHaveText('Written elsewhere')
  await expect(again.getByRole('alertdialog')).toHaveCount(0)
  await own.close()
})

test('a server that dies and comes back loses nothing: the same tab saves as if nothing had been', async ({
  page,
  app,
}) => {
  const canvas = await openPage(page, app, 'Visit')
  await canvas.getByRole('heading', { name: 'What to bring' }).click()
  await page.keyboard.press('Alt+ArrowUp')
  await app.crash()
  await page.keyboard.press('Alt+ArrowDown')
  await page.keyboard.press('Alt+ArrowDown')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('two tabs of one person keep their edits apart', async ({ page, app }) => {
  const second = await page.context().newPage()
  const first = await openPage(page, app, 'Visit')
  const other = await openPage(second, app, 'Visit')
  await first.getByRole('heading', { name: 'What to bring' }).click()
  await page.keyboard.press('Delete')
  await expect(page.getByText('1 edit not saved')).toBeVisible()
  await other.getByRole('heading', { name: 'Getting here' }).click()
  await second.keyboard.press('Delete')
  await expect(other.getByRole('heading', { name: 'Getting here' })).toHaveCount(0)
  await second.close({ runBeforeUnload: false })
  // The browser lets go of what a closed tab held a moment later.
  const tabs = () =>
    page.evaluate(async () => {
      const { held = [] } = await navigator.locks.query()
      return held.filter(({ name }) => name?.startsWith('gullyline.tab.')).length
    })
  await expect.poll(tabs).toBe(1)
  page.on('dialog', (dialog) => void dialog.accept())
  await page.reload()
  // Its own edit is offered first or second, never mixed with the other's.
  const question = page.getByRole('alertdialog', { name: 'Unsaved edits from last time' })
  await expect(question.getByText(/^One edit/)).toBeVisible()
  await question.getByRole('button', { name: 'Discard' }).click()
  await expect(question.getByText(/^One edit/)).toBeVisible()
  await question.getByRole('button', { name: 'Discard' }).click()
  await expect(canvasOf(page).getByRole('heading', { name: 'Getting here' })).toBeAttached()
  await page.reload()
  await untilWhole(page)
  await expect(page.getByRole('alertdialog')).toHaveCount(0)
})

test('a list that can’t be had again after a save takes nothing off the screen', async ({ page, app }) => {
  const canvas = await openPage(page, app, 'Questions')
  await canvas.getByRole('heading', { name: 'Do you take schools?' }).click()
  await page.keyboard.press('Alt+Shift+ArrowDown')
  await page.route('**/api/sites/tarrowmoor/page-list*', (route) => route.abort())
  const refused = page.waitForEvent('requestfailed', (request) =>
    request.url().includes('/api/sites/tarrowmoor/page-list'),
  )
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await refused
  // What was shown before the answer came would pass unnoticed: an act has to go through after it.
  await page.keyboard.press('Delete')
  await expect(page.getByText('1 edit not saved')).toBeVisible()
  await expect(canvas.getByRole('heading', { name: 'Do you take schools?' })).toHaveCount(1)
  await page.keyboard.press('Control+s')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})
