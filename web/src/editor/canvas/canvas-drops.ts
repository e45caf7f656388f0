import { useEffect } from 'react'
import { registerLanding } from '../drag/landing-places.ts'
import { useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { landingOnCanvas } from './canvas-landing.ts'
import { useFileDrop } from './use-file-drop.ts'

/** Takes what is dragged over the page: blocks, and files of the computer. */
export function CanvasDrops({ inner }: { readonly inner: Document }) {
  const store = useStore()
  const { look } = useSiteView().site
  useFileDrop(store, inner, look)
  useEffect(
    () => registerLanding((item, point) => landingOnCanvas(inner, store, { item, point, look })),
    [inner, store, look],
  )
  return null
}
