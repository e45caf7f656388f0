/**
 * Pasted text against CommonMark's own examples: the commonmark-spec package, version 0.31.2, generated from the
 * specification at https://spec.commonmark.org/0.31.2/. Each example's Markdown and its HTML are pasted, and both must
 * give what the HTML means, for the constructs that our formatted text has.
 */
import { createRequire } from 'node:module'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { getSchema, type JSONContent } from '@tiptap/core'
import { DOMParser as DocumentParser } from '@tiptap/pm/model'
import { safeHref, type RichText } from '@gullyline/core'
import { asOneLine } from '../src/editor/canvas/paste-into-text.ts'
import { loadMarkdown, markdownToHtml, rowsOfText, tableHtml } from '../src/editor/canvas/paste.ts'
import { fromEditorDoc } from '../src/editor/canvas/rich-text-doc.ts'
import { RICH } from '../src/editor/canvas/text-editor.ts'
import { meantAddress } from '../src/editor/details/meant-address.ts'

interface Example {
  readonly markdown: string
  readonly html: string
  readonly section: string
  readonly number: number
}
const spec = createRequire(import.meta.url)('commonmark-spec') as { tests: readonly Example[] }

beforeAll(() => loadMarkdown())

/** Sections about what our formatted text has words for. */
const KEPT = [
  'Paragraphs',
  'Emphasis and strong emphasis',
  'Code spans',
  'Links',
  'Autolinks',
  'Hard line breaks',
  'Soft line breaks',
  'Lists',
  'List items',
  'Textual content',
  'Backslash escapes',
  'Entity and numeric character references',
]
/** Elements that ours has no word for: their own words stay, and examples with them are another test. */
const OTHERS = /<(h[1-6]|hr|pre|blockquote|img|table|div|del|ins|responsive|bab|b2|b\)|[a-z]+ [a-z-]+=)[ />c]/

const schema = getSchema(RICH)
function pasted(html: string): RichText {
  const holder = document.createElement('div')
  holder.innerHTML = html
  const doc = DocumentParser.fromSchema(schema).parse(holder)
  return fromEditorDoc(doc.toJSON() as JSONContent)
}

/** What an element of HTML means, read straight from the parsed example: each letter with its marks and where it leads. */
function meaning(html: string): string {
  const holder = document.createElement('div')
  holder.innerHTML = html
  const out: string[] = []
  const walk = (node: Node, marks: readonly string[]): void => {
    if (node.nodeType === Node.TEXT_NODE) {
      for (const letter of (node.textContent ?? '').replace(/\s+/g, ''))
        out.push(`${letter}${[...marks].sort().join('')}`)
      return
    }
    const tag = (node as Element).tagName?.toLowerCase()
    const mark = { strong: '*b', em: '*i', code: '*c' }[tag ?? '']
    const href = tag === 'a' ? safe((node as Element).getAttribute('href') ?? '') : ''
    const next = [
      ...(mark && !marks.includes(mark) ? [...marks, mark] : marks),
      ...(href ? [`*${href}`] : []),
    ]
    for (const child of node.childNodes) walk(child, next)
  }
  walk(holder, [])
  return out.join(' ')
}
/** Which addresses may be linked to is ours to say; core's tests hold that to the URL Standard. */
const safe = (href: string) => safeHref(href) ?? ''

function meaningOf(text: RichText): string {
  const out: string[] = []
  const marksOf = { bold: '*b', italic: '*i', code: '*c' } as Readonly<Record<string, string>>
  const runs = (list: RichText[number] extends infer B ? B : never): void => {
    const walk = (all: readonly { text: string; marks?: readonly string[]; link?: unknown }[]): void => {
      for (const run of all) {
        const link = run.link as { href?: string } | undefined
        const marks = [
          ...(run.marks ?? []).map((mark) => marksOf[mark]!),
          ...(link?.href ? [`*${link.href}`] : []),
        ]
        for (const letter of run.text.replace(/\s+/g, '')) out.push(`${letter}${marks.sort().join('')}`)
      }
    }
    if (list.type === 'paragraph') walk(list.runs)
    else
      for (const item of list.items) {
        walk(item.runs)
        if (item.list) runs(item.list)
      }
  }
  for (const block of text) runs(block)
  return out.join(' ')
}

// The specification prints tabs as arrows.
const withTabs = (text: string) => text.replaceAll('→', '\t')
const examples = spec.tests
  .map((one) => ({ ...one, markdown: withTabs(one.markdown), html: withTabs(one.html) }))
  // 494 makes an element "b)c", which jsdom's selectors take for "b".
  .filter(({ section, html, number }) => KEPT.includes(section) && !OTHERS.test(html) && number !== 494)

test('there are enough examples to mean something', () => {
  expect(examples.length).toBeGreaterThan(200)
})

describe.each(KEPT)('%s', (section) => {
  test('each example means the same pasted as HTML and as Markdown', () => {
    const wrong = examples
      .filter((example) => example.section === section)
      .flatMap(({ number, markdown, html }) => {
        const wanted = meaning(html)
        const asHtml = meaningOf(pasted(html))
        const asMarkdown = meaningOf(pasted(markdownToHtml(markdown)!))
        return asHtml === wanted && asMarkdown === wanted ? [] : [{ number, wanted, asHtml, asMarkdown }]
      })
    expect(wrong).toEqual([])
  })
})

describe('from a word processor', () => {
  const WORD = `<html xmlns:o="urn:schemas-microsoft-com:office:office"><head><style>p.MsoNormal{margin:0;color:red}</style></head>
    <body><!--StartFragment--><p class="MsoNormal" style="margin:0cm;font-family:Calibri"><b style="mso-bidi-font-weight:normal">Bold</b>
    <span style="color:red;font-size:40pt">plain</span><o:p></o:p></p><ul><li class="MsoListParagraph" style="mso-list:l0"><span lang="EN-GB">One</span></li>
    <li>Two</li></ul><script>alert(1)</script><p onclick="alert(1)"><a href="javascript:alert(1)">runs</a> <a href="https://a.example/" style="x">leads</a></p><!--EndFragment--></body></html>`
  test('meaning stays, style and scripts go', () => {
    expect(pasted(WORD)).toEqual([
      { type: 'paragraph', runs: [{ text: 'Bold', marks: ['bold'] }, { text: ' plain' }] },
      { type: 'list', ordered: false, items: [{ runs: [{ text: 'One' }] }, { runs: [{ text: 'Two' }] }] },
      {
        type: 'paragraph',
        runs: [{ text: 'runs ' }, { text: 'leads', link: { href: 'https://a.example/' } }],
      },
    ])
  })
  test('in Markdown, scripts and links that run are left out', () => {
    const markdown = '<script>alert(1)</script>\n\n[x](javascript:alert(1)) <b onclick="alert(1)">bold</b>'
    expect(pasted(markdownToHtml(markdown)!)).toEqual([
      { type: 'paragraph', runs: [{ text: '[x](javascript:alert(1)) ' }, { text: 'bold', marks: ['bold'] }] },
    ])
  })
})

/** GitHub Flavored Markdown 0.29-gfm, https://github.github.com/gfm/: its own examples 198, 491 and 279. */
describe('GitHub Flavored Markdown', () => {
  const body = (markdown: string) =>
    new DOMParser().parseFromString(markdownToHtml(markdown) ?? '', 'text/html').body
  test('a table is a table (example 198)', () => {
    const cells = [...body('| foo | bar |\n| --- | --- |\n| baz | bim |').querySelectorAll('th, td')]
    expect(cells.map(({ tagName, textContent }) => [tagName, textContent])).toEqual([
      ['TH', 'foo'],
      ['TH', 'bar'],
      ['TD', 'baz'],
      ['TD', 'bim'],
    ])
  })
  test('two tildes strike through (example 491)', () => {
    expect(pasted(markdownToHtml('~~Hi~~ Hello, world!')!)).toEqual([
      { type: 'paragraph', runs: [{ text: 'Hi', marks: ['strike'] }, { text: ' Hello, world!' }] },
    ])
  })
  test('tasks keep whether they are done (example 279)', () => {
    expect(
      body('- [ ] foo\n- [x] bar')
        .textContent.trim()
        .split(/\s*\n\s*/),
    ).toEqual(['☐ foo', '☑ bar'])
  })
})

describe('rows of a spreadsheet as text', () => {
  test('are a table, whatever ends the lines', () => {
    const rows = [
      ['What', 'When'],
      ['Dome', ''],
    ]
    expect(rowsOfText('What\tWhen\nDome\t')).toEqual(rows)
    expect(rowsOfText('What\tWhen\r\nDome\t\r\n')).toEqual(rows)
    expect(tableHtml([['<b>', '&']])).toContain('<td>&lt;b&gt;</td><td>&amp;</td>')
  })
  test.each(['one line', 'a\tb\nc', '\tcode that is indented\nmore'])('%j is no table', (text) =>
    expect(rowsOfText(text)).toBeUndefined(),
  )
})

test('several lines become one with spaces between them', () => {
  expect(asOneLine('<p>Open</p><p>nights<br>and talks</p><style>x</style>')).toBe('Open nights and talks')
  expect(asOneLine('a &lt;b&gt; c')).toBe('a &lt;b&gt; c')
})

test.each([
  ['door@tarrow.example', 'mailto:door@tarrow.example'],
  ['+44 1632 960 145', 'tel:+441632960145'],
  ['www.tarrow.example/visit', 'https://www.tarrow.example/visit'],
  ['/visit/', '/visit/'],
  ['https://a.example/', 'https://a.example/'],
  ['javascript:alert(1)', 'javascript:alert(1)'],
])('the address %p means %p', (typed, meant) => expect(meantAddress(typed)).toBe(meant))
