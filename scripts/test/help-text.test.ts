/** The help: one text for the screen and the docs, with keys that there are. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { COMMAND_IDS } from '../../web/src/editor/commands/command-list.ts'
import { HELP_TOPICS, piecesOf } from '../../web/src/help/topics.ts'
import { oldLabelsAmong } from '../../core/test/old-labels.ts'
import { helpText } from '../help-text.ts'

test('docs/help.md has the text of the Help screen (npm run generate writes it)', () => {
  expect(readFileSync(join(import.meta.dirname, '../../docs/help.md'), 'utf8')).toBe(helpText())
})

test('every step names commands that there are, every topic is unique, and there are at least twenty', () => {
  const commands = HELP_TOPICS.flatMap(({ steps }) => steps.flatMap(piecesOf)).flatMap((piece) =>
    typeof piece === 'string' ? [] : [piece.command],
  )
  expect(commands.length).toBeGreaterThan(20)
  expect(commands.filter((id) => !(COMMAND_IDS as readonly string[]).includes(id))).toEqual([])
  expect(new Set(HELP_TOPICS.map(({ id }) => id)).size).toBe(HELP_TOPICS.length)
  expect(HELP_TOPICS.length).toBeGreaterThanOrEqual(20)
  expect(oldLabelsAmong(HELP_TOPICS.flatMap(({ title, steps }) => [title, ...steps]))).toEqual([])
})
