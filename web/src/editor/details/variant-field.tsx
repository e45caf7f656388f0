import { useState } from 'react'
import styled from 'styled-components'
import {
  getKind,
  getNode,
  newNode,
  subtreeIds,
  type FieldSchema,
  type NodeId,
  type Page,
  type PageNode,
} from '@gullyline/core'
import { TYPING_PAUSE_MS, useLater } from '../../ui/use-later.ts'
import { useNode, useStore } from '../session/editor-store.ts'
import { LivePicture } from '../shelf/live-picture.tsx'
import { useRenderer } from '../session/site-view.ts'

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  grid-column: 1 / -1;
  button {
    display: grid;
    gap: 3px;
    padding: 0;
    border: 0;
    background: none;
    color: var(--plain);
    font-size: 12px;
    text-align: left;
  }
  button[aria-pressed='true'] {
    color: var(--accent);
    font-weight: 650;
  }
  button[aria-pressed='true'] > span {
    box-shadow: 0 0 0 2px var(--accentBright);
  }
`

interface VariantFieldProps {
  readonly id: NodeId
  readonly fieldKey: string
  readonly field: FieldSchema
  readonly value: string
  readonly onChange: (value: string) => void
}

interface WithNode {
  readonly node: PageNode
}

const SIZE = { width: 118, height: 76 }
const SCREEN = { section: 900, block: 380 } as const

/** Variants chosen from live pictures of this very block in each of them. */
export function VariantField(props: VariantFieldProps) {
  // Each picture is as much work as a page: while somebody types they wait for a pause.
  const node = useLater(useNode(props.id), TYPING_PAUSE_MS)
  return node ? <VariantPictures {...props} node={node} /> : null
}

function VariantPictures({ id, node, fieldKey, field, value, onChange }: VariantFieldProps & WithNode) {
  const { registry, state } = useStore()
  const renderer = useRenderer()
  // What is around the block is not in its pictures, so they are made again for the block's own changes alone.
  const own = JSON.stringify([node.content, node.look])
  const make = () =>
    Object.entries(field.words ?? {}).map(([name, words]) => ({
      name,
      words,
      page: variantPage(state.page, id, [fieldKey, name], registry),
    }))
  const [shown, setShown] = useState(() => ({ own, options: make() }))
  if (shown.own !== own) setShown({ own, options: make() })
  const isSection = getKind(registry, getNode(state.page, id).kind).group === 'section'
  return (
    <Grid role="group" aria-label={field.title}>
      {shown.options.map(({ name, words, page }) => (
        <button key={name} type="button" aria-pressed={name === value} onClick={() => onChange(name)}>
          <LivePicture
            page={page}
            context={renderer.context}
            title={words}
            screen={isSection ? SCREEN.section : SCREEN.block}
            size={SIZE}
          />
          {words}
        </button>
      ))}
    </Grid>
  )
}

/** A page with this block alone, in one of its variants. */
function variantPage(
  page: Page,
  id: NodeId,
  [key, value]: readonly [string, string],
  registry: Parameters<typeof getKind>[0],
): Page {
  const nodes: Record<NodeId, PageNode> = {}
  for (const inside of subtreeIds(page, id)) nodes[inside] = page.nodes[inside]!
  nodes[id] = { ...nodes[id]!, look: { ...nodes[id]!.look, [key]: value } }
  const isSection = getKind(registry, nodes[id].kind).group === 'section'
  const root = newNode(getKind(registry, 'page'), { slots: { sections: [isSection ? id : 'around'] } })
  const close = { sizes: { base: { above: 's', below: 's' } } }
  const around = newNode(getKind(registry, 'section'), { ...close, slots: { blocks: [id] } })
  return { format: 4, root: 'root', nodes: { ...nodes, root, ...(isSection ? {} : { around }) } }
}
