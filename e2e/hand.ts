/** Everyday jobs as a hand does them, with every act counted. */
import type { FrameLocator, Locator, Page } from '@playwright/test'
import { asking, canvasOf, expect, type App } from './app.ts'
import { addPage } from './building.ts'

/** Acts of the hand. Text typed in one go is one; a choice from a native list is two, opening it and choosing. */
export class Hand {
  count = 0
  readonly page: Page

  constructor(page: Page) {
    this.page = page
  }

  async click(locator: Locator): Promise<void> {
    this.count++
    await locator.click()
  }

  async clickTwice(locator: Locator): Promise<void> {
    this.count++
    await locator.dblclick()
  }

  async type(text: string): Promise<void> {
    this.count++
    await this.page.keyboard.type(text)
  }

  async press(...keys: readonly string[]): Promise<void> {
    this.count += keys.length
    for (const key of keys) await this.page.keyboard.press(key)
  }

  async choose(locator: Locator, label: string): Promise<void> {
    this.count += 2
    await locator.selectOption({ label })
  }

  /** Presses a button of the editor by its name. */
  async button(name: string | RegExp, within: Page | Locator = this.page): Promise<void> {
    await this.click(
      within.getByRole('button', { name, ...(typeof name === 'string' ? { exact: true } : {}) }),
    )
  }

  /** Places something from the shelf, opened by the button on the bar. */
  async place(name: RegExp): Promise<void> {
    await this.button('Add to page')
    await this.button(name, this.page.getByRole('region', { name: 'Shelf' }))
  }

  /** Places something from the shelf, found by typing. */
  async placeByKeys(name: string): Promise<void> {
    await this.press('Control+Enter')
    await this.type(name)
    await this.press('Enter')
    // Nobody goes on before the block is there: on a slow machine the shelf itself may not have come yet.
    await expect(
      this.page.getByRole('status').filter({ hasText: `Added ${name.toLowerCase()}` }),
    ).toBeVisible()
    await expect(this.page.getByRole('region', { name: 'Shelf' })).toHaveCount(0)
  }

  async picture(name: RegExp): Promise<void> {
    await this.button('Picture: choose')
    await this.button(name, this.page.getByRole('dialog'))
  }

  /** Types over what a block asks for. */
  async fill(canvas: FrameLocator, prompt: string, text: string): Promise<void> {
    await this.clickTwice(asking(canvas, prompt).first())
    await this.type(text)
  }
}

/** A blank page, whose making is not counted. */
export async function blank(page: Page, app: App, title: string) {
  await addPage(page, app, title, 'blank')
  return { hand: new Hand(page), canvas: canvasOf(page) }
}

export const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible()
export const pathTo = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Path to the selected block' }).getByRole('button', { name })

/** What the job of writing ends with: a heading, a quote, bold words and a link. */
export async function expectWritten(canvas: FrameLocator): Promise<void> {
  await expect(canvas.getByRole('heading', { level: 2, name: 'Opening hours' })).toBeVisible()
  await expect(canvas.locator('blockquote')).toHaveText('Come early.')
  const text = canvas.getByRole('main').locator('.text')
  await expect(text.locator('strong')).toHaveText('dusk')
  await expect(text.locator('a')).toHaveText('Friday')
}
