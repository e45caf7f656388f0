/**
 * What visitors get, against the outside world: the keyboard tables of the ARIA Authoring Practices for tabs, folding
 * parts, menu and slides (https://www.w3.org/WAI/ARIA/apg/patterns/, read from memory, without a copy at hand), and the
 * `sizes` of every picture against the box that Chromium lays it out in.
 */
import { promised } from './source-sizes.ts'
import { expect, test } from './app.ts'
import { noFindings } from './axe.ts'

test.use({ isTabKept: false })

test('tabs go by arrow keys, Home and End, and Tab leads on into the panel', async ({ page, app }) => {
  await page.goto(`${app.site}/instruments/`)
  const tab = (name: string) => page.getByRole('tab', { name })
  await expect(tab('With your eyes')).toHaveAttribute('aria-selected', 'true')
  await tab('With your eyes').focus()
  for (const [key, name] of [
    ['ArrowRight', 'With field glasses'],
    ['ArrowRight', 'With a telescope'],
    ['ArrowRight', 'With your eyes'],
    ['ArrowLeft', 'With a telescope'],
    ['Home', 'With your eyes'],
    ['End', 'With a telescope'],
  ] as const) {
    await page.keyboard.press(key)
    await expect(tab(name)).toBeFocused()
    await expect(tab(name)).toHaveAttribute('aria-selected', 'true')
    await expect(page.getByRole('tabpanel', { name })).toBeVisible()
    await expect(page.getByRole('tabpanel')).toHaveCount(1)
  }
  await expect(page.locator('[role=tab][tabindex="0"]')).toHaveCount(1)
  await page.keyboard.press('Tab')
  await expect(page.getByRole('tabpanel', { name: 'With a telescope' })).toBeFocused()
  await noFindings(page)
})

test('slides stand still, go on and back by their buttons, and stop as soon as somebody looks closer', async ({
  page,
  app,
}) => {
  await page.goto(`${app.site}/instruments/`)
  const slides = page.getByRole('region', { name: 'Seen through our instruments', exact: true })
  const list = slides.getByRole('list')
  const left = () => list.evaluate((one) => one.scrollLeft)
  await expect(slides).toHaveAttribute('aria-roledescription', 'carousel')
  await slides.getByRole('button', { name: 'Next' }).press('Enter')
  await expect.poll(left).toBeGreaterThan(100)
  await expect(slides.getByText('2 to 3 / 3')).toBeVisible()
  await slides.getByRole('button', { name: 'Back' }).press('Space')
  await expect.poll(left).toBe(0)
  await page.waitForTimeout(1200)
  expect(await left()).toBe(0)
  await slides.getByRole('button', { name: 'Start' }).click()
  await expect(list).toHaveAttribute('aria-live', 'off')
  await list.focus()
  await expect(slides.getByRole('button', { name: 'Start' })).toBeVisible()
  await expect(list).toHaveAttribute('aria-live', 'polite')
})

test('without a script tabs are parts that fold, one open at a time, and slides are scrolled', async ({
  app,
  browser,
}) => {
  const context = await browser.newContext({ javaScriptEnabled: false })
  const page = await context.newPage()
  await page.goto(`${app.site}/instruments/`)
  await expect(page.getByText('Nothing beats a dark sky')).toBeVisible()
  await page.getByText('With field glasses').click()
  await expect(page.getByText('We lend them at the gate.')).toBeVisible()
  await expect(page.getByText('Nothing beats a dark sky')).toBeHidden()
  await context.close()
})

test('folding parts open by Enter and Space and say so; only pages with tabs or slides carry a script', async ({
  page,
  app,
}) => {
  await page.goto(`${app.site}/instruments/radio-dish/`)
  await expect(page.getByText('The Sun, Jupiter’s storms')).toBeVisible()
  await page.locator('summary').nth(1).press('Enter')
  await expect(page.getByText('Yes, on Saturdays.')).toBeVisible()
  await page.locator('summary').nth(1).press('Space')
  await expect(page.getByText('Yes, on Saturdays.')).toBeHidden()
  await noFindings(page)
  for (const path of ['/', '/visit/', '/about/', '/questions/', '/open-nights/', '/news/', '/friend/'])
    expect([path, (await (await fetch(app.site + path)).text()).includes('<script')]).toEqual([path, false])
})

test('the menu is a line where there is room, and behind a button where there is not; Escape closes it', async ({
  page,
  app,
}) => {
  await page.goto(`${app.site}/visit/`)
  const menu = page.getByRole('navigation', { name: 'Site' })
  // At the foot of the page there is room for all links.
  const foot = page.getByRole('navigation', { name: 'All pages' }).getByRole('link', { name: 'Instruments' })
  await expect(menu.getByRole('link', { name: 'Instruments' })).toBeVisible()
  await expect(menu.getByRole('button', { name: 'Menu' })).toBeHidden()
  await page.setViewportSize({ width: 390, height: 800 })
  await expect(menu.getByRole('link', { name: 'Instruments' })).toBeHidden()
  await expect(foot).toBeVisible()
  await menu.getByRole('button', { name: 'Menu' }).press('Enter')
  await expect(menu.getByRole('link', { name: 'Instruments' })).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(menu.getByRole('link', { name: 'Visit' })).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(menu.getByRole('link', { name: 'Instruments' })).toBeHidden()
  await expect(menu.getByRole('button', { name: 'Menu' })).toBeFocused()
})

for (const width of [1440, 820, 390]) {
  test(`at ${width} px every picture is as wide as its sizes say, to one pixel`, async ({ page, app }) => {
    await page.setViewportSize({ width, height: 900 })
    await page.addInitScript(`window.promised = ${promised.toString()}`)
    const wrong: unknown[] = []
    for (const path of [
      '/',
      '/visit/',
      '/about/',
      '/open-nights/',
      '/instruments/',
      '/instruments/big-telescope/',
      '/news/comet/',
      '/friend/',
    ]) {
      await page.goto(app.site + path)
      const found = await page.locator('picture:has(source) img').evaluateAll((images) =>
        (images as HTMLImageElement[]).map((image) => ({
          src: image.currentSrc || image.src,
          laid: image.getBoundingClientRect().width,
          promised: (window as unknown as { promised: (one: HTMLImageElement) => number }).promised(image),
        })),
      )
      wrong.push(
        ...found.filter((one) => Math.abs(one.laid - one.promised) > 1).map((one) => ({ path, ...one })),
      )
    }
    expect(wrong).toEqual([])
  })
}
