/** Parts of pictures in every frame that kinds give them, as Chromium lays them out: random parts, three widths. */
import fc from 'fast-check'
import {
  defaultRegistry as registry,
  getKind,
  newNode,
  renderPage,
  type Crop,
  type PageNode,
} from '@gullyline/core'
import { contactSheet } from './contact-sheet.ts'
import { expect, test } from './app.ts'
import { promised } from './source-sizes.ts'

test.use({ isTabKept: false })

const SHAPE = 1.5
const RATIOS = ['1/1', '4/3', '3/2', '16/9'] as const

interface Case {
  readonly crop: Crop
  readonly focus?: { readonly x: number; readonly y: number }
  /** Width over height; without it, the part has a frame of its own shape. */
  readonly frame?: number
  /** The whole part is in the frame, and does not fill it. */
  readonly isWhole?: boolean
}

const anyCrop = fc
  .tuple(
    fc.integer({ min: 8, max: 100 }),
    fc.integer({ min: 8, max: 100 }),
    fc.double({ min: 0, max: 1, noNaN: true }),
  )
  .map(([width, height, at]) => ({
    x: (100 - width) * at,
    y: (100 - height) * at ** 2,
    width,
    height,
    shape: SHAPE,
  }))
const percent = fc.integer({ min: 0, max: 100 })
const anyUse = fc.record(
  { crop: anyCrop, focus: fc.record({ x: percent, y: percent }) },
  { requiredKeys: ['crop'] },
)

/** A page with one block of each framing kind for each of many parts, and what each picture, by number, is to show. */
function croppedPage() {
  const cases: Case[] = []
  const nodes: Record<string, PageNode> = {}
  const put = (kind: string, more: Partial<PageNode>): string => {
    const id = `n${Object.keys(nodes).length}`
    nodes[id] = newNode(getKind(registry, kind), more)
    return id
  }
  const shape = (ratio: string): number => {
    const [width, height] = ratio.split('/').map(Number)
    return width! / height!
  }
  const media = (use: Omit<Case, 'frame'>, frame?: string, isWhole = false) => {
    const { crop, focus } = use
    cases.push({ crop, ...(focus ? { focus } : {}), ...(frame ? { frame: shape(frame), isWhole } : {}) })
    return { id: `pic${cases.length - 1}`, crop: { ...crop }, ...(focus ? { focus: { ...focus } } : {}) }
  }
  const blocks = fc.sample(anyUse, { numRuns: 12, seed: 20261125 }).flatMap((use, i) => {
    const ratio = RATIOS[i % RATIOS.length]!
    const sized = { base: { ratio } }
    return [
      put('picture', { content: { media: media(use) } }),
      put('picture', { content: { media: media(use, ratio) }, sizes: sized }),
      put('picture', {
        content: { media: media(use, ratio, true) },
        sizes: { base: { ratio, fit: 'contain' } },
      }),
      put('gallery', {
        slots: {
          pictures: [
            put('picture', { content: { media: media(use, ratio) } }),
            put('picture', { content: { media: media(use, ratio) }, sizes: { base: { ratio: '5/2' } } }),
          ],
        },
        sizes: sized,
      }),
      put('card', { content: { heading: 'A card', level: 3, media: media(use, ratio) }, sizes: sized }),
      put('slides', {
        slots: { slides: [put('slide', { content: { media: media(use, '16/9'), title: 'One' } })] },
      }),
      put('voices', {
        slots: {
          voices: [put('voice', { content: { said: 'Fine', who: 'Ada', media: media(use, '1/1') } })],
        },
      }),
    ]
  })
  const root = put('page', { slots: { sections: [put('section', { slots: { blocks } })] } })
  const { context } = contactSheet()
  const file = (n: number): string => `${context.pictures.pica!.fallback}#${n}`
  const pictures = cases.map((_case, n) => {
    const sources = [{ width: 900, avif: file(n), webp: file(n) }]
    return [`pic${n}`, { ...context.pictures.pica!, id: `pic${n}`, sources, fallback: file(n) }] as const
  })
  const { html } = renderPage(
    { page: { format: 4, root, nodes }, title: 'Parts', description: 'Of pictures' },
    registry,
    { ...context, pictures: Object.fromEntries(pictures) },
    'inline',
  )
  return { cases, html }
}

/** How a picture is laid out: lengths in px, shapes as width over height, the seen part in % of the picture. */
interface Laid {
  readonly n: number
  readonly width: number
  readonly promised: number
  readonly box: number
  readonly holder: number
  readonly x: number
  readonly y: number
  readonly partWidth: number
  readonly partHeight: number
  /** A pixel, in %. */
  readonly pixel: number
}

function faultsOf(shown: Laid, { crop, focus, frame, isWhole }: Case) {
  const own = (crop.width * SHAPE) / crop.height
  const boxShape = frame === undefined || isWhole ? own : frame
  const axes = [
    { from: crop.x, length: crop.width, at: shown.x, seen: shown.partWidth, focus: focus?.x },
    { from: crop.y, length: crop.height, at: shown.y, seen: shown.partHeight, focus: focus?.y },
  ]
  const isAll = axes.map(({ length, seen }) => Math.abs(seen - length) <= shown.pixel)
  const isNearest = axes.every(({ from, length, at, seen, focus: point }) => {
    const wanted = (point ?? from + length / 2) - seen / 2
    return Math.abs(at - Math.min(from + length - seen, Math.max(from, wanted))) <= shown.pixel
  })
  const laws = {
    'the box has the shape of its frame': Math.abs(shown.box / boxShape - 1) < 0.04,
    'a whole part stands in a frame': !isWhole || Math.abs(shown.holder / frame! - 1) < 0.02,
    'all of the part is seen in one direction': isAll[0] || isAll[1],
    'all of it is seen in a frame of its shape': boxShape !== own || (isAll[0] && isAll[1]),
    'what is seen is of the part, as near to the focus as can be': isNearest,
    'sizes say how wide it is': Math.abs(shown.width - shown.promised) <= Math.max(1, shown.width / 1000),
  }
  const faults = Object.entries(laws).flatMap(([law, holds]) => (holds ? [] : [law]))
  return { faults, shown, crop, focus, frame, isWhole }
}

const { cases, html } = croppedPage()

for (const width of [1440, 820, 390]) {
  test(`at ${width} px, frames show what of the part is nearest to the focus, and sizes say how wide`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height: 900 })
    await page.addInitScript(`window.promised = ${promised.toString()}`)
    await page.goto('about:blank')
    await page.setContent(html)
    const laid = await page.locator('picture img').evaluateAll((images) =>
      (images as HTMLImageElement[]).map((image) => {
        const { left, top, width, height } = image.getBoundingClientRect()
        const box = image.parentElement!.getBoundingClientRect()
        const holder = image.parentElement!.parentElement!.getBoundingClientRect()
        return {
          n: Number(image.src.split('#').at(-1)),
          width,
          promised: (window as unknown as { promised: (one: HTMLImageElement) => number }).promised(image),
          box: box.width / box.height,
          holder: holder.width / holder.height,
          x: ((box.left - left) / width) * 100,
          y: ((box.top - top) / height) * 100,
          partWidth: (box.width / width) * 100,
          partHeight: (box.height / height) * 100,
          pixel: 100 / Math.min(width, height) + 0.1,
        }
      }),
    )
    expect(laid.map(({ n }) => n).sort((a, b) => a - b)).toEqual(cases.map((_case, n) => n))
    expect(
      laid.map((shown) => faultsOf(shown, cases[shown.n]!)).filter(({ faults }) => faults.length > 0),
    ).toEqual([])
  })
}
