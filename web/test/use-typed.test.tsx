/** Words typed into a field of the details: kept when it is left, put back by Escape, never lost in between. */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { act } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import { useTyped } from '../src/editor/details/use-typed.ts'

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true })

let root: Root
let kept: string[]
beforeEach(() => {
  document.body.innerHTML = '<button data-focus-home>The page</button><div id="here"></div>'
  root = createRoot(document.getElementById('here')!)
  kept = []
})
afterEach(() => act(() => root.unmount()))

function Field({ value, takes }: { value: string; takes: (typed: string) => boolean }) {
  const typing = useTyped(value, (typed) => {
    kept.push(typed)
    return takes(typed)
  })
  return <input {...typing} />
}

const draw = (value: string, takes: (typed: string) => boolean = () => true): void =>
  act(() => root.render(<Field key={value} value={value} takes={takes} />))
const input = (): HTMLInputElement => document.querySelector('input')!
const atHome = (): boolean => document.activeElement?.hasAttribute('data-focus-home') ?? false
const focus = (): void => act(() => input().focus())
const leave = (): void => act(() => input().blur())
const press = (key: string): void =>
  act(
    () => void input().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true })),
  )

/** As typing does it: React listens to the browser’s event, and knows the value by its own setter. */
function type(words: string): void {
  act(() => {
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input(), words)
    input().dispatchEvent(new Event('input', { bubbles: true }))
  })
}

test('what is typed is kept once, as it stands when the field is left, however it was arrived at', () => {
  fc.assert(
    fc.property(fc.string(), fc.array(fc.string(), { minLength: 1 }), (before, typed) => {
      kept = []
      draw(before)
      // A line holds no line breaks, which browsers take out (HTML, 4.10.5.1.2).
      const lines = typed.map((words) => words.replace(/[\r\n]/g, ''))
      focus()
      for (const words of lines) type(words)
      leave()
      const last = lines.at(-1)!
      expect(kept).toEqual(last === before ? [] : [last])
    }),
    { numRuns: 100 },
  )
})

test('Enter leaves the field, and so keeps', () => {
  draw('before')
  focus()
  type('after')
  press('Enter')
  expect(kept).toEqual(['after'])
  expect(document.activeElement).not.toBe(input())
})

test('Escape puts back what was, keeps nothing, and stays; pressed again, it leads to the page', () => {
  draw('before')
  focus()
  type('after')
  press('Escape')
  expect([input().value, document.activeElement === input()]).toEqual(['before', true])
  press('Escape')
  expect(atHome()).toBe(true)
  expect(kept).toEqual([])
})

test('what can’t be kept gives way to what was', () => {
  draw('50', (typed) => /^\d+$/.test(typed))
  focus()
  type('half')
  leave()
  expect([kept, input().value]).toEqual([['half'], '50'])
})

test('a value that changes elsewhere is shown', () => {
  draw('one')
  draw('two')
  expect(input().value).toBe('two')
})
