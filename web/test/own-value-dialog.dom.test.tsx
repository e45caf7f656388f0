/** The dialog of a colour outside the look: what is half typed while something else draws it again. */
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { act } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import { tarrowmoorLook } from '../../demo/src/look.ts'
import { OwnValueDialog } from '../src/editor/details/own-value-dialog.tsx'

// The document of these tests has no CSS object; names are escaped with it where they are looked for.
Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true, CSS: { escape: (name: string) => name } })

let root: Root
beforeEach(() => {
  root = createRoot(document.body.appendChild(document.createElement('div')))
})
afterEach(() => act(() => root.unmount()))

const draw = (label: string): void =>
  act(() =>
    root.render(
      <OwnValueDialog
        label={label}
        look={tarrowmoorLook}
        value="#0c1228"
        onKeep={() => undefined}
        onClose={() => undefined}
      />,
    ),
  )

test('a half typed colour stays as it is while the dialog is drawn again', () => {
  draw('Background')
  const input = document.querySelector<HTMLInputElement>('input[type="text"]')!
  expect(input.value).toBe('#0C1228')
  act(() => {
    input.focus()
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, '#7a')
    input.dispatchEvent(new InputEvent('input', { bubbles: true }))
  })
  expect(input.value).toBe('#7a')
  draw('Background of the section')
  expect(document.body.textContent).toContain('Background of the section')
  expect(input.value).toBe('#7a')
})
