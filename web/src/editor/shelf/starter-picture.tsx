import { useMemo } from 'react'
import { newNode, getKind, type Page, type Starter } from '@gullyline/core'
import { useStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { useRenderer } from '../session/site-view.ts'
import { LivePicture } from './live-picture.tsx'

const SIZE = { width: 148, height: 84 }
/** Width in px of the screen that the picture shows: blocks are looked at closer than whole sections. */
const SCREEN = { pageBody: 1000, section: 760, block: 420 } as const

/** With little above and below: the picture is of what stands in it. */
const CLOSE = { sizes: { base: { above: 's', below: 's' } } }

/** A live picture of what would be placed. */
export function StarterPicture({ starter }: { starter: Starter }) {
  const { registry } = useStore()
  const renderer = useRenderer()
  const isSection = getKind(registry, starter.kind).group === 'section'
  const page = useMemo(() => pageAround(starter, registry, isSection), [starter, registry, isSection])
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

function pageAround(starter: Starter, registry: Parameters<typeof getKind>[0], isSection: boolean): Page {
  const built = starter.build(newId)
  const rest = starter.buildRest(newId)
  const [root, around] = [newId(), newId()]
  const sections = isSection ? [built, ...rest].map(({ rootId }) => rootId) : [around]
  return {
    format: 3,
    root,
    nodes: {
      ...rest.reduce((nodes, section) => ({ ...nodes, ...section.nodes }), built.nodes),
      [root]: newNode(getKind(registry, 'page'), { slots: { sections } }),
      ...(isSection
        ? {}
        : {
            [around]: newNode(getKind(registry, 'section'), { ...CLOSE, slots: { blocks: [built.rootId] } }),
          }),
    },
  }
}
