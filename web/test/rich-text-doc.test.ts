import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { getSchema, type JSONContent } from '@tiptap/core'
import { Node } from '@tiptap/pm/model'
import { fromEditorDoc, toEditorDoc } from '../src/editor/canvas/rich-text-doc.ts'
import { RICH } from '../src/editor/canvas/text-editor.ts'
import { richText } from '../../core/test/arbitraries/value.ts'

test('formatted text goes through the text editor and comes back as it was', () => {
  const schema = getSchema(RICH)
  fc.assert(
    fc.property(richText, (value) => {
      const doc = Node.fromJSON(schema, toEditorDoc(value))
      doc.check()
      const back = fromEditorDoc(doc.toJSON() as JSONContent)
      // A break has no marks in the editor, so words around it are compared run by run.
      expect(strip(back)).toEqual(strip(value.length === 0 ? [{ type: 'paragraph', runs: [] }] : value))
    }),
    { numRuns: 1000 },
  )
})

/** Letters with their marks, one by one, so that how runs are cut does not count; marks of breaks do not count either. */
function strip(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(strip)
  if (typeof value !== 'object' || value === null) return value
  const entries = Object.entries(value).map(([key, inner]) => [
    key,
    key === 'runs' ? letters(inner as Run[]) : strip(inner),
  ])
  return Object.fromEntries(entries)
}

interface Run {
  text: string
  marks?: string[]
  link?: object
}

function letters(runs: Run[]): unknown[] {
  return runs.flatMap((run) =>
    [...run.text].map((letter) => (letter === '\n' ? letter : [letter, run.marks ?? [], run.link ?? null])),
  )
}
