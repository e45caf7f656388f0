/** One person does the whole job once, by what is on the screen. */
import { axeFindings } from './axe.ts'
import { asking, canvasOf, centreOf, drag, expect, openPage, test } from './app.ts'

test.use({ isMeasuring: true })

test('a page is opened, filled, rearranged, looked at, saved, published, and is there after a restart', async ({
  page,
  app,
}) => {
  test.setTimeout(180_000)
  const canvas = await openPage(page, app, 'About')
  const spine = page.getByRole('navigation', { name: 'Spine' })
  // Other tests may have left cards of the same words on this page.
  const section = canvas.locator('section', { hasText: 'What sixty volunteers do' })

  await test.step('the canvas lays a page out by the rules of visitors’ browsers, and runs nothing', async () => {
    const frame = page.locator('iframe[title^="The page,"]')
    expect(await frame.evaluate((one: HTMLIFrameElement) => one.contentDocument?.compatMode)).toBe(
      'CSS1Compat',
    )
    const ran = await frame.evaluate(async (one: HTMLIFrameElement) => {
      const inner = one.contentDocument!
      const told: string[] = []
      Object.assign(one.contentWindow!, { told: (what: string) => told.push(what) })
      const holder = inner.createElement('div')
      holder.innerHTML =
        '<img src="data:," onerror="told(\'handler\')"><a href="javascript:told(\'address\')">.</a>'
      const scripts = ["told('element')", ''].map(
        (text) => inner.createElement('script').appendChild(inner.createTextNode(text)).parentElement!,
      )
      scripts[1]!.setAttribute('src', document.querySelector('script')!.getAttribute('src')!)
      scripts[1]!.addEventListener('load', () => told.push('file'))
      inner.body.append(holder, ...scripts)
      holder.querySelector('a')!.click()
      one.contentWindow!.location.href = "javascript:told('location')"
      await new Promise((resolve) => setTimeout(resolve, 500))
      for (const added of [holder, ...scripts]) added.remove()
      return told
    })
    expect(ran).toEqual([])
  })

  await test.step('add a section from the shelf, below one that is chosen', async () => {
    await spine.getByRole('treeitem', { name: 'How it began' }).click()
    await page.getByRole('button', { name: 'Add to page' }).click()
    await page.getByRole('textbox', { name: 'Search blocks and patterns' }).fill('three')
    await page.getByRole('button', { name: /^Three cards/ }).click()
    await expect(canvas.getByRole('heading', { name: 'Three things to know' })).toBeVisible()
    await expect(page.getByText('1 edit not saved')).toBeVisible()
  })

  await test.step('type into it, on the page itself', async () => {
    await canvas.getByRole('heading', { name: 'Three things to know' }).click()
    await page.keyboard.press('Enter')
    await page.keyboard.press('Control+a')
    await page.keyboard.type('What sixty volunteers do')
    await page.keyboard.press('Escape')
    await expect(canvas.getByRole('heading', { name: 'What sixty volunteers do' })).toBeVisible()
    for (const [prompt, words] of [
      ['First thing', 'Opening'],
      ['Second thing', 'Showing'],
      ['Third thing', 'Closing'],
    ] as const) {
      await asking(section, prompt).dblclick()
      await page.keyboard.type(words)
      await page.keyboard.press('Escape')
    }
    await asking(section, 'Two or three lines on what this is.').first().dblclick()
    await page.keyboard.type('They open the dome.')
    await page.keyboard.press('Control+a')
    await page.keyboard.press('Control+b')
    await page.keyboard.press('Escape')
    await expect(canvas.locator('strong', { hasText: 'They open the dome.' })).toBeVisible()
  })

  await test.step('move it with the keys, undo a mistake, do it again', async () => {
    await spine
      .getByRole('treeitem', { name: /What sixty volunteers do/ })
      .first()
      .click()
    const order = () =>
      canvas
        .locator('main > section')
        .evaluateAll((sections) =>
          sections.map((one) => one.textContent.includes('What sixty volunteers do')),
        )
    const at = (await order()).indexOf(true)
    expect(at).toBeGreaterThan(0)
    await page.keyboard.press('Alt+ArrowUp')
    await expect.poll(async () => (await order()).indexOf(true)).toBe(at - 1)
    await page.keyboard.press('Delete')
    await expect(canvas.getByRole('heading', { name: 'What sixty volunteers do' })).toHaveCount(0)
    await page.keyboard.press('Control+z')
    await expect(canvas.getByRole('heading', { name: 'What sixty volunteers do' })).toBeVisible()
  })

  await test.step('drag a card to another place in its row', async () => {
    const cards = section.locator('.row > .card')
    const before = await cards.evaluateAll((all) => all.map((one) => (one as HTMLElement).dataset.node))
    await section.getByText('They open the dome.').click()
    const from = await centreOf(section.getByText('They open the dome.'))
    const last = await cards.nth(2).boundingBox()
    await drag(page, from, { x: last!.x + last!.width * 0.8, y: last!.y + last!.height / 2 })
    await expect
      .poll(() => cards.evaluateAll((all) => all.map((one) => (one as HTMLElement).dataset.node)))
      .toEqual([before[1], before[2], before[0]])
  })

  await test.step('look at three widths before saving: each frame is as the sizes say', async () => {
    await page.getByRole('button', { name: 'Line-up' }).click()
    const measured: { width: number; cards: number[][]; direction: string }[] = []
    for (const [size, width] of [
      ['narrow', 390],
      ['medium', 820],
      ['wide', 1440],
    ] as const) {
      const frame = page.frameLocator(`iframe[title="The page at ${size}, ${width} pixels wide"]`)
      await expect(frame.getByRole('heading', { name: 'What sixty volunteers do' })).toBeAttached()
      const row = frame.locator('section', { hasText: 'What sixty volunteers do' }).locator('.row').first()
      measured.push(
        await row.evaluate((element) => ({
          width: element.ownerDocument.defaultView!.innerWidth,
          cards: [...element.children].map((child) =>
            [child.getBoundingClientRect().left, child.getBoundingClientRect().top].map(Math.round),
          ),
          direction: getComputedStyle(element).flexDirection,
        })),
      )
    }
    expect(measured.map((one) => one.width)).toEqual([390, 820, 1440])
    expect(measured.map((one) => one.direction)).toEqual(['column', 'row', 'row'])
    const columns = measured.map((one) => new Set(one.cards.map(([left]) => left)).size)
    expect(columns).toEqual([1, 3, 3])
    await page.getByRole('button', { name: 'Back to the page' }).click()
  })

  await test.step('save, publish, and read the live page', async () => {
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'Publish', exact: true }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Publish', exact: true }).click()
    await expect(page.getByRole('link', { name: /\/about\/$/ })).toHaveAttribute('href', `${app.site}/about/`)
  })

  await test.step('server and database are restarted, and all is there', async () => {
    await app.restart()
    const html = await (await fetch(`${app.site}/about/`)).text()
    expect(html.indexOf('What sixty volunteers do')).toBeGreaterThan(-1)
    expect(html.indexOf('What sixty volunteers do')).toBeLessThan(html.indexOf('How it began'))
    expect(html).toContain('<strong>They open the dome.</strong>')
    await openPage(page, app, 'About')
    await expect(canvasOf(page).getByRole('heading', { name: 'What sixty volunteers do' })).toBeVisible()
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  })
})

test('every live page passes axe, at three widths', async ({ page, app }) => {
  for (const path of ['/', '/visit/', '/about/', '/questions/']) {
    for (const width of [390, 820, 1440]) {
      await page.setViewportSize({ width, height: 900 })
      await page.goto(app.site + path)
      expect([path, width, await axeFindings(page)]).toEqual([path, width, []])
    }
  }
})
