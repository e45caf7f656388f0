/** Fonts of small pictures, declared to the document. */
import { beforeAll, expect, test } from '@jest/globals'
import { declareFonts } from '../src/ui/style-sheet.ts'

class Sheet {
  css = ''
  replaceSync(css: string): void {
    this.css = css
  }
}

// The tests' browser world has neither.
beforeAll(() => {
  Object.assign(globalThis, { CSSStyleSheet: Sheet })
  Object.assign(document, { adoptedStyleSheets: [] })
})

const declared = () => (document.adoptedStyleSheets as unknown as Sheet[]).map(({ css }) => css)

test('faces are declared once, and those that were asked for last win: also after a look was taken back', () => {
  declareFonts('')
  declareFonts('a')
  const before = document.adoptedStyleSheets
  declareFonts('a')
  expect(document.adoptedStyleSheets).toBe(before)
  declareFonts('b')
  expect(declared()).toEqual(['a', 'b'])
  declareFonts('a')
  expect(declared()).toEqual(['b', 'a'])
})
