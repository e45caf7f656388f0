import { useEffect } from 'react'

/** The focus goes back to whatever carries this attribute: the canvas, or the line-up. */
export const TAKES_FOCUS = 'data-takes-focus'

/** Puts the focus where the keys mean the page. */
export function focusCanvas(): void {
  document.querySelector<HTMLElement>(`[${TAKES_FOCUS}]`)?.focus({ preventScroll: true })
}

/** What is behind a dialog can't take the focus until the dialog has let go of it, which may be after it is gone. */
const CHANGES = [TAKES_FOCUS, 'inert', 'aria-hidden']

/**
 * Never leaves the focus nowhere: when what had it is gone, as a deleted block's row or a tray that was closed, it goes
 * home, so that the next Tab starts from a place that can be seen.
 */
export function useFocusOnCanvas(): void {
  useEffect(() => {
    let asked = 0
    const look = (): void => {
      cancelAnimationFrame(asked)
      // A frame later: whoever takes the focus next has had the chance.
      asked = requestAnimationFrame(() => {
        if (document.activeElement !== document.body || !document.hasFocus()) return
        focusCanvas()
      })
    }
    // Removing an element that has the focus fires no event in every browser, so changes of the screen are watched.
    const changes = new MutationObserver(look)
    changes.observe(document.body, { childList: true, subtree: true, attributeFilter: CHANGES })
    document.addEventListener('focusout', look)
    look()
    return () => {
      cancelAnimationFrame(asked)
      changes.disconnect()
      document.removeEventListener('focusout', look)
    }
  }, [])
}
