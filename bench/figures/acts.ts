import type { Application } from '../application.ts'
import { figureOf, median, type Figure } from '../measure.ts'
import { openBrowser, pressKeys } from './typing.ts'

const PRESSES = 30
const ROUNDS = 2

/**
 * (i) selecting, (j) moving a section and (k) undoing that, on a page of 1,000 blocks: from the key to the next paint,
 * against the same change of the DOM made by hand on a key in the same frame of another tab.
 */
export async function actFigures(app: Application): Promise<Figure[]> {
  const { browser, context } = await openBrowser(app)
  const { id } = await app.makePage(1_000)
  const open = async () => {
    const page = await context.newPage()
    await page.goto(`${app.editor}/pages/${id}`)
    const canvas = page.frameLocator('iframe[title^="The page,"]')
    await canvas.getByRole('heading', { name: 'Heading s1h' }).click()
    await page.keyboard.press('Escape')
    // At rest: what measures the page in one tab would take from what is timed in the other.
    await page.getByText('at 1,601 widths').waitFor({ timeout: 300_000 })
    return page
  }
  const [ours, reference] = [await open(), await open()]
  // By hand: y draws an outline around the section or the one after it, in turns, and has it in view, as selecting them in
  // turns does; x puts the section after the next one, z puts it back.
  await reference.evaluate(() => {
    const frame = document.querySelector<HTMLIFrameElement>('iframe[title^="The page,"]')!
    const section = frame.contentDocument!.querySelectorAll('section')[1]!
    let outlined = section
    frame.contentWindow!.addEventListener('keydown', ({ key }) => {
      if (key === 'y') {
        outlined.style.outline = ''
        outlined = outlined === section ? (section.nextElementSibling as HTMLElement) : section
        outlined.style.outline = '2px solid red'
        outlined.scrollIntoView({ block: 'nearest', inline: 'nearest' })
      }
      if (key === 'x') section.nextElementSibling?.after(section)
      if (key === 'z') section.previousElementSibling?.before(section)
    })
  })
  const times = { select: pair(), move: pair(), undo: pair() }
  for (let round = 0; round < ROUNDS; round++) {
    times.select.ours.push(...(await pressKeys(ours, PRESSES, (i) => (i % 2 ? 'ArrowUp' : 'ArrowDown'))))
    times.select.reference.push(...(await pressKeys(reference, PRESSES, () => 'y')))
    times.move.ours.push(...(await pressKeys(ours, PRESSES, () => 'Alt+ArrowDown')))
    times.move.reference.push(...(await pressKeys(reference, PRESSES, () => 'x')))
    times.undo.ours.push(...(await pressKeys(ours, PRESSES, () => 'Control+z')))
    times.undo.reference.push(...(await pressKeys(reference, PRESSES, () => 'z')))
  }
  await browser.close()
  const figure = (name: string, what: string, { ours: a, reference: b }: ReturnType<typeof pair>): Figure =>
    figureOf(name, 3, `${what} on a page of 1,000 blocks, against the DOM by hand`, {
      ours: median(a),
      reference: median(b),
    })
  return [
    figure('i', 'Selecting', times.select),
    figure('j', 'Moving a section', times.move),
    figure('k', 'Undoing that', times.undo),
  ]
}

function pair(): { ours: number[]; reference: number[] } {
  return { ours: [], reference: [] }
}
