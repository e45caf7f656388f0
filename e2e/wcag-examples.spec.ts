/**
 * What WCAG 2.2’s Understanding documents and the techniques and failures that they name show as right and as wrong, for the
 * rules of reflow, resized text, text spacing and focus order. The examples are retold from memory, with texts and measures
 * of our own; the numbers of techniques (C…) and failures (F…) are W3C’s.
 */
import { expect, test } from '@playwright/test'
import { sweepInChromium } from '@gullyline/measuring/chromium'
import { EVEN_FACE, EVEN_FONT } from './even-font.ts'

interface Example {
  readonly source: string
  readonly html: string
  /** Of the rules below, those that find something in it. */
  readonly broken: readonly string[]
}

/** What these success criteria are about: 1.4.10, 1.4.4, 1.4.12, 2.4.3. */
const RULES = ['sideways', 'cut-text', 'covered-text', 'text-resized', 'text-spacing', 'focus-order']

const STYLE = `
${EVEN_FACE}
*{box-sizing:border-box}
body{margin:0;font:1rem/1.5 Even}
section{position:relative;padding:1px 0}
p,ul{margin:0;padding:0;list-style:none}
.row{display:flex;flex-wrap:wrap;gap:30px}
.areas{display:grid;grid-template-areas:"head" "nav" "main"}
.areas>:nth-child(1){grid-area:head}.areas>:nth-child(2){grid-area:nav}.areas>:nth-child(3){grid-area:main}
@media(width>=720px){.areas{grid-template:"head head" auto "nav main" auto/200px minmax(0,1fr)}}
`
const NOTICE = 'The dome is open on every clear night of the winter, from dusk.'
const ADDRESS = 'https://observatory.example/visit/how-to-find-us/by-road-and-by-rail/in-winter'
const PIXEL = 'data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7'
const PICTURE = `<img src="${PIXEL}" alt="The dome" width="800" height="100"`
const buttons = (...names: readonly string[]): string =>
  names.map((name) => `<button style="width:44px;height:44px" aria-label="${name}"></button>`).join('')

const EXAMPLES: readonly Example[] = [
  {
    source: '1.4.4, F69: a text in a box of px that cuts it off',
    html: `<div style="width:300px;height:100px;overflow:hidden">${NOTICE}</div>`,
    broken: ['text-resized'],
  },
  {
    source: '1.4.4, F69: a text that grows over the next one',
    html: `<p style="width:300px;height:100px">${NOTICE}</p><p>Bring a warm coat.</p>`,
    broken: ['text-resized'],
  },
  {
    source: '1.4.4, C28: a box in units of the text',
    html: `<div style="width:18rem;height:9rem;overflow:hidden">${NOTICE}</div>`,
    broken: [],
  },
  {
    source: '1.4.12, F104: a text that fills the height of its box',
    html: `<div style="width:17rem;height:4.5rem;overflow:hidden">${NOTICE}</div>`,
    broken: ['text-spacing'],
  },
  {
    source: '1.4.12, C36: a box as high as its text',
    html: `<div style="width:17rem;overflow:hidden">${NOTICE}</div>`,
    broken: [],
  },
  {
    source: '1.4.12, C35: a label with room to the side',
    html: '<ul class="row"><li style="width:9rem;overflow:hidden;white-space:nowrap">Opening</li></ul>',
    broken: [],
  },
  {
    source: '1.4.12, C35: a label that fills its width',
    html: '<ul class="row"><li style="width:5rem;overflow:hidden;white-space:nowrap">Opening</li></ul>',
    broken: ['text-spacing'],
  },
  {
    source: '1.4.10, C31: boxes of a row that wrap',
    html: `<div class="row">${`<p style="flex:1 1 15rem">${NOTICE}</p>`.repeat(3)}</div>`,
    broken: [],
  },
  {
    source: '1.4.10, C31: the same boxes where they don’t',
    html: `<div class="row" style="flex-wrap:nowrap">${`<p style="flex:none;width:15rem">${NOTICE}</p>`.repeat(3)}</div>`,
    broken: ['sideways', 'text-resized'],
  },
  {
    source: '1.4.10, C32: areas of a grid below each other on narrow screens',
    html: `<div class="areas"><p>The dome</p><p>Visit</p><p>${NOTICE}</p></div>`,
    broken: [],
  },
  {
    source: '1.4.10, C32: columns of px on every screen',
    html: `<div style="display:grid;grid-template-columns:200px 500px"><p>Visit</p><p>${NOTICE}</p></div>`,
    broken: ['sideways'],
  },
  {
    source: '1.4.10, C33: an address that may break anywhere',
    html: `<p style="overflow-wrap:anywhere">${ADDRESS}</p>`,
    broken: [],
  },
  {
    source: '1.4.10, C33: an address that may not',
    html: `<p>${ADDRESS}</p>`,
    broken: ['sideways', 'text-resized', 'text-spacing'],
  },
  {
    source: '1.4.10, C37: a picture no wider than its column',
    html: `${PICTURE} style="max-width:100%;height:auto">`,
    broken: [],
  },
  { source: '1.4.10, C37: a picture at its own width', html: `${PICTURE}>`, broken: ['sideways'] },
  {
    source: '1.4.10, C38: a field no wider than the page',
    html: '<input aria-label="Name" style="width:40rem;max-width:100%;height:44px">',
    broken: [],
  },
  {
    source: '1.4.10, C38: a field that is as wide on every page',
    html: '<input aria-label="Name" style="width:40rem;height:44px">',
    broken: ['sideways', 'text-resized'],
  },
  {
    source: '1.4.10, its exception: a table of data that is scrolled by itself',
    html: `<div style="overflow-x:auto"><table style="width:900px"><tr><th>Night<td>Clear<td>Open</table></div>`,
    broken: [],
  },
  {
    source: '2.4.3, C27: what is pressed stands as it is written',
    html: `<div class="row">${buttons('Back', 'Next')}</div>`,
    broken: [],
  },
  {
    source: '2.4.3, C27: what is pressed stands the other way round',
    html: `<div class="row" style="flex-direction:row-reverse">${buttons('Back', 'Next')}</div>`,
    broken: ['focus-order'],
  },
]

test('the rules find what the Understanding documents call failures, and nothing in what they recommend', async ({
  browser,
}) => {
  const bands = EXAMPLES.map(({ html }, i) => `<section data-node="e${i}">${html}</section>`)
  const gullies = await sweepInChromium(browser, {
    html: `<!DOCTYPE html><html lang="en"><meta charset="utf-8"><title>Examples</title><style>${STYLE}</style><body><main>${bands.join('')}</main></body></html>`,
    bounds: [720, 1200],
    fileAt: (path) => (path === 'even.woff2' ? { type: 'font/woff2', body: EVEN_FONT } : undefined),
  })
  const found = EXAMPLES.map(({ source }, i) => {
    const rules = new Set(gullies.filter(({ nodeId }) => nodeId === `e${i}`).map(({ rule }) => rule))
    return { source, broken: RULES.filter((rule) => rules.has(rule)) }
  })
  expect(found).toEqual(EXAMPLES.map(({ source, broken }) => ({ source, broken })))
})
