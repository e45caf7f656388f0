/** Words from other programs as blocks: CommonMark's own examples, what word processors write, and what wants to run. */
import { createRequire } from 'node:module'
import { describe, expect, test } from '@jest/globals'
import {
  defaultRegistry,
  getKind,
  validatePage,
  newNode,
  PAGE_FORMAT,
  type Fragment,
  type Page,
} from '@gullyline/core'
import { htmlForOthers, readFragments } from '../src/editor/commands/clipboard.ts'
import { blocksFromHtml } from '../src/editor/canvas/html-blocks.ts'

interface Example {
  readonly html: string
  readonly section: string
  readonly example: number
}
const spec = createRequire(import.meta.url)('commonmark-spec') as { tests: readonly Example[] }

let count = 0
const pastedBlocks = (html: string) => blocksFromHtml(html, defaultRegistry, () => `n${count++}`)
const blocks = (html: string) => pastedBlocks(html).fragments
const kinds = (found: readonly Fragment[]) => found.map(({ rootId, nodes }) => nodes[rootId]!.kind)
const contents = (found: readonly Fragment[]) => found.map(({ rootId, nodes }) => nodes[rootId]!.content)
const wordsOf = (found: readonly Fragment[]) =>
  found.flatMap(({ rootId, nodes }) =>
    getKind(defaultRegistry, nodes[rootId]!.kind).words(nodes[rootId]!.content),
  )
const letters = (text: string) => text.replace(/\s+/g, '')

/** A page of one section with these blocks. */
function pageOf(found: readonly Fragment[]): Page {
  const make = (kind: string, slots: Record<string, string[]>) =>
    newNode(getKind(defaultRegistry, kind), { slots })
  return {
    format: PAGE_FORMAT,
    root: 'root',
    nodes: {
      root: make('page', { sections: ['section'] }),
      section: make('section', { blocks: found.map((one) => one.rootId) }),
      ...Object.fromEntries(found.flatMap((one) => Object.entries(one.nodes))),
    },
  }
}

describe('CommonMark 0.31.2, https://spec.commonmark.org/0.31.2/', () => {
  // Raw HTML is not Markdown's own, and pictures of elsewhere are not taken.
  const examples = spec.tests.filter(
    ({ html, section }) => !/HTML|Images/.test(section) && !html.includes('<img'),
  )

  test.each(examples.map((one) => [one.section, one.html] as const))(
    '%s: %j gives valid blocks with the same words in the same order',
    (_section, html) => {
      const found = blocks(html)
      const body = new DOMParser().parseFromString(html, 'text/html').body
      expect(letters(wordsOf(found).join(' '))).toBe(letters(body.textContent))
      expect(validatePage(pageOf(found), defaultRegistry)).toEqual([])
    },
  )
  test('headings and quotes become blocks of their own', () => {
    const heads = examples.filter(
      ({ section, html }) => section === 'ATX headings' && /^<h[1-6]>[^<]+<\/h\d>\n$/.test(html),
    )
    expect(heads.length).toBeGreaterThan(3)
    for (const { html } of heads) expect([html, kinds(blocks(html))]).toEqual([html, ['heading']])
    const quotes = examples.filter(
      ({ section, html }) =>
        section === 'Block quotes' && /^<blockquote>\n<p>[^<]+<\/p>\n<\/blockquote>\n$/.test(html),
    )
    expect(quotes.length).toBeGreaterThan(1)
    for (const { html } of quotes) expect([html, kinds(blocks(html))]).toEqual([html, ['quote']])
  })
})

describe('from other programs', () => {
  test('a page with its boxes gives headings, texts, tables and quotes in their order', () => {
    const found = blocks(`
      <div class="x"><header><h1 style="color:red">Open nights</h1></header>
        <div>Come <b>warm</b>.</div><div><p>Bring a friend.</p><ul><li>Boots</li><li>Tea</li></ul></div>
        <table><thead><tr><th>What</th><th>When</th></tr></thead><tbody><tr><td>Dome</td><td>Dusk</td></tr></tbody></table>
        <blockquote><p>Never <em>so</em> dark.</p></blockquote></div>`)
    expect(kinds(found)).toEqual(['heading', 'text', 'table', 'quote'])
    expect(contents(found)).toEqual([
      { text: 'Open nights', level: 2 },
      {
        words: [
          { type: 'paragraph', runs: [{ text: 'Come ' }, { text: 'warm', marks: ['bold'] }, { text: '.' }] },
          { type: 'paragraph', runs: [{ text: 'Bring a friend.' }] },
          {
            type: 'list',
            ordered: false,
            items: [{ runs: [{ text: 'Boots' }] }, { runs: [{ text: 'Tea' }] }],
          },
        ],
      },
      {
        rows: [
          ['What', 'When'],
          ['Dome', 'Dusk'],
        ],
        heads: 'row',
      },
      {
        words: [
          {
            type: 'paragraph',
            runs: [{ text: 'Never ' }, { text: 'so', marks: ['italic'] }, { text: ' dark.' }],
          },
        ],
      },
    ])
  })
  test('of a word processor the words stay, and neither its style nor its own elements', () => {
    const found =
      blocks(`<html xmlns:o="urn:x"><head><style>p.MsoNormal{color:red}</style><title>Doc1</title></head>
      <body><!--StartFragment--><p class=MsoNormal style='mso-pagination:none'><span lang=EN-GB>Dusk<o:p></o:p></span></p>
      <p class=MsoNormal><b style='mso-bidi-font-weight:normal'>Dawn</b></p><!--EndFragment--></body></html>`)
    expect(contents(found)).toEqual([
      {
        words: [
          { type: 'paragraph', runs: [{ text: 'Dusk' }] },
          { type: 'paragraph', runs: [{ text: 'Dawn', marks: ['bold'] }] },
        ],
      },
    ])
  })
  test('a table that only arranges gives what is in it', () => {
    expect(kinds(blocks('<table><tr><td><h2>Dusk</h2><p>Come.</p></td></tr></table>'))).toEqual([
      'heading',
      'text',
    ])
  })
  test('what is too long or too wide for a block of ours loses none of its words', () => {
    const long = 'word '.repeat(200).trim()
    const heading = blocks(`<h2>${long}</h2><p>After</p>`)
    expect(kinds(heading)).toEqual(['text'])
    expect(letters(wordsOf(heading).join(''))).toBe(letters(`${long}After`))

    const wide = blocks(`<table><tr>${'<td>a</td>'.repeat(13)}</tr></table>`)
    expect(kinds(wide)).toEqual(['text'])
    expect(letters(wordsOf(wide).join(''))).toBe('a'.repeat(13))

    const tall = blocks(`<table>${'<tr><td>a</td><td>b</td></tr>'.repeat(450)}</table>`)
    expect(kinds(tall)).toEqual(['table', 'table', 'table'])
    expect(contents(tall).map(({ rows }) => (rows as unknown[]).length)).toEqual([200, 200, 50])
    expect(validatePage(pageOf([...heading, ...wide, ...tall]), defaultRegistry)).toEqual([])
  })

  test('scripts, frames, forms and addresses that run leave no trace', () => {
    const found = blocks(
      `<p onclick="evil()">Dusk <a href="javascript:evil()">here</a><script>evil()</script></p>
       <iframe src="javascript:evil()"></iframe><img src=x onerror=evil()><svg><script>evil()</script></svg>
       <form action="javascript:evil()"><button formaction="javascript:evil()">Go</button></form><style>*{evil:1}</style>`,
    )
    expect(JSON.stringify(found)).not.toMatch(/evil|javascript|onclick|script/)
    expect(wordsOf(found)).toEqual(['Dusk here'])
  })
  test.each(['', '   ', '<img src="x.png">', '<div><br></div>'])(
    '%j has no words and gives nothing',
    (html) => {
      expect(blocks(html)).toEqual([])
    },
  )
})

/** What a person expects of what other programs copy. The markup was written after what those programs put on a clipboard. */
describe('tables', () => {
  const rows = (html: string) => contents(blocks(html))[0]!.rows

  test('a cell that spans others leaves all others where they stand (HTML standard, 4.9.11, spans)', () => {
    expect(
      rows(`<table><tr><td rowspan="2">Dome</td><td colspan="2">Times</td></tr><tr><td>Dusk</td><td>Dawn</td></tr>
        <tr><td>Hut</td><td>18:00</td><td>06:00</td></tr></table>`),
    ).toEqual([
      ['Dome', 'Times', ''],
      ['', 'Dusk', 'Dawn'],
      ['Hut', '18:00', '06:00'],
    ])
  })
  test('lines and paragraphs in a cell keep a space between them', () => {
    expect(rows('<table><tr><td>Fri<br>Sat</td><td><p>Dusk</p><p>Dawn</p></td></tr></table>')).toEqual([
      ['Fri Sat', 'Dusk Dawn'],
    ])
  })
  test('a span of millions makes no table of millions', () => {
    expect(kinds(blocks('<table><tr><td colspan="9999999">a</td><td>b</td></tr></table>'))).toEqual(['table'])
  })
})

test('paragraphs with dots of a word processor are a list, nested by their level', () => {
  const item = (level: number, sign: string, words: string) =>
    `<p class=MsoListParagraph style='text-indent:-18.0pt;mso-list:l0 level${level} lfo1'><![if !supportLists]><span style='font-family:Symbol'><span style='mso-list:Ignore'>${sign}<span style='font:7.0pt "Times"'>&nbsp;&nbsp; </span></span></span><![endif]>${words}</p>`
  const found = blocks(
    `<p>Bring:</p>${item(1, '·', 'Boots')}${item(2, 'o', '<b>Dry</b> socks')}${item(1, '·', 'Tea')}<p>Then:</p>${item(1, '1.', 'Walk')}${item(1, '2.', 'Look')}`,
  )
  expect(contents(found)).toEqual([
    {
      words: [
        { type: 'paragraph', runs: [{ text: 'Bring:' }] },
        {
          type: 'list',
          ordered: false,
          items: [
            {
              runs: [{ text: 'Boots' }],
              list: {
                type: 'list',
                ordered: false,
                items: [{ runs: [{ text: 'Dry', marks: ['bold'] }, { text: ' socks' }] }],
              },
            },
            { runs: [{ text: 'Tea' }] },
          ],
        },
        { type: 'paragraph', runs: [{ text: 'Then:' }] },
        { type: 'list', ordered: true, items: [{ runs: [{ text: 'Walk' }] }, { runs: [{ text: 'Look' }] }] },
      ],
    },
  ])
})

test('pictures of other sites are counted, and ones that nobody sees are not', () => {
  const { fragments, leftOut } = pastedBlocks(
    '<p>Dusk</p><figure><img src="https://a.example/a.jpg" width="640" height="480"><figcaption>Moor</figcaption></figure><img src="https://a.example/count" width="1" height="1">',
  )
  expect([leftOut, wordsOf(fragments)]).toEqual([1, ['Dusk', 'Moor']])
})

describe('blocks on the clipboard that are hostile', () => {
  const node = (kind: string, more: object = {}) => ({
    kind,
    content: {},
    look: {},
    sizes: { base: {} },
    slots: {},
    ...more,
  })
  test.each<[string, object]>([
    [
      'a section that holds itself',
      { rootId: 'a', nodes: { a: node('section', { slots: { blocks: ['a'] } }) } },
    ],
    [
      'two that hold each other',
      {
        rootId: 'a',
        nodes: {
          a: node('section', { slots: { blocks: ['b'] } }),
          b: node('group', { slots: { blocks: ['a'] } }),
        },
      },
    ],
    ['an unknown kind', { rootId: 'a', nodes: { a: node('rocket') } }],
    ['an inherited name as a kind', { rootId: 'a', nodes: { a: node('constructor') } }],
    [
      'a child that is not there',
      { rootId: 'a', nodes: { a: node('section', { slots: { blocks: ['b'] } }) } },
    ],
    ['nodes that are a list', { rootId: 'a', nodes: [node('text')] }],
    [
      'half a surrogate pair',
      { rootId: 'a', nodes: { a: node('heading', { content: { text: '\ud800', level: 2 } }) } },
    ],
  ])('%s is no block', (_what, fragment) => {
    expect(readFragments(JSON.stringify([fragment]), defaultRegistry)).toEqual([])
  })
})

describe('to other programs', () => {
  test('blocks keep their elements and addresses, and nothing of ours', () => {
    const page = new DOMParser().parseFromString(
      `<h2 class="heading" data-node="a" id="dusk" style="--x:1">Dusk</h2>
       <div class="text" data-node="b"><p>Come <strong>warm</strong>, or <a class="l" href="/visit/" rel="x">ask</a>.</p></div>`,
      'text/html',
    )
    const html = htmlForOthers([...page.body.children])
    expect(html).not.toMatch(/class|data-|style|id=|rel=/)
    expect(html).toContain('<h2>Dusk</h2>')
    expect(html).toMatch(/<a href="http[^"]*\/visit\/">ask<\/a>/)
    // And comes back as what it was.
    expect(kinds(blocks(html))).toEqual(['heading', 'text'])
  })
  test.each(['', 'x', '{}', '[1]', '[{"rootId":"a"}]', '[{"rootId":"a","nodes":{}}]', 'null'])(
    'what is no copy of blocks is none: %j',
    (json) => expect(readFragments(json, defaultRegistry)).toEqual([]),
  )
})
