/** Foreign files as pages: by the meaning of what is in them, with nothing of their words lost. */
import { createRequire } from 'node:module'
import { describe, expect, test } from '@jest/globals'
import { HtmlRenderer, Parser } from 'commonmark'
import fc from 'fast-check'
import { patienceOf } from '../../scripts/lib/patience.mjs'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { readFile, readHtmlText, readMarkdown, UnreadableFile } from '../src/exchange/read-file.ts'
import type { ReadPage } from '../src/exchange/read-html.ts'
import { getNode, type NodeId } from '../src/page/page.ts'
import { richTextWords, type RichText } from '../src/page/rich-text.ts'
import { subtreeIds } from '../src/page/walk.ts'
import { textOf } from '../src/resolve/page-text.ts'
import { countingIds } from './arbitraries/page.ts'

const html = (text: string): ReadPage => readHtmlText(text, registry, countingIds('r'))
const markdown = (text: string): ReadPage => readMarkdown(text, registry, countingIds('r'))

/** The blocks of a page as lines: their kind, and what they say. */
function outline({ page }: ReadPage): string[] {
  const line = (id: NodeId, depth: number): string[] => {
    const { kind, content, slots } = getNode(page, id)
    const said =
      kind === 'text' || kind === 'quote'
        ? richTextWords(content.words as unknown as RichText).join(' | ')
        : kind === 'heading'
          ? `${content.level as number} ${JSON.stringify(content.text)}`
          : kind === 'table'
            ? JSON.stringify(content.rows)
            : ((content.label ?? content.alt ?? '') as string)
    return [
      `${'  '.repeat(depth)}${kind}${said === '' ? '' : `: ${said}`}`,
      ...Object.values(slots)
        .flat()
        .flatMap((child) => line(child, depth + 1)),
    ]
  }
  return line(page.root, 0).slice(1)
}

const missed = ({ notUnderstood }: ReadPage): string[] =>
  notUnderstood.map(({ what, count, kept }) => `${count} × ${what}: ${kept}`)

describe('HTML becomes blocks by its meaning', () => {
  test('headings begin sections; lists, tables, quotations, figures and details become what they are', () => {
    const read = html(`<!doctype html><html><head><title>Visiting us</title>
      <meta name="description" content="How to come"></head><body>
      <header><nav><ul><li><a href="https://example.org/">Home</a></li></ul></nav></header>
      <main><h1>Visiting</h1><p>Come <b>soon</b>, and<br>bring <a href="https://example.org/socks">socks</a>.</p>
      <h2>When</h2><ul><li>Friday<ol><li>at six</li></ol></li><li>Saturday</li></ul>
      <table><caption>Times</caption><tr><th>Day<th>Hour</tr><tr><td>Friday<td>18:00</tr></table>
      <h2>Why</h2><blockquote><p>It was dark.</p><footer>— Orla</footer></blockquote>
      <figure><img src="/a/moon.jpg?x=1" alt="The Moon"><figcaption>Half lit</figcaption></figure>
      <details><summary>Is it cold?</summary><p>Very.</p></details>
      <details><summary>Dogs?</summary><p>No.</p></details>
      <dl><dt>Dome<dd>turns by hand</dl><pre>a\n  b</pre></main></body></html>`)
    expect(validatePage(read.page, registry)).toEqual([])
    expect([read.title, read.description]).toEqual(['Visiting us', 'How to come'])
    expect(outline(read)).toEqual([
      '  section',
      '    text: Home',
      '  section',
      '    heading: 1 "Visiting"',
      '    text: Come soon, and\nbring socks.',
      '  section',
      '    heading: 2 "When"',
      '    text: Friday | at six | Saturday',
      '    table: [["Day","Hour"],["Friday","18:00"]]',
      '  section',
      '    heading: 2 "Why"',
      '    quote: It was dark.',
      '    picture: The Moon',
      '    panels',
      '      panel: Is it cold?',
      '        text: Very.',
      '      panel: Dogs?',
      '        text: No.',
      '    text: Dome: turns by hand | a\n  b',
    ])
    expect(missed(read)).toEqual([
      '1 × The picture “moon.jpg”: its place, text and caption were kept: add the file',
    ])
  })

  test('what can’t be taken over is listed with what became of it, and nothing that could run comes through', () => {
    const read = html(`<p>Before <a href="javascript:alert(2)">press</a></p><script>alert(1)</script>
      <form><label>Name <input name="n"></label><button>Send it</button></form>
      <iframe src="https://example.org/"></iframe><my-card><p>Inside</p></my-card>
      <svg><script>alert(3)</script></svg><p onclick="alert(4)">After <a href="example">half</a></p>`)
    expect(validatePage(read.page, registry)).toEqual([])
    expect(textOf(read.page, registry)).toBe('Before press Name Send it Inside After half')
    expect(missed(read)).toEqual([
      '1 × A link that could run something: its text was kept',
      '1 × A script: left out',
      '1 × A form: only its text was kept',
      '1 × A form field: only its text was kept',
      '1 × A button: only its text was kept',
      '1 × A page in the page: left out',
      '1 × An element of its own, <my-card>: what is in it was kept',
      '1 × A drawing: left out',
      '1 × A link that says only a part of its address: its text was kept',
    ])
    expect(JSON.stringify(read.page)).not.toMatch(/alert|javascript|onclick/)
  })

  test('a table of one cell or with too many columns is the words in it; cells that span several stand in the first', () => {
    expect(outline(html('<table><tr><td>Only this</td></tr></table>'))).toEqual([
      '  section',
      '    text: Only this',
    ])
    const wide = `<table><tr>${'<td>x</td>'.repeat(13)}</tr></table>`
    expect(missed(html(wide))).toHaveLength(1)
    expect(textOf(html(wide).page, registry)).toBe(Array(13).fill('x').join(' '))
    expect(outline(html('<table><tr><td rowspan=2>a<td>b</tr><tr><td>c</tr></table>'))[1]).toBe(
      '    table: [["a","b"],["","c"]]',
    )
  })

  test('whatever is nested how: the page is valid, every word is in it in order, and it takes no longer than it is long', () => {
    const word = fc.stringMatching(/^[a-z]{1,8}$/)
    const { tree } = fc.letrec<{ tree: string; node: string }>((tie) => ({
      tree: fc.array(tie('node'), { maxLength: 4 }).map((all) => all.join(' ')),
      node: fc.oneof(
        { depthSize: 'small', withCrossShrink: true },
        word,
        fc
          .tuple(
            fc.constantFrom(
              ...'p div section article h1 h2 h3 b i em strong a span ul li ol table tr td th blockquote figure figcaption details summary dl dt dd header nav main aside label center font address'.split(
                ' ',
              ),
            ),
            tie('tree'),
          )
          .map(([tag, inside]) => `<${tag}>${inside}</${tag}>`),
      ),
    }))
    const wordsOf = (text: string): string[] => text.split(/[^a-z]+/).filter(Boolean)
    fc.assert(
      fc.property(tree, (given) => {
        const read = html(given)
        expect(validatePage(read.page, registry)).toEqual([])
        const all = subtreeIds(read.page, read.page.root).map((id) =>
          JSON.stringify(getNode(read.page, id).content),
        )
        const found = new Set(wordsOf(all.join(' ')))
        const wanted = wordsOf(given.replaceAll(/<[^>]*>/g, ' '))
        expect(wanted.filter((one) => !found.has(one) && !all.join(' ').includes(one))).toEqual([])
      }),
      { numRuns: 400 },
    )
  })

  test('hostile files are read within two seconds or refused in words', () => {
    const start = performance.now()
    expect(() => html('<div>'.repeat(30_000) + 'deep')).toThrow(UnreadableFile)
    expect(() => markdown('> '.repeat(30_000) + 'deep')).toThrow(UnreadableFile)
    expect(textOf(html('<div>'.repeat(300) + 'deep').page, registry)).toContain('deep')
    expect(html('<p>x'.repeat(20_000)).page.nodes).toBeDefined()
    const took = performance.now() - start
    expect(took).toBeLessThan(patienceOf(4_000, took))
    const read = (name: string, text: string) => () => readFile(name, text, registry, countingIds('r'))
    expect(read('a.html', 'x'.repeat(5_000_001))).toThrow(UnreadableFile)
    expect(read('a.html', '<hr><p>x'.repeat(11_000))).toThrow('more blocks than a page holds')
    expect(read('a.html', `<p>${'x'.repeat(1_000_000)}`)).toThrow('more in one of them than a block does')
    expect(read('a.docx', 'x')).toThrow('is neither HTML nor Markdown')
    expect(read('Plan of the dome.md', 'Only words')().title).toBe('Plan of the dome')
  })
})

interface Example {
  readonly markdown: string
  readonly html: string
  readonly section: string
  readonly number: number
}

describe('Markdown against the examples of CommonMark 0.31.2 (commonmark-spec, spec.txt)', () => {
  const { tests } = createRequire(import.meta.url)('commonmark-spec') as {
    readonly tests: readonly Example[]
  }
  const squeeze = (text: string): string => text.replaceAll(/\s+/g, '')

  test('all examples become valid pages that say what the reference implementation shows', () => {
    expect(tests.length).toBeGreaterThan(640)
    const wrong: number[] = []
    for (const { markdown: given, number, section } of tests) {
      // Raw HTML is kept as text, and pictures as places: their text is no text of the page.
      if (/HTML/i.test(section) || /<[a-z!?/]/i.test(given) || given.includes('![')) continue
      const rendered = new HtmlRenderer({ safe: true }).render(new Parser().parse(given))
      const read = markdown(given)
      expect(validatePage(read.page, registry)).toEqual([])
      const words = squeeze(textOf(read.page, registry))
      if (words !== squeeze(textOf(html(rendered).page, registry))) wrong.push(number)
    }
    expect(wrong).toEqual([])
  })

  test('tables, tasks and strikethrough of GitHub Flavored Markdown 0.29 are read', () => {
    const read = markdown(
      '| Day | Hour |\n|-|-|\n| Fri | 18 |\n\n- [x] done\n- [ ] not\n\n~~gone~~ <b>raw</b>',
    )
    expect(outline(read)).toEqual([
      '  section',
      '    table: [["Day","Hour"],["Fri","18"]]',
      '    text: ☑ done | ☐ not | gone <b>raw</b>',
    ])
    expect(missed(read)).toEqual(['2 × HTML inside of Markdown: kept as text'])
  })
})
