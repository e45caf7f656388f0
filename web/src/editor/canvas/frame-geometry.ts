import { useEffect, useReducer } from 'react'
import type { Box, Point } from './boxes.ts'

/** Between the coordinates of a frame's window and those of the editor's: the frame is shown at a scale. */
export function frameToWindow(frame: HTMLIFrameElement, point: Point): Point {
  const { left, top, scale } = placeOf(frame)
  return { x: left + point.x * scale, y: top + point.y * scale }
}

export function windowToFrame(frame: HTMLIFrameElement, point: Point): Point {
  const { left, top, scale } = placeOf(frame)
  return { x: (point.x - left) / scale, y: (point.y - top) / scale }
}

export function boxToWindow(frame: HTMLIFrameElement, box: Box): Box {
  const { scale } = placeOf(frame)
  const { x, y } = frameToWindow(frame, { x: box.left, y: box.top })
  return { left: x, top: y, width: box.width * scale, height: box.height * scale }
}

function placeOf(frame: HTMLIFrameElement): { left: number; top: number; scale: number } {
  const rect = frame.getBoundingClientRect()
  return { left: rect.left, top: rect.top, scale: rect.width / frame.offsetWidth }
}

/** Renders again whenever something inside the frame may have moved: scrolling, resizing, pictures and fonts arriving. */
export function useFrameLayout(inner: Document | undefined): void {
  const [, again] = useReducer((count: number) => count + 1, 0)
  useEffect(() => {
    const view = inner?.defaultView
    if (!inner || !view) return
    let asked = 0
    const ask = (): void => {
      cancelAnimationFrame(asked)
      asked = requestAnimationFrame(again)
    }
    const sizes = new ResizeObserver(ask)
    sizes.observe(inner.body)
    sizes.observe(inner.documentElement)
    const content = new MutationObserver(ask)
    content.observe(inner.body, { childList: true, subtree: true, characterData: true, attributes: true })
    // Where the frame itself stands: the page may be moved sideways.
    const sheet = view.frameElement?.parentElement
    if (sheet) content.observe(sheet, { attributeFilter: ['style'] })
    view.addEventListener('scroll', ask, { passive: true })
    inner.addEventListener('load', ask, true)
    void inner.fonts.ready.then(ask)
    window.addEventListener('resize', ask)
    return () => {
      cancelAnimationFrame(asked)
      sizes.disconnect()
      content.disconnect()
      view.removeEventListener('scroll', ask)
      inner.removeEventListener('load', ask, true)
      window.removeEventListener('resize', ask)
    }
  }, [inner])
}
