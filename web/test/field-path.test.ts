/** Words inside a field by their path: what is written at one is read there, and nothing beside it changes. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { JsonObject } from '@gullyline/core'
import { readField, topOf, withField } from '../src/editor/session/field-path.ts'

const rows = fc.array(fc.array(fc.string(), { maxLength: 4 }), { maxLength: 4 })
const at = fc.nat({ max: 5 })

test('a cell is read where it was written, and every other cell is as it was', () => {
  fc.assert(
    fc.property(rows, at, at, fc.string(), (cells, row, column, words) => {
      const content: JsonObject = { caption: 'Seats', rows: cells }
      const path = `rows.${row}.${column}`
      const next = withField(content, path, words)
      expect(readField(next, path)).toBe(words)
      expect(next.caption).toBe('Seats')
      cells.forEach((line, i) =>
        line.forEach((cell, j) => {
          if (i !== row || j !== column) expect(readField(next, `rows.${i}.${j}`)).toBe(cell)
        }),
      )
      // Gaps that came to be are empty cells and rows, never holes.
      expect(JSON.parse(JSON.stringify(next))).toEqual(next)
      expect(content.rows).toBe(cells)
    }),
  )
})

test('a field of its own is read and written by its name', () => {
  expect(topOf('rows.2.1')).toBe('rows')
  expect(topOf('text')).toBe('text')
  expect(withField({ text: 'a', level: 2 }, 'text', 'b')).toEqual({ text: 'b', level: 2 })
})

test('where there is nothing, nothing is read; names that every object has are no fields', () => {
  expect(readField({}, 'rows.0.0')).toBeUndefined()
  expect(readField({ rows: [['a']] }, 'rows.1.0')).toBeUndefined()
  expect(readField({ text: 'a' }, 'text.length')).toBeUndefined()
  expect(readField({}, 'constructor')).toBeUndefined()
})
