/** What a conflict tells of both sides when their words are the same and something else about them is not. */
import { expect, test } from '@jest/globals'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { describeConflict } from '../src/compare/conflict.ts'
import { mergePages } from '../src/compare/merge-pages.ts'
import type { Json } from '../src/page/json.ts'
import { pageOf } from './fixtures/one-block.ts'

function sidesOf(kind: string, field: string, [base, ours, theirs]: readonly [Json, Json, Json]) {
  const [one, mine, other] = [base, ours, theirs].map((value) => pageOf(kind, { [field]: value }))
  const versions = { base: one!, ours: mine!, theirs: other! }
  const { conflicts } = mergePages(versions, registry)
  expect(conflicts).toHaveLength(1)
  const { ours: left, theirs: right } = describeConflict(conflicts[0]!, versions, registry)
  return [left, right]
}

const bold = (text: string) => ({ text, marks: ['bold'] })
const linked = (text: string, href: string) => ({ text, link: { href } })
const paragraph = (...runs: Json[]) => ({ type: 'paragraph', runs })

test('marks and links are told where the words are the same', () => {
  expect(
    sidesOf('text', 'words', [
      [paragraph({ text: 'At dusk' })],
      [paragraph({ text: 'At ' }, bold('dusk'))],
      [paragraph({ text: 'At ' }, linked('dusk', 'https://night.example'))],
    ]),
  ).toEqual(['At dusk (bold)', 'At dusk (link to https://night.example)'])
})

test('lists are told from lines, and an empty line from no text', () => {
  const words = [{ text: 'Warm clothes' }]
  const list = (ordered: boolean) => [{ type: 'list', ordered, items: [{ runs: words }] }]
  expect(sidesOf('text', 'words', [[paragraph(...words)], list(false), list(true)])).toEqual([
    '• Warm clothes',
    '1. Warm clothes',
  ])
  expect(sidesOf('text', 'words', [[paragraph(...words)], [], [paragraph()]])).toEqual([
    'No text',
    'An empty line',
  ])
})

test('words that differ are told without their formatting', () => {
  expect(
    sidesOf('heading', 'text', ['Hours', [{ text: 'Opening ' }, bold('hours')] as Json, 'When we open']),
  ).toEqual(['Opening hours', 'When we open'])
})
