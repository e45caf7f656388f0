import { useEffect, useRef, useState, type ChangeEvent, type KeyboardEvent } from 'react'
import { focusCanvas } from '../canvas/focus-canvas.ts'

type Field = HTMLInputElement | HTMLTextAreaElement

/**
 * What a field needs whose text goes into the page with every letter, so that it is journaled, undone, saved and asked
 * about like text on the canvas. `onType` gives false for a text that the page can't take, such as half a number: the
 * field shows it as invalid until it can. Enter and Escape leave the field; both keep what was typed.
 */
export function useTyped(value: string, onType: (typed: string) => boolean | void) {
  const [typed, setTyped] = useState(value)
  const [isRefused, setRefused] = useState(false)
  const [known, setKnown] = useState(value)
  // Undo, a merge or another control: what they set is shown, unless the field holds what the page could not take.
  if (value !== known) {
    setKnown(value)
    if (!isRefused) setTyped(value)
  }
  const last = useRef(onType)
  useEffect(() => {
    last.current = onType
  })
  const give = (text: string): void => {
    setTyped(text)
    setRefused(text !== value && last.current(text) === false)
  }
  return {
    value: typed,
    'aria-invalid': isRefused || undefined,
    onChange: (event: ChangeEvent<Field>) => give(event.target.value),
    onBlur: () => {
      if (!isRefused) setTyped(value)
    },
    onKeyDown: (event: KeyboardEvent<Field>) => {
      if (event.key === 'Enter') {
        event.preventDefault()
        event.currentTarget.blur()
      }
      if (event.key === 'Escape') focusCanvas()
    },
  }
}
