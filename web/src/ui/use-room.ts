import { useCallback, useEffect, useState } from 'react'

export interface Room {
  readonly width: number
  readonly height: number
}

/** The room inside an element in px, 0 by 0 until it is known; follows it as it changes. Give `ref` to the element. */
export function useRoom(): {
  readonly ref: (element: HTMLElement | null) => void
  readonly element: HTMLElement | null
  readonly room: Room
} {
  const [element, setElement] = useState<HTMLElement | null>(null)
  const [room, setRoom] = useState<Room>({ width: 0, height: 0 })
  const ref = useCallback((given: HTMLElement | null) => {
    setElement(given)
    // At once, so that what needs the room is there when the screen is painted first.
    if (given) setRoom(roomIn(given))
  }, [])
  useEffect(() => {
    if (!element) return
    const observer = new ResizeObserver(
      ([entry]) => entry && setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }),
    )
    observer.observe(element)
    return () => observer.disconnect()
  }, [element])
  return { ref, element, room }
}

function roomIn(element: HTMLElement): Room {
  const { paddingLeft, paddingRight, paddingTop, paddingBottom } = getComputedStyle(element)
  return {
    width: element.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight),
    height: element.clientHeight - parseFloat(paddingTop) - parseFloat(paddingBottom),
  }
}
