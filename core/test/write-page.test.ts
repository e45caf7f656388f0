/** Pages for other programs: the same words as visitors get, in formats that others read. */
import { createRequire } from 'node:module'
import { expect, test } from '@jest/globals'
import { HtmlRenderer, Parser } from 'commonmark'
import fc from 'fast-check'
import { HtmlValidate } from 'html-validate'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { readHtmlText, readMarkdown } from '../src/exchange/read-file.ts'
import { writeHtml, writeJson, writeMarkdown } from '../src/exchange/write-page.ts'
import type { Json } from '../src/page/json.ts'
import type { Page } from '../src/page/page.ts'
import { renderPage } from '../src/render/render-page.ts'
import { textOf } from '../src/resolve/page-text.ts'
import { anyPage, countingIds } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'
import { document, node, pageWith, card } from './fixtures/event-card.ts'

const facts = { title: 'A page', description: 'About it', language: 'en' }
const rendered = (page: Page): string =>
  renderPage(
    { page, title: 'A page', description: 'About it' },
    registry,
    { ...testSite(), parts: { card } },
    'inline',
  ).html
const squeeze = (text: string): string => text.replaceAll(/\s+/g, '')
const text = (...runs: readonly Json[]): Json => [{ type: 'paragraph', runs }]

const page = document('home', {
  home: node('page', { slots: { sections: ['s'] } }),
  s: node('section', { slots: { blocks: ['h', 't', 'b', 'q', 'a', 'p'] } }),
  h: node('heading', { content: { text: 'When to come', level: 2 } }),
  t: node('text', {
    content: {
      words: text(
        { text: 'On ' },
        { text: 'Friday', marks: ['bold'] },
        { text: ', see ' },
        { text: 'the times', link: { href: 'https://example.org/times' } },
      ),
    },
  }),
  b: node('table', {
    content: {
      rows: [
        ['Day', 'Hour'],
        ['Friday', '18:00'],
      ],
      caption: 'Times',
    },
  }),
  q: node('quote', { content: { words: text({ text: 'It was dark.' }), who: 'Orla' } }),
  a: node('panels', { slots: { panels: ['i'] } }),
  i: node('panel', { content: { label: 'Is it cold?' }, slots: { blocks: ['v'] } }),
  v: node('text', { content: { words: text({ text: 'Very.' }) } }),
  p: node('button', { content: { text: 'Book', link: { href: 'https://example.org/book' } } }),
})

test('Markdown says it in the forms that Markdown has', () => {
  expect(writeMarkdown(rendered(page)).trim().split(/\n+/)).toEqual([
    '## When to come',
    'On **Friday**, see [the times](https://example.org/times)',
    'Times',
    '| Day    | Hour  |',
    '| ------ | ----- |',
    '| Friday | 18:00 |',
    '> It was dark.',
    'Orla',
    '**Is it cold?**',
    'Very.',
    '[Book](https://example.org/book)',
  ])
})

test('HTML has meaning alone: no classes, styles or scripts; a validator finds it in order', async () => {
  const html = writeHtml(rendered(page), facts)
  expect(html).not.toMatch(/class=|style|<script|data-|<div|<span/)
  expect(html).toContain('<html lang="en">')
  expect(html).toContain('<details><summary>Is it cold?</summary>')
  const report = await new HtmlValidate({
    extends: ['html-validate:standard'],
    rules: { 'long-title': 'off' },
  }).validateString(html)
  expect(report.results.flatMap(({ messages }) => messages.map(({ message }) => message))).toEqual([])
})

test('JSON has the blocks with what they say as plain text, parts as what they show, and links as addresses', () => {
  expect(writeJson(page, facts, registry, testSite())).toMatchObject({
    ...facts,
    blocks: [
      {
        kind: 'section',
        blocks: [
          { kind: 'heading', text: 'When to come', level: 2 },
          { kind: 'text', words: ['On Friday, see the times'] },
          {
            kind: 'table',
            rows: [
              ['Day', 'Hour'],
              ['Friday', '18:00'],
            ],
          },
          { kind: 'quote', words: ['It was dark.'], who: 'Orla' },
          { kind: 'panels', blocks: [{ kind: 'panel', label: 'Is it cold?', blocks: [{ kind: 'text' }] }] },
          { kind: 'button', text: 'Book', link: 'https://example.org/book' },
        ],
      },
    ],
  })
  const shown = writeJson(pageWith(undefined), facts, registry, { ...testSite(), parts: { card } })
  expect(JSON.stringify(shown)).toContain('An open night')
  expect(JSON.stringify(shown)).not.toContain('linked-blocks')
})

test('whatever is on a page: written as HTML and read again it says the same words', () => {
  fc.assert(
    fc.property(anyPage, (given) => {
      const html = rendered(given)
      const read = readHtmlText(writeHtml(html, facts), registry, countingIds('r'))
      const again = readHtmlText(
        `<body>${/<main[\s\S]*<\/main>/.exec(html)?.[0] ?? ''}</body>`,
        registry,
        countingIds('s'),
      )
      expect(squeeze(textOf(read.page, registry))).toBe(squeeze(textOf(again.page, registry)))
    }),
    { numRuns: 60 },
  )
})

test('the examples of CommonMark 0.31.2, read and written, mean what they meant to its reference implementation', () => {
  const { tests } = createRequire(import.meta.url)('commonmark-spec') as {
    readonly tests: readonly {
      readonly markdown: string
      readonly section: string
      readonly number: number
    }[]
  }
  const html = (markdown: string): string =>
    new HtmlRenderer({ safe: true }).render(new Parser().parse(markdown))
  const words = (given: string): string =>
    squeeze(textOf(readHtmlText(given, registry, countingIds('w')).page, registry))
  const wrong: number[] = []
  let checked = 0
  for (const { markdown, section, number } of tests) {
    if (/HTML/i.test(section) || /<[a-z!?/]/i.test(markdown) || markdown.includes('![')) continue
    const { page: read } = readMarkdown(markdown, registry, countingIds('r'))
    const written = writeMarkdown(rendered(read))
    checked++
    if (words(html(written)) !== squeeze(textOf(read, registry))) wrong.push(number)
  }
  expect(checked).toBeGreaterThan(400)
  expect(wrong).toEqual([])
})
