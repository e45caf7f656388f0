import { useMemo } from 'react'
import { getKind, type Starter } from '@gullyline/core'
import { useStore } from '../session/editor-store.ts'
import { useRenderer } from '../session/site-view.ts'
import { LivePicture } from './live-picture.tsx'
import { pageOfStarter } from './starter-page.ts'

const SIZE = { width: 148, height: 84 }
/** Width in px of the screen that the picture shows: blocks are looked at closer than whole sections. */
const SCREEN = { pageBody: 1000, section: 760, block: 420 } as const

/** A live picture of what would be placed. */
export function StarterPicture({ starter }: { starter: Starter }) {
  const { registry } = useStore()
  const renderer = useRenderer()
  const isSection = getKind(registry, starter.kind).group === 'section'
  const page = useMemo(() => pageOfStarter(starter, registry), [starter, registry])
  return (
    <LivePicture
      page={page}
      context={renderer.context}
      title={starter.title}
      screen={starter.type === 'page-body' ? SCREEN.pageBody : isSection ? SCREEN.section : SCREEN.block}
      size={SIZE}
    />
  )
}
