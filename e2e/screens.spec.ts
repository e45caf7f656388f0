/** Every screen of the interface: it passes axe in light and in dark, and has no label that was replaced because it had to be read twice. */
import type { Page } from '@playwright/test'
import { oldLabelsAmong } from '../core/test/old-labels.ts'
import { axeFindings } from './axe.ts'
import { canvasOf, expect, openPage, test, type App } from './app.ts'

interface Screen {
  readonly name: string
  /** Brings it up from the one before. */
  readonly show: () => Promise<unknown>
  /** What axe judges of it: all of it, or its dialog alone where what that stands on was judged before. */
  readonly judged?: 'all' | 'dialog'
}

/** A screen with an address of its own. */
function placed(page: Page, app: App, path: string, title: string): Screen {
  return {
    name: path,
    judged: 'all',
    show: async () => {
      await page.goto(app.editor + path)
      await page.getByRole('heading', { level: 1, name: title }).waitFor()
    },
  }
}

function screens(page: Page, app: App): readonly Screen[] {
  return [
    placed(page, app, '/', 'Pages'),
    {
      name: 'adding a page',
      judged: 'dialog',
      show: async () => {
        await page.getByRole('button', { name: 'Add page' }).click()
        await page.getByRole('dialog', { name: 'Add page' }).waitFor()
      },
    },
    {
      name: 'account',
      judged: 'dialog',
      show: async () => {
        await page.keyboard.press('Escape')
        await page.getByRole('button', { name: /^You are / }).click()
        await page.getByRole('dialog').waitFor()
      },
    },
    {
      name: 'acts on a page',
      show: async () => {
        await page.keyboard.press('Escape')
        await page.getByRole('button', { name: 'More actions: Visit' }).click()
        await page.getByRole('menuitem').first().waitFor()
      },
    },
    placed(page, app, '/media-library', 'Media'),
    {
      ...placed(page, app, '/media-library?show=files', 'Media'),
      show: async () => {
        await page.goto(`${app.editor}/media-library?show=files`)
        await page.getByRole('row', { name: /open-nights\.ics/ }).waitFor()
      },
    },
    placed(page, app, '/navigation', 'Navigation'),
    placed(page, app, '/settings', 'Settings'),
    placed(page, app, '/sites-and-people', 'Sites and people'),
    placed(page, app, '/bin', 'Bin'),
    placed(page, app, '/help', 'Help'),
    ...editorScreens(page, app),
  ]
}

/** How a block of each of these kinds comes to be selected on the page "Visit". */
const SELECTED: Readonly<Record<string, (page: Page) => Promise<unknown>>> = {
  Section: (page) => page.getByRole('treeitem', { name: 'Section: What to bring' }).click(),
  Text: (page) => canvasOf(page).getByText('Come as you are, but come warm.').click(),
  Picture: (page) => canvasOf(page).getByRole('img', { name: 'Visitors standing on the ridge' }).click(),
  Button: (page) => canvasOf(page).getByRole('link', { name: 'Ask for a place' }).click(),
  Row: async (page) => {
    await canvasOf(page).getByRole('heading', { name: 'Opening hours' }).click()
    // Escape selects the parent, and then the parent of that.
    await page.keyboard.press('Escape')
    await page.keyboard.press('Escape')
  },
}

function editorScreens(page: Page, app: App): readonly Screen[] {
  const heading = () => canvasOf(page).getByRole('heading', { name: 'Opening hours' })
  return [
    {
      name: 'editor',
      judged: 'all',
      show: async () => {
        await openPage(page, app, 'Visit')
        await heading().click()
      },
    },
    ...Object.entries(SELECTED).map(([kind, select]) => ({
      name: `details of ${kind}`,
      show: async () => {
        await select(page)
        const details = page.getByRole('complementary', { name: 'Details' })
        await expect(details.getByRole('heading', { level: 2, name: new RegExp(`^${kind} `) })).toBeVisible()
      },
    })),
    {
      name: 'text being typed',
      show: async () => {
        await canvasOf(page).locator('main .text p').first().dblclick()
        await page.getByRole('toolbar', { name: 'Text formatting' }).waitFor()
      },
    },
    {
      name: 'search',
      judged: 'dialog',
      show: async () => {
        await page.keyboard.press('Escape')
        await page.keyboard.press('Control+Shift+Enter')
        await page.getByRole('dialog', { name: 'Search everything' }).waitFor()
      },
    },
    {
      name: 'publishing',
      judged: 'dialog',
      show: async () => {
        await page.keyboard.press('Escape')
        await page.getByRole('button', { name: 'Publish', exact: true }).click()
        await page.getByRole('dialog').waitFor()
      },
    },
    {
      name: 'problems',
      judged: 'all',
      show: async () => {
        await page.keyboard.press('Escape')
        await heading().click()
        await page.getByLabel('Text', { exact: true }).fill('')
        await page.keyboard.press('Enter')
        await page.getByRole('button', { name: /\d problem/ }).click()
      },
    },
    {
      name: 'shelf',
      judged: 'all',
      show: async () => {
        await page.keyboard.press('Escape')
        await page.getByRole('button', { name: 'Add to page' }).click()
      },
    },
    {
      name: 'line-up',
      judged: 'all',
      show: async () => {
        await page.keyboard.press('Escape')
        await page.getByRole('button', { name: 'Line-up' }).click()
      },
    },
  ]
}

/** Every name and text of the accessibility tree, apart from what stands on the page in the canvas. */
async function labelsOn(page: Page): Promise<string[]> {
  const tree = await page.locator('body').ariaSnapshot()
  return tree.split('\n').flatMap((line) => {
    const named = [...line.matchAll(/"((?:[^"\\]|\\.)*)"/g)].map(([, name]) => name!)
    const [, text] = /^\s*- (?:text|paragraph|option|status)[^:]*: (.*)$/.exec(line) ?? []
    return [...named, ...(text === undefined ? [] : [text])]
  })
}

async function expectAccessible(page: Page, { name, judged }: Screen): Promise<void> {
  const within = judged === 'dialog' ? { within: '[role="dialog"]' } : {}
  // "region" is a practice and no rule of WCAG; a popover's hidden way out, which React Aria puts beside its dialog, is no content.
  const except = name === 'problems' ? ['region'] : []
  expect([name, await axeFindings(page, { ...within, except })]).toEqual([name, []])
  // Nothing but colours differs between the two.
  await page.emulateMedia({ colorScheme: 'dark' })
  const inDark = await axeFindings(page, { ...within, rules: ['color-contrast'] })
  expect([name, 'dark', inDark]).toEqual([name, 'dark', []])
  await page.emulateMedia({ colorScheme: 'light' })
}

test('every screen passes axe in light and in dark, and has no label that was replaced', async ({
  page,
  app,
}) => {
  test.slow()
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' })
  const seen = new Set<string>()
  for (const screen of screens(page, app)) {
    await screen.show()
    await page.waitForTimeout(300)
    const labels = await labelsOn(page)
    expect([screen.name, oldLabelsAmong(labels)]).toEqual([screen.name, []])
    for (const label of labels) seen.add(label)
    if (screen.judged) await expectAccessible(page, screen)
  }
  // What was walked is the interface, and not a blank screen.
  for (const label of ['Search everything', 'Wrap in row', 'Heading level', 'Add page', 'Space above'])
    expect([...seen].some((one) => one.startsWith(label))).toBe(true)
})
