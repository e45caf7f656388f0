import { useEffect, useState } from 'react'

/** A value once the frame that it came with has been painted: for what takes long to draw, beside what has to be quick. */
export function useAfterPaint<T>(value: T): T {
  const [painted, setPainted] = useState(value)
  useEffect(() => {
    let later: number | undefined
    const frame = requestAnimationFrame(() => {
      later = window.setTimeout(() => setPainted(value))
    })
    return () => {
      cancelAnimationFrame(frame)
      clearTimeout(later)
    }
  }, [value])
  return painted
}
