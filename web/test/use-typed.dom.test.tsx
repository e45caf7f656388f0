/** Text typed into a field of the details: in the page with every letter, never lost by leaving, Enter or Escape. */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { act, useLayoutEffect, useState } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import { useTyped } from '../src/editor/details/use-typed.ts'

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true })

let root: Root
/** The value as the page has it, and how something else sets it. */
let value: string
let set: (next: string) => void
beforeEach(() => {
  document.body.innerHTML = '<button data-takes-focus>The page</button><div id="here"></div>'
  root = createRoot(document.getElementById('here')!)
})
afterEach(() => act(() => root.unmount()))

function Field({ initial, takes }: { initial: string; takes: (typed: string) => boolean }) {
  const [inPage, setInPage] = useState(initial)
  useLayoutEffect(() => {
    value = inPage
    set = setInPage
  }, [inPage])
  const typing = useTyped(inPage, (typed) => {
    if (!takes(typed)) return false
    setInPage(typed)
    return true
  })
  return <input {...typing} />
}

let drawn = 0
const draw = (initial: string, takes: (typed: string) => boolean = () => true): void =>
  act(() => root.render(<Field key={drawn++} initial={initial} takes={takes} />))
const input = (): HTMLInputElement => document.querySelector('input')!
const atHome = (): boolean => document.activeElement?.hasAttribute('data-takes-focus') ?? false
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

test('every letter is in the page as soon as it is typed, and the field shows what the page has', () => {
  fc.assert(
    fc.property(fc.string(), fc.array(fc.string(), { minLength: 1 }), (before, typed) => {
      draw(before)
      // A line holds no line breaks, which browsers take out (HTML, 4.10.5.1.2).
      const lines = typed.map((words) => words.replace(/[\r\n]/g, ''))
      focus()
      for (const words of lines) {
        type(words)
        expect([value, input().value]).toEqual([words, words])
      }
      leave()
      expect([value, input().value]).toEqual([lines.at(-1), lines.at(-1)])
    }),
    { numRuns: 100 },
  )
})

test.each(['Enter', 'Escape'])('%s leaves the field, and loses nothing', (key) => {
  draw('before')
  focus()
  type('after')
  press(key)
  expect([value, input().value, document.activeElement === input()]).toEqual(['after', 'after', false])
  if (key === 'Escape') expect(atHome()).toBe(true)
})

test('what the page can’t take stays in the field, marked as such, until it can', () => {
  draw('50', (typed) => /^\d+$/.test(typed))
  focus()
  type('5x')
  expect([value, input().value, input().getAttribute('aria-invalid')]).toEqual(['50', '5x', 'true'])
  leave()
  expect(input().value).toBe('5x')
  type('55')
  expect([value, input().value, input().getAttribute('aria-invalid')]).toEqual(['55', '55', null])
})

test('a value that changes elsewhere is shown, and a half-written one is not replaced by it', () => {
  draw('one', (typed) => typed !== 'half')
  act(() => set('two'))
  expect(input().value).toBe('two')
  type('half')
  act(() => set('three'))
  expect([value, input().value]).toEqual(['three', 'half'])
})
