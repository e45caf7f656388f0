/** The page of all texts: whole, fresh, and without a label that was replaced. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { oldLabelsAmong } from '../../core/test/old-labels.ts'
import { HELP_TOPICS } from '../../web/src/help/topics.ts'
import { interfaceTexts, interfaceTextsPage, textsOf } from '../interface-texts.ts'

const root = join(import.meta.dirname, '../..')
const areas = interfaceTexts(root)

test('docs/interface-texts.md has every text (npm run generate writes it)', () => {
  expect(readFileSync(join(root, 'docs/interface-texts.md'), 'utf8')).toBe(interfaceTextsPage(areas))
})

test('no text anywhere is a label that was replaced', () => {
  const all = areas.flatMap(({ files }) => files.flatMap(({ texts }) => texts))
  expect(oldLabelsAmong(all)).toEqual([])
  // All of the help is among them, and what the server refuses with.
  for (const { title, steps } of HELP_TOPICS)
    for (const text of [title, ...steps]) if (text.includes(' ')) expect(all).toContain(text)
  expect(all.some((text) => text.startsWith('The server knows no such address'))).toBe(true)
})

test.each([
  [
    'what stands between tags, as one sentence',
    '<p>Press <b>Enter</b> to {act} it.</p>',
    ['Press Enter to {…} it.'],
  ],
  ['labels', '<Button label="Add page" />', ['Add page']],
  ['labels of one word', 'const a = { title: "Navigation" }', ['Navigation']],
  ['names of options', 'choice({ wide: "Wide" }); toggle("Shown"); on("Enter")', ['Wide', 'Shown']],
  ['sentences with gaps', 'say(`Moved ${name} to ${place}`)', ['Moved {…} to {…}']],
  ['no rules of styles', 'const Box = styled.div`Color of: red;`', []],
  [
    'no modules, keys and classes',
    'import { a } from "Some Module"; const b = "data-node"; c("main .text")',
    [],
  ],
  ['no statements for the database', 'query("SELECT name FROM pages")', []],
])('%s', (_name, source, expected) => {
  expect(textsOf(source, 'source.tsx')).toEqual(expected)
})
