import { memo, useState } from 'react'
import styled from 'styled-components'
import {
  childIds,
  FRAME_NAMES,
  pageChildIds,
  findNode,
  getKind,
  instanceSlots,
  linkedPart,
  sharedRoot,
  stepsOf,
  subtreeIds,
  type NodeId,
  type PageNode,
} from '@gullyline/core'
import { useEditor, useNode, usePage, useStore, type EditorStore } from '../session/editor-store.ts'
import { nodeName } from '../session/node-name.ts'
import { SpineRow } from './spine-row.tsx'

const Section = styled.li`
  display: flex;
  flex: var(--grow) 0 auto;
  flex-direction: column;
  min-height: 40px;
  max-height: max(160px, 40vh);
  border: 1px solid var(--line);
  border-radius: 5px;
  position: relative;
  background: var(--paper);
  &::before {
    content: '';
    position: absolute;
    inset: 6px auto 6px 5px;
    width: 2px;
    background: var(--lineStrong);
  }
  &[data-open] {
    max-height: none;
    border-color: var(--accentBright);
    box-shadow: 0 0 0 1px var(--accentBright);
  }
  &[data-open]::before {
    background: var(--accent);
  }
  &[data-open] > [role='group'] {
    margin-bottom: 8px;
  }
  /* A double rule at the left edge: it stands in more than one place. */
  &[data-frame] {
    min-height: 34px;
    flex: none;
  }
  &[data-shared]::before {
    width: 5px;
    border: solid var(--control);
    border-width: 0 1.5px;
    background: none;
  }
  &[data-shared][data-open]::before {
    border-color: var(--accent);
  }
  &[data-shared] > [data-level='1'] {
    padding-left: 18px;
  }
`
const Group = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  [data-open] > & {
    margin: 0 6px 0 10px;
  }
`
interface SpineNodeProps {
  readonly id: NodeId
  readonly level: number
  /** How tall a section is on the page, in px. */
  readonly height?: number
  /** True for the section that is worked on. */
  readonly isWorkedOn?: boolean
  /** True for what stands on every page. */
  readonly isShared?: boolean
}

/** A block in the spine, with what is inside it when its section is open. */
export const SpineNode = memo(function SpineNode({
  id,
  level,
  height = 1,
  isWorkedOn = false,
  isShared = false,
}: SpineNodeProps) {
  const store = useStore()
  const node = useNode(id)
  const isOpenInstance = useEditor((state) => stepsOf(state.around).includes(id))
  const [isFolded, setFolded] = useState(false)
  if (!node) return null
  const isInstance = linkedPart(node, store.registry) !== undefined
  const children = inside(store, node, id, isOpenInstance)
  const isOpen = level > 1 ? !isFolded : isWorkedOn
  const group = isOpen && children.length > 0 && (
    <Group role="group">
      {children.map((child) => (
        <SpineNode key={child} id={child} level={level + 1} />
      ))}
    </Group>
  )
  const Item = level === 1 ? Section : 'li'
  const grow =
    level === 1
      ? {
          style: { '--grow': isShared ? 0 : Math.max(1, height) } as never,
          'data-shared': isShared || isInstance ? '' : undefined,
          'data-frame': isShared ? '' : undefined,
          'data-open': isOpen ? '' : undefined,
        }
      : {}
  return (
    <Item role="none" {...grow}>
      <SpineRow
        id={id}
        node={node}
        level={level}
        isShared={isShared}
        isOpen={children.length > 0 ? isOpen : undefined}
        {...(level > 1 && children.length > 0 ? { onFold: () => setFolded(!isFolded) } : {})}
      />
      {group}
    </Item>
  )
})

/** What stands in a block; in an instance, what it shows while that is worked in, and otherwise what it has in slots. */
function inside(
  { registry, state }: EditorStore,
  node: PageNode,
  id: NodeId,
  isOpenInstance: boolean,
): readonly NodeId[] {
  const part = linkedPart(node, registry)
  if (part === undefined) return childIds(node)
  const root = isOpenInstance ? findNode(state.page, part) : undefined
  if (root) return childIds(root)
  return instanceSlots(state.page, id, registry).flatMap(({ fill }) => fill ?? [])
}

/** Every block whose name, words or kind has what was typed, in reading order. */
export function SpineFound({ search }: { search: string }) {
  const store = useStore()
  const { registry } = store
  const page = usePage((page) => page)
  const wanted = search.trim().toLowerCase()
  const [header, footer] = FRAME_NAMES.map((name) => sharedRoot(page, name) ?? [])
  const rows = [header!, pageChildIds(page), footer!].flat().flatMap((id) => subtreeIds(page, id))
  const found = rows.filter((id) => {
    const node = page.nodes[id]!
    const kind = getKind(registry, node.kind)
    const label = nodeName(store, page, id)
    const text = `${label} ${kind.title} ${kind.words(node.content).join(' ')}`.toLowerCase()
    return text.includes(wanted)
  })
  if (found.length === 0) return <li role="none">No block here is called “{search.trim()}”.</li>
  return found.slice(0, MOST_FOUND).map((id) => (
    <li key={id} role="none">
      <SpineRow id={id} node={page.nodes[id]!} level={2} isOpen={undefined} />
    </li>
  ))
}

const MOST_FOUND = 100
