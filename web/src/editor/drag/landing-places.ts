import type { Point } from '../canvas/boxes.ts'
import type { DragItem, ShownLanding } from './drag-store.ts'

/** A place where dragged things can land: the canvas, the spine. Gives nothing for a point that is not over it. */
export type LandingFinder = (item: DragItem, point: Point) => ShownLanding | undefined

const finders = new Set<LandingFinder>()

/** Makes a part of the screen a place to land. Returns the function that ends it. */
export function registerLanding(finder: LandingFinder): () => void {
  finders.add(finder)
  return () => finders.delete(finder)
}

const NOWHERE: ShownLanding = { landing: undefined, mark: undefined, refusal: undefined }

/** Where the thing would land at this point of the editor's window. */
export function findLanding(item: DragItem, point: Point): ShownLanding {
  for (const finder of finders) {
    const shown = finder(item, point)
    if (shown) return shown
  }
  return NOWHERE
}
