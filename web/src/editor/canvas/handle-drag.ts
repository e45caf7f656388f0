import type { PointerEvent as ReactPointerEvent } from 'react'
import { hold } from '../../ui/held.ts'

interface HandleDrag {
  readonly move: (moved: PointerEvent) => void
  /** `isDone` is false where it was given up: by Escape, or by the browser. */
  readonly end: (isDone: boolean) => void
}

/** Follows the pointer that was pressed on a handle until it is let go. */
export function dragHandle(event: ReactPointerEvent<HTMLElement>, { move, end }: HandleDrag): void {
  event.preventDefault()
  const handle = event.currentTarget
  const { ownerDocument } = handle
  handle.setPointerCapture(event.pointerId)
  const letGo = hold()
  const finish = (isDone: boolean): void => {
    letGo()
    handle.removeEventListener('pointermove', move)
    handle.removeEventListener('pointerup', release)
    ownerDocument.removeEventListener('lostpointercapture', cancel)
    window.removeEventListener('keydown', escape, true)
    end(isDone)
  }
  const release = (): void => finish(true)
  const cancel = (): void => finish(false)
  const escape = (key: KeyboardEvent): void => {
    if (key.key !== 'Escape') return
    key.preventDefault()
    key.stopPropagation()
    finish(false)
  }
  handle.addEventListener('pointermove', move)
  handle.addEventListener('pointerup', release)
  // Also where the handle is taken off the screen meanwhile (Pointer Events 3, "implicit release of pointer capture").
  ownerDocument.addEventListener('lostpointercapture', cancel)
  window.addEventListener('keydown', escape, true)
}
