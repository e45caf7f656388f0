import { useEffect, useRef, useState } from 'react'
import type { NodeId } from '@gullyline/core'
import { elementsOf } from '../canvas/boxes.ts'

/** How tall each of these nodes is on the page now, in px; follows the page as it changes. */
export function useHeights(inner: Document | undefined, ids: readonly NodeId[]): ReadonlyMap<NodeId, number> {
  const [heights, setHeights] = useState<ReadonlyMap<NodeId, number>>(new Map())
  const watch = useRef<HeightWatch>(undefined)
  useEffect(() => {
    if (!inner) return
    const made = new HeightWatch(inner, setHeights)
    watch.current = made
    return () => made.stop()
  }, [inner])
  useEffect(() => {
    // The elements are rendered in the same turn as this effect or the next one.
    const asked = requestAnimationFrame(() => watch.current?.follow(ids))
    return () => cancelAnimationFrame(asked)
  }, [inner, ids])
  return heights
}

/** Watches elements for as long as they are on the page: one that only moves is neither looked for nor measured again. */
class HeightWatch {
  readonly #inner: Document
  readonly #sizes: ResizeObserver
  readonly #elements = new Map<NodeId, Element>()
  readonly #ids = new WeakMap<Element, NodeId>()
  #heights: ReadonlyMap<NodeId, number> = new Map()

  constructor(inner: Document, tell: (heights: ReadonlyMap<NodeId, number>) => void) {
    this.#inner = inner
    this.#sizes = new ResizeObserver((entries) => {
      const changed = entries.flatMap(({ target }) => {
        const id = this.#ids.get(target)
        const height = Math.round(target.getBoundingClientRect().height)
        return id === undefined || this.#heights.get(id) === height ? [] : [[id, height] as const]
      })
      if (changed.length > 0) tell((this.#heights = new Map([...this.#heights, ...changed])))
    })
  }

  follow(ids: readonly NodeId[]): void {
    const wanted = new Set(ids)
    for (const [id, element] of this.#elements) {
      if (wanted.has(id) && element.isConnected) continue
      this.#sizes.unobserve(element)
      this.#elements.delete(id)
    }
    for (const id of ids) {
      const element = this.#elements.has(id) ? undefined : elementsOf(this.#inner, id)[0]
      if (!element) continue
      this.#elements.set(id, element)
      this.#ids.set(element, id)
      this.#sizes.observe(element)
    }
  }

  stop(): void {
    this.#sizes.disconnect()
  }
}
