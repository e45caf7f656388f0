import { useEffect } from 'react'

/** The focus goes back to whatever carries this attribute: the canvas, or the line-up. */
export const FOCUS_HOME = 'data-focus-home'

/** Puts the focus where the keys mean the page. */
export function goHome(): void {
  document.querySelector<HTMLElement>(`[${FOCUS_HOME}]`)?.focus({ preventScroll: true })
}

/**
 * Never leaves the focus nowhere: when what had it is gone, as a deleted block's row or a tray that was closed, it goes
 * home, so that the next Tab starts from a place that can be seen.
 */
export function useKeptFocus(): void {
  useEffect(() => {
    let asked = 0
    const look = (): void => {
      cancelAnimationFrame(asked)
      // A frame later: whoever takes the focus next has had the chance.
      asked = requestAnimationFrame(() => {
        if (document.activeElement !== document.body || !document.hasFocus()) return
        goHome()
      })
    }
    // Removing an element that has the focus fires no event in every browser, so changes of the screen are watched.
    const changes = new MutationObserver(look)
    changes.observe(document.body, { childList: true, subtree: true, attributeFilter: [FOCUS_HOME] })
    document.addEventListener('focusout', look)
    look()
    return () => {
      cancelAnimationFrame(asked)
      changes.disconnect()
      document.removeEventListener('focusout', look)
    }
  }, [])
}
