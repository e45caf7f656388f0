/** Text is edited in any of the widths side by side, by mouse and by keyboard. */
import { canvasOf, expect, test } from './app.ts'
import { expectSaved, makePage } from './shared-pages.ts'

test('what is typed at one width stands at all of them, is saved, and can be undone', async ({
  page,
  app,
}) => {
  await page.goto(`${app.editor}/pages/${await makePage(page.context(), app, 'Three widths')}`)
  await expect(canvasOf(page).getByRole('heading', { level: 1 })).toBeVisible()
  await page.keyboard.press('Control+Shift+L')
  const at = (size: string) => page.frameLocator(`iframe[title^="The page at ${size},"]`)
  const sizes = ['narrow', 'medium', 'wide']
  const expectTitle = async (words: string): Promise<void> => {
    for (const size of sizes)
      await expect(at(size).locator('h1, [role=textbox]').first(), size).toHaveText(words)
  }
  await expectTitle('Three widths')

  // By mouse, on the word that is pressed.
  await at('narrow')
    .getByRole('heading', { level: 1 })
    .dblclick({ position: { x: 30, y: 12 } })
  await expect(at('narrow').getByRole('textbox')).toBeFocused()
  for (const size of ['medium', 'wide']) await expect(at(size).getByRole('textbox')).toBeHidden()
  await page.keyboard.type('Four')
  await expectTitle('Four widths')
  // Emptied, it stays where it is being typed in, though visitors would get nothing of it.
  await page.keyboard.press('Control+A')
  await page.keyboard.press('Backspace')
  await expect(at('narrow').getByRole('textbox')).toBeFocused()
  await page.keyboard.type('Any width')
  await expectTitle('Any width')
  await page.keyboard.press('Control+s')
  await expectSaved(page)
  await page.keyboard.type('!')
  await expectTitle('Any width!')

  // Another screen is gone to by a press there.
  await at('wide').getByRole('heading', { level: 2 }).dblclick()
  await expect(at('wide').getByRole('textbox')).toBeFocused()
  await page.keyboard.press('End')
  await page.keyboard.type(' to see')
  for (const size of ['narrow', 'medium'])
    await expect(at(size).getByRole('heading', { level: 2 })).toHaveText('More here to see')
  await page.keyboard.press('Escape')
  await expect(at('wide').getByRole('textbox')).toBeHidden()

  // By keyboard: the selection goes from block to block, and Enter types.
  await page.keyboard.press('Enter')
  await page.keyboard.press('End')
  await page.keyboard.type('.')
  await expect(at('narrow').getByRole('heading', { level: 2 })).toHaveText('More here to see.')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(at('narrow').getByRole('heading', { level: 2 })).not.toHaveText('More here to see.')
  await page.keyboard.press('Control+Shift+L')
  await expect(canvasOf(page).getByRole('heading', { level: 1 })).toHaveText('Any width!')
  await expect(canvasOf(page).getByRole('textbox')).toBeHidden()
})
