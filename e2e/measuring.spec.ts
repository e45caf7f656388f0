/**
 * What is wrong at which widths, for layouts whose arithmetic can be done by hand: each range must be found to the px, none
 * missed and none invented. The advance of a letter is taken from the Canvas API ("measureText"), which lays nothing out.
 */
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Browser } from '@playwright/test'
import { sweepInChromium } from '@gullyline/measuring/chromium'
import { RULES, type Gully } from '@gullyline/core'
import { examplePackage } from '@gullyline/demo'
import { runCli } from '../cli/src/main.ts'
import { EVEN_FACE, EVEN_FONT } from './even-font.ts'

type Expected = readonly [rule: string, from: number, to: number]
interface Case {
  readonly name: string
  readonly html: string
  readonly expected: readonly Expected[]
  /** The rules that are asked about, where others find something as well. */
  readonly rules?: readonly string[]
}

const NARROWEST = 320
const WIDEST = 1920
const BOUNDS = [720, 1200]
/** The widest screen narrower than a width, and the narrowest that is wider. */
const below = (width: number): number => Math.ceil(width) - 1
const above = (width: number): number => Math.floor(width) + 1

const SIZE = 20
const STYLE = `
${EVEN_FACE}
*{box-sizing:border-box}
body{margin:0;font:${SIZE / 16}rem/1.5 Even;font-synthesis:none}
section{position:relative;min-height:40px}
h2,p{margin:0;font:inherit}
button{appearance:none;border:0;padding:0;margin:0;width:20px;height:20px;font:inherit}
.flex{display:flex} .wrap{display:flex;flex-wrap:wrap} .line{white-space:nowrap}
@media(width<720px){.wide-only{display:none}.narrow-reverse{flex-direction:row-reverse}.narrow-tall{height:1000px!important}}
@media(width>=1200px){.wide-up{flex-direction:column-reverse}}
`

const box = (width: string, more = ''): string => `<div style="width:${width};height:30px;${more}"></div>`

/** Boxes of fixed and proportional widths. */
const BOXES: readonly Case[] = [
  ...[400, 500, 641, 719, 720, 721, 1199, 1200, 1919].map((width) => ({
    name: `a box of ${width} px`,
    html: box(`${width}px`),
    expected: [['sideways', NARROWEST, below(width)]] as const,
  })),
  { name: 'a box that fits', html: box('300px'), expected: [] },
  {
    name: 'a box in a padded section',
    html: `<div style="padding:0 20px">${box('500px')}</div>`,
    // Beyond its place it stays on the page for the width of the padding.
    expected: [
      ['sideways', NARROWEST, 519],
      ['fixed-width', 520, 538],
    ],
  },
  {
    name: 'a box of half the screen and 300 px',
    html: box('calc(50vw + 300px)'),
    expected: [['sideways', NARROWEST, below(599)]],
  },
  {
    name: 'a box left of the page',
    html: box('50px', 'margin-left:-10px'),
    expected: [['sideways', NARROWEST, WIDEST]],
  },
  {
    name: 'a box at a fixed place',
    html: box('100px', 'position:absolute;left:700px'),
    expected: [['sideways', NARROWEST, 799]],
  },
  { name: 'a box that is cut off', html: `<div style="overflow:hidden">${box('900px')}</div>`, expected: [] },
  {
    name: 'a box that is scrolled',
    html: `<div style="overflow-x:auto">${box('900px')}</div>`,
    expected: [],
  },
  ...[300, 450, 600].map((width) => ({
    name: `a box of ${width} px in half of the page`,
    html: `<div style="width:50%">${box(`${width}px`)}</div>`,
    expected: [
      ...(width > NARROWEST ? [['sideways', NARROWEST, below(width - 0.5)] as const] : []),
      ['fixed-width', Math.max(NARROWEST, width), below(2 * (width - 1))] as const,
    ],
  })),
  {
    name: 'a box whose margins take it to the edges of the page on purpose',
    html: `<div style="padding:0 20px"><div style="margin:0 -20px;height:30px"></div></div>`,
    expected: [],
  },
  {
    name: 'a box that stands over the edge of its column',
    html: `<div style="width:50%">${box('100px', 'margin-left:80%')}</div>`,
    expected: [['outside', NARROWEST, below(990)]],
  },
  ...[1, 0.5, 0.25].map((share) => ({
    name: `two small buttons ${share} % of the page apart`,
    html: `<div class="flex" style="gap:${share}vw"><button aria-label="a"></button><button aria-label="b"></button></div>`,
    expected: [['small-target', NARROWEST, Math.min(WIDEST, below(400 / share))] as const],
  })),
  { name: 'one small button', html: '<button aria-label="a"></button>', expected: [] },
  {
    name: 'buttons of 24 px beside each other',
    html: '<div class="flex"><button aria-label="a" style="width:24px;height:24px"></button><button aria-label="b" style="width:24px;height:24px"></button></div>',
    expected: [],
  },
  {
    name: 'four in a row that wraps',
    html: `<div class="wrap">${box('200px').repeat(4)}</div>`,
    expected: [['last-row', 600, 799]],
  },
  {
    name: 'seven in a row that wraps',
    html: `<div class="wrap">${box('100px').repeat(7)}</div>`,
    expected: [
      ['last-row', NARROWEST, 399],
      ['last-row', 600, 699],
    ],
  },
  {
    name: 'five on a grid that fits as many as it can',
    html: `<div style="display:grid;grid-template-columns:repeat(auto-fill,minmax(150px,1fr))">${box('100%').repeat(4)}</div>`,
    expected: [['last-row', 450, 599]],
  },
  {
    name: 'a row that is turned round on narrow screens',
    html: '<div class="flex narrow-reverse" style="gap:30px"><button aria-label="a"></button><button aria-label="b"></button></div>',
    expected: [['focus-order', NARROWEST, 719]],
  },
  {
    name: 'a stack that is turned round on wide screens',
    html: '<div class="flex wide-up" style="gap:30px"><button aria-label="a"></button><button aria-label="b"></button></div>',
    expected: [['focus-order', 1200, WIDEST]],
  },
  {
    name: 'a section that becomes ten times as high',
    html: '<div class="narrow-tall" style="height:100px"></div>',
    expected: [['jump', 719, 720]],
  },
]

const img = (width: number, height: number, style: string, files = ''): string =>
  `<picture>${files}<img src="flat.png" alt="" width="${width}" height="${height}" style="display:block;${style}"></picture>`
const source = (sizes: string): string =>
  `<source srcset="a.webp 400w, b.webp 800w, c.webp 1600w" sizes="${sizes}">`

const PICTURES: readonly Case[] = [
  ...[500, 719, 1200].map((width) => ({
    name: `a picture of ${width} pixels as wide as the page`,
    html: img(width, 100, 'width:100%;height:40px'),
    expected: [['blurred-picture', above(width + 0.5), WIDEST]] as const,
  })),
  {
    name: 'a picture in half of the page',
    html: img(800, 100, 'width:50%;height:40px'),
    expected: [['blurred-picture', above(1601), WIDEST]],
  },
  {
    name: 'a picture that fills a box',
    html: img(1000, 500, 'width:100%;height:400px;object-fit:cover'),
    expected: [['blurred-picture', above(1000.5), WIDEST]],
  },
  {
    name: 'a picture shown at a quarter of what its page tells',
    html: img(1600, 100, 'width:25%;height:40px', source('100vw')),
    expected: [['heavy-picture', 401, WIDEST]],
  },
  {
    name: 'a picture that is as wide as its page tells',
    html: img(1600, 100, 'width:50%;height:40px', source('50vw')),
    expected: [],
  },
  {
    name: 'a picture told by the size of the screen',
    html: img(1600, 100, 'width:25%;height:40px', source('(width<720px) 100vw, 25vw')),
    expected: [['heavy-picture', 401, 719]],
  },
]

const words = (count: number, length: number): string =>
  Array.from({ length: count }, () => 'm'.repeat(length)).join(' ')

/** Text, by the advance `a` of its letters. */
function texts(a: number): readonly Case[] {
  const space = 0.12 * SIZE
  return [
    ...[40, 60, 80].map((count) => ({
      name: `a line of ${count} letters`,
      html: `<p class="line">${words(1, count)}</p>`,
      expected: [
        ['sideways', NARROWEST, below(count * a - 0.5)] as const,
        [
          'text-spacing',
          below(count * a - 0.5) + 1,
          Math.min(WIDEST, below(count * (a + space) - 0.5)),
        ] as const,
        ...resized(below(count * a - 0.5) + 1, below(2 * count * a - 0.5)),
      ],
    })),
    ...[30, 45].map((count) => ({
      name: `a line of ${count} letters in half of the page`,
      html: `<div style="width:50%"><p class="line">${words(1, count)}</p></div>`,
      expected: [
        ['sideways', NARROWEST, below(count * a - 0.5)] as const,
        ['outside', below(count * a - 0.5) + 1, below(2 * (count * a - 1))] as const,
        ...resized(below(2 * (count * a - 1)) + 1, below(2 * count * a - 0.5)),
      ],
    })),
    ...[30, 50].map((count) => ({
      name: `a line of ${count} letters that is cut off at half of the page`,
      html: `<div style="width:50%;overflow:hidden"><p class="line">${words(1, count)}</p></div>`,
      expected: [
        ['cut-text', NARROWEST, below(2 * count * a - 4)] as const,
        [
          'text-spacing',
          below(2 * count * a - 4) + 1,
          Math.min(WIDEST, below(2 * count * (a + space) - 4)),
        ] as const,
        ...resized(below(2 * count * a - 4) + 1, Math.min(WIDEST, below(4 * count * a - 4))),
      ],
    })),
    ...[8, 10].map((fit) => ({
      name: `two lines that ${fit} words each must fit into`,
      html: `<div style="height:60px;overflow:hidden"><p>${words(2 * fit, 4)}</p></div>`,
      expected: [['cut-text', NARROWEST, below((5 * fit - 1) * a)] as const],
      rules: ['cut-text'],
    })),
    ...[9, 12].map((length) => ({
      name: `a heading of ten words of ${length} letters`,
      html: `<h2>${words(10, length)}</h2>`,
      expected: [['tall-heading', NARROWEST, below((3 * (length + 1) - 1) * a)] as const],
    })),
    ...[30, 42].map((count) => ({
      name: `a heading with a word of ${count} letters`,
      html: `<h2 style="overflow-wrap:anywhere">${words(1, count)}</h2>`,
      expected: [['broken-word', NARROWEST, below(count * a)] as const],
    })),
    {
      name: 'a heading of two words with a hyphen between them',
      html: `<h2 style="overflow-wrap:anywhere">${words(1, 20)}-${words(1, 20)}</h2>`,
      expected: [],
    },
    ...[
      [0.5, 6],
      [1, 4],
    ].map(([share, px]) => ({
      name: `text of ${share} % of the page and ${px} px`,
      html: `<p style="font-size:calc(${share}vw + ${px}px)">${words(3, 3)}</p>`,
      expected: [['small-text', NARROWEST, below((12 - px!) * (100 / share!))] as const],
    })),
    ...[1, 0.8].map((share) => ({
      name: `a text of 300 letters in ${share} of the page`,
      html: `<p style="width:${share * 100}%">${words(60, 4)}</p>`,
      expected: [
        ['long-lines', above((80 * a) / share), WIDEST] as const,
        ...((20 * a) / share > NARROWEST
          ? [['short-lines', NARROWEST, below((20 * a) / share)] as const]
          : []),
      ],
    })),
    ...[0.3, 0.4].map((share) => ({
      name: `a text in ${share} of the page`,
      html: `<p style="width:${share * 100}%">${words(12, 4)}</p>`,
      expected: [['short-lines', NARROWEST, below((20 * a) / share)] as const],
    })),
    ...[20, 24].map((count) => ({
      name: `a line of ${count} letters beside one that begins in the middle`,
      html: `<p class="line" style="position:absolute;left:0">${words(1, count)}</p><p class="line" style="position:absolute;left:50%">mmm</p>`,
      expected: [['covered-text', NARROWEST, below(2 * count * a - 4)] as const],
      rules: ['covered-text'],
    })),
    ...[200, 320].map((width) => ({
      name: `a line of 20 letters beside a picture of ${width} px at the right`,
      html: `<p class="line">${words(1, 20)}</p>${img(1600, 1600, `position:absolute;right:0;top:0;width:${width}px;height:30px`)}`,
      expected: [['covered-text', NARROWEST, below(20 * a + width - 2)] as const],
      rules: ['covered-text'],
    })),
    {
      name: 'grey words over a grey picture on all but narrow screens',
      html: `<div class="wide-only">${img(1920, 60, 'position:absolute;inset:0;width:100%;height:60px')}</div><p style="position:relative;color:#666">mmmm</p>`,
      expected: [['picture-contrast', 720, WIDEST]],
    },
  ]
}

function resized(from: number, to: number): readonly Expected[] {
  const first = Math.max(640, from)
  return first <= to ? [['text-resized', first, Math.min(WIDEST, to)]] : []
}

async function advance(browser: Browser): Promise<number> {
  const page = await browser.newPage()
  await page.route('**/*', (route) =>
    route.request().url().endsWith('woff2')
      ? route.fulfill({ contentType: 'font/woff2', body: EVEN_FONT })
      : route.fulfill({ contentType: 'text/html', body: `<style>${STYLE}</style>m` }),
  )
  await page.goto('http://page.invalid/')
  const found = await page.evaluate(async (size) => {
    await document.fonts.load(`${size}px Even`)
    const context = document.createElement('canvas').getContext('2d')!
    context.font = `${size}px Even`
    return context.measureText('m'.repeat(100)).width / 100
  }, SIZE)
  await page.close()
  return found
}

/** A picture of one grey, as a PNG of one pixel made by the browser itself. */
async function flatPicture(browser: Browser, colour: string): Promise<Buffer> {
  const page = await browser.newPage()
  const data = await page.evaluate((fill) => {
    const canvas = document.createElement('canvas')
    canvas.width = canvas.height = 4
    const context = canvas.getContext('2d')!
    context.fillStyle = fill
    context.fillRect(0, 0, 4, 4)
    return canvas.toDataURL('image/png')
  }, colour)
  await page.close()
  return Buffer.from(data.slice(data.indexOf(',') + 1), 'base64')
}

test('every range of widths is found to the px', async ({ browser }) => {
  const cases = [...BOXES, ...PICTURES, ...texts(await advance(browser))]
  expect(cases.length).toBeGreaterThanOrEqual(60)
  const flat = await flatPicture(browser, '#777')
  const bands = cases.map(({ html }, i) => `<section data-node="c${i}">${html}</section>`)
  const gullies = await sweepInChromium(browser, {
    html: `<!DOCTYPE html><html lang="en"><meta charset="utf-8"><title>Cases</title><style>${STYLE}</style><body><main>${bands.join('')}</main></body></html>`,
    bounds: BOUNDS,
    fileAt: (path) =>
      path === 'even.woff2' ? { type: 'font/woff2', body: EVEN_FONT } : { type: 'image/png', body: flat },
  })
  const found = cases.map(({ name, rules }, i) => ({
    name,
    found: rangesOf(gullies, `c${i}`).filter(([rule]) => rules?.includes(rule) ?? true),
  }))
  expect(found).toEqual(cases.map(({ name, expected }) => ({ name, found: sorted(expected) })))
  // The contrast over a picture of one colour is the formula's: #666 on #777 (WCAG 2.2, "contrast ratio").
  const grey = gullies.find(({ rule }) => rule === 'picture-contrast')
  expect(grey?.why).toContain('contrast of 1.3 over')
})

function rangesOf(gullies: readonly Gully[], node: string): readonly Expected[] {
  return sorted(
    gullies.filter(({ nodeId }) => nodeId === node).map(({ rule, from, to }) => [rule, from, to] as const),
  )
}

function sorted(ranges: readonly Expected[]): readonly Expected[] {
  return ranges.toSorted(([a, from], [b, start]) => (a < b ? -1 : a > b ? 1 : from - start))
}

test('gullyline -- sweep prints the gullies of a package as JSON', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'gullyline-sweep-'))
  const file = join(folder, 'page.json')
  const given = await examplePackage()
  await writeFile(file, JSON.stringify(given))
  const printed: string[] = []
  const streams = {
    out: (text: string) => void printed.push(text),
    error: (text: string) => void printed.push(text),
  }
  const code = await runCli(['sweep', file, '--json'], streams)
  const { gullies } = JSON.parse(printed.join('')) as { gullies: Gully[] }
  expect(code).toBe(gullies.some(({ severity }) => severity === 'error') ? 1 : 0)
  for (const { rule, nodeId, from, to, why, source } of gullies) {
    expect(RULES.get(rule)?.source).toBe(source)
    expect(
      given.page.nodes[nodeId!] ?? given.header?.nodes[nodeId!] ?? given.footer?.nodes[nodeId!],
    ).toBeDefined()
    expect(from >= NARROWEST && to <= WIDEST && from <= to && why !== '').toBe(true)
  }
  await rm(folder, { recursive: true })
})
