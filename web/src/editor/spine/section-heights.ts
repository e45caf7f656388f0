import { useEffect, useState } from 'react'
import type { NodeId } from '@gullyline/core'
import { elementOf } from '../canvas/boxes.ts'

/** How tall each of these nodes is on the page now, in px; follows the page as it changes. */
export function useHeights(inner: Document | undefined, ids: readonly NodeId[]): ReadonlyMap<NodeId, number> {
  const [heights, setHeights] = useState<ReadonlyMap<NodeId, number>>(new Map())
  const key = ids.join()
  useEffect(() => {
    if (!inner) return
    const watched = new Map<Element, NodeId>()
    const sizes = new ResizeObserver(() =>
      setHeights(new Map([...watched].map(([element, id]) => [id, element.getBoundingClientRect().height]))),
    )
    // The elements are rendered in the same turn as this effect or the next one.
    const asked = requestAnimationFrame(() => {
      for (const id of key === '' ? [] : key.split(',')) {
        const element = elementOf(inner, id)
        if (!element) continue
        watched.set(element, id)
        sizes.observe(element)
      }
    })
    return () => {
      cancelAnimationFrame(asked)
      sizes.disconnect()
    }
  }, [inner, key])
  return heights
}
