/** What was filled in before a field changed its type: shown where nothing of it is lost, and told of where that can't be. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { ComponentField } from '../src/blocks/component-fields.ts'
import { convertedValue } from '../src/blocks/converted-value.ts'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { toTextEdits, paragraphIntoEdits } from '../src/edits/turn-into.ts'
import type { Json } from '../src/page/json.ts'
import { lineWords, type Line } from '../src/page/line.ts'
import { getNode, type Page } from '../src/page/page.ts'
import { paragraphs, richTextWords } from '../src/page/rich-text.ts'
import { instanceFields } from '../src/reuse/component-values.ts'
import { instanceFindings } from '../src/reuse/component-rules.ts'
import { followTurnedEdits } from '../src/reuse/turned-fields.ts'
import { joinSession } from '../src/site/session-page.ts'
import { countingIds } from './arbitraries/page.ts'
import { valuesFor } from './arbitraries/value.ts'
import { getKind } from '../src/blocks/registry.ts'
import { card, document, fieldIds, node, pageWith, together } from './fixtures/event-card.ts'

const heading = node('heading', { content: { text: 'T', level: 2 } })
const text = node('text', { content: { words: paragraphs('T') as unknown as Json } })
const wordsOf = (value: Json): string =>
  Array.isArray(value) && value.some((one) => typeof one === 'object' && one !== null && 'type' in one)
    ? richTextWords(value).join('\n')
    : lineWords(value as Line)

test('a line becomes a paragraph and one paragraph a line, with all formatting, and back it is the same', () => {
  let converted = 0
  fc.assert(
    fc.property(valuesFor(getKind(registry, 'heading').content), ({ text: line }) => {
      const value = line!
      const paragraph = convertedValue(text, 'content', 'words', value, registry)
      if (paragraph === undefined) return
      expect(wordsOf(paragraph)).toBe(lineWords(value as Line))
      expect(convertedValue(heading, 'content', 'text', paragraph, registry)).toEqual(value)
      converted++
    }),
    { numRuns: 300 },
  )
  expect(converted).toBeGreaterThan(150)
})

test('whatever is converted says the same words, or is not converted', () => {
  fc.assert(
    fc.property(valuesFor(getKind(registry, 'text').content), ({ words }) => {
      const line = convertedValue(heading, 'content', 'text', words!, registry)
      if (line !== undefined) expect(wordsOf(line)).toBe(wordsOf(words!))
    }),
    { numRuns: 300 },
  )
  const two = paragraphs('One', 'Two') as unknown as Json
  expect(convertedValue(heading, 'content', 'text', two, registry)).toBeUndefined()
  const broken = [{ type: 'paragraph', runs: [{ text: 'One\nTwo' }] }]
  expect(convertedValue(heading, 'content', 'text', broken, registry)).toBeUndefined()
  expect(convertedValue(heading, 'content', 'text', 7, registry)).toBe('7')
  expect(convertedValue(heading, 'content', 'level', '3', registry)).toBe(3)
  for (const other of ['3 of them', '', true, { href: '/' }, null])
    expect(convertedValue(heading, 'content', 'level', other, registry)).toBeUndefined()
  const bold = [{ text: 'Bold', marks: ['bold'] }]
  const button = node('button', { content: { text: 'Ask' } })
  expect(convertedValue(button, 'content', 'text', 'Bold', registry)).toBe('Bold')
  expect([undefined, bold]).toContainEqual(convertedValue(button, 'content', 'text', bold, registry))
})

const header = document('top', { top: node('site-header', { content: { brand: 'T' } }) })
const footer = document('bottom', { bottom: node('site-footer') })

test('a field follows its block when that becomes a text: its values are shown there, and on the way back', () => {
  const page = pageWith({ [fieldIds.Heading!]: 'Saturn' })
  const session = joinSession({ page, header, footer, parts: { card } }, countingIds('j'))
  const turn = (now: Page, id: string, into: 'text' | 'heading'): { page: Page; id: string } => {
    const turned =
      into === 'text'
        ? toTextEdits(now, id, together, countingIds('t'))
        : paragraphIntoEdits('heading', now, id, 0, together, countingIds('u'))
    const follow = followTurnedEdits(now, id, { id: turned!.madeId, kind: into }, together)
    const done = applyEdits(now, [...turned!.edits, ...follow], together)
    if (!done.ok) throw new Error(done.message)
    return { page: done.page, id: turned!.madeId }
  }
  const fieldOf = (now: Page) =>
    instanceFields(now, 'i0', together).find(({ field }) => field.id === fieldIds.Heading)
  const asText = turn(session, 'title', 'text')
  expect(fieldOf(asText.page)?.value).toEqual(paragraphs('Saturn'))
  const back = turn(asText.page, asText.id, 'heading')
  expect(fieldOf(back.page)?.value).toBe('Saturn')
  expect(getNode(back.page, 'i0')).toEqual(getNode(session, 'i0'))
})

test('what can’t be converted is kept, not shown, and listed for each instance', () => {
  const two = paragraphs('One', 'Two') as unknown as Json
  const page = pageWith({ [fieldIds.Heading!]: two }, { [fieldIds.Heading!]: 'Saturn' })
  const root = getNode(card, 'card')
  const own = (root.content.fields as unknown as readonly ComponentField[]).find(
    ({ id }) => id === fieldIds.Heading,
  )!
  const found = instanceFindings(page, Object.keys(page.nodes), () => card, registry)
  expect(found).toMatchObject([
    {
      rule: 'field-type',
      severity: 'error',
      nodeId: 'i0',
      message: `“${own.name}” can’t show “One Two”, since the field changed its type. Fill it in again.`,
    },
  ])
})
