import { useState, type ChangeEvent, type KeyboardEvent } from 'react'
import { goHome } from '../use-kept-focus.ts'

type Field = HTMLInputElement | HTMLTextAreaElement

/**
 * What a field needs whose words are kept when it is left or Enter is pressed, so that each letter is not a step to undo.
 * Escape puts back what was; with nothing to put back, it leads to the page. `onKeep` gives false for what can't be kept:
 * then what was stands there again.
 */
export function useTyped(value: string, onKeep: (typed: string) => boolean | void) {
  const [typed, setTyped] = useState(value)
  return {
    value: typed,
    onChange: (event: ChangeEvent<Field>) => setTyped(event.target.value),
    onBlur: () => {
      if (typed !== value && onKeep(typed) === false) setTyped(value)
    },
    onKeyDown: (event: KeyboardEvent<Field>) => {
      if (event.key === 'Enter') {
        event.preventDefault()
        event.currentTarget.blur()
      }
      if (event.key !== 'Escape') return
      if (typed === value) goHome()
      else setTyped(value)
    },
  }
}
