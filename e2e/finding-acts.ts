/** Finds acts by their names, as a person does who does not know the key. */
import type { Page } from '@playwright/test'
import { expect } from './app.ts'

/** Finds an act in the search and does it, all by keys. */
export async function bySearch(page: Page, act: string): Promise<void> {
  const field = page.getByRole('searchbox', { name: 'Search everything' })
  await page.keyboard.press('Control+Shift+Enter')
  await expect(field).toBeFocused()
  await page.keyboard.type(act.toLowerCase())
  await expect(page.getByRole('menuitem').first()).toHaveAccessibleName(new RegExp(`^${act}`))
  await page.keyboard.press('Enter')
  await expect(field).toBeHidden()
}
