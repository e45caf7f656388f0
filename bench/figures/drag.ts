import type { Page } from '@playwright/test'
import type { Application, MadePage } from '../application.ts'
import { figureOf, median, type Figure } from '../measure.ts'
import { gridOf } from '../thousand-nodes.ts'
import { openBrowser } from './typing.ts'

const DRAG_MS = 2_000
const ROUNDS = 3
const STONES = 200

/**
 * (l), (B): frames painted in two seconds while a block is dragged over a page of 1,000 and of 3,000 blocks, (L): over a
 * grid section of 200, each against the same page at rest. At least 55 of 60 have to come.
 */
export async function dragFigures(app: Application): Promise<Figure[]> {
  const figures: Figure[] = []
  for (const [figure, blocks] of [
    ['l', 1_000],
    ['B', 3_000],
  ] as const)
    figures.push(
      await dragFigure(app, figure, {
        made: await app.makePage(blocks),
        dragged: 'Heading s1h',
        where: `a page of ${blocks} blocks`,
      }),
    )
  const made = await app.makePage(STONES, gridOf)
  figures.push(
    await dragFigure(app, 'L', { made, dragged: 'Stone 5', where: `a grid section of ${STONES} blocks` }),
  )
  return figures
}

interface Dragged {
  readonly made: MadePage
  /** The heading that is dragged. */
  readonly dragged: string
  readonly where: string
}

async function dragFigure(
  app: Application,
  figure: string,
  { made, dragged, where }: Dragged,
): Promise<Figure> {
  const { browser, context } = await openBrowser(app)
  const page = await context.newPage()
  await page.goto(`${app.editor}/pages/${made.id}`)
  const heading = page
    .frameLocator('iframe[title^="The page,"]')
    .getByRole('heading', { name: dragged, exact: true })
  await heading.click()
  const box = (await heading.boundingBox())!
  const start = { x: box.x + 20, y: box.y + box.height / 2 }
  const counts = { dragging: [] as number[], resting: [] as number[] }
  // First, while the page is still to be measured.
  for (let round = 0; round < ROUNDS; round++) {
    await page.mouse.move(start.x, start.y)
    await page.mouse.down()
    counts.dragging.push(await framesWhile(page, () => wander(page, start)))
    await page.keyboard.press('Escape')
    await page.mouse.up()
  }
  // At rest nothing is measured: a large page takes minutes until it is.
  await page.evaluate(() => localStorage.setItem('gullyline.measuring', 'off'))
  await page.reload()
  await heading.waitFor()
  for (let round = 0; round < ROUNDS; round++)
    counts.resting.push(await framesWhile(page, () => page.waitForTimeout(DRAG_MS)))
  await browser.close()
  // As time for a frame, so that more is worse, as in every other figure.
  const each = (frames: readonly number[]): number => DRAG_MS / median(frames)
  const what = `A frame while dragging on ${where}, against the page at rest`
  return figureOf(figure, 60 / 55, what, { ours: each(counts.dragging), reference: each(counts.resting) })
}

/** Moves the pointer over the page as a hand does, until the time is over. */
async function wander(page: Page, { x, y }: { x: number; y: number }): Promise<void> {
  const until = Date.now() + DRAG_MS
  for (let step = 0; Date.now() < until; step++) {
    await page.mouse.move(x + 200 * Math.sin(step / 20), y + 150 * Math.sin(step / 33))
    await page.waitForTimeout(8)
  }
}

/** Frames painted in DRAG_MS, counted from when `act` begins. */
async function framesWhile(page: Page, act: () => Promise<void>): Promise<number> {
  const counting = page.evaluate(
    (ms) =>
      new Promise<number>((resolve) => {
        let frames = 0
        const begin = performance.now()
        const next = (now: number): void => {
          if (now - begin > ms) return resolve(frames)
          frames++
          requestAnimationFrame(next)
        }
        requestAnimationFrame(next)
      }),
    DRAG_MS,
  )
  await act()
  return counting
}
