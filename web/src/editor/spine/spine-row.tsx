import { Lock } from 'lucide'
import { useEffect, useRef, useState } from 'react'
import styled from 'styled-components'
import {
  pageChildIds,
  describeNode,
  findNode,
  isWithin,
  linkedPart,
  stepsOf,
  type Finding,
  type NodeId,
  type PageNode,
} from '@gullyline/core'
import { trackPress } from '../drag/drag-session.ts'
import { pressedAt } from '../canvas/shown-ids.ts'
import { useEditor, useNode, usePage, useStore } from '../session/editor-store.ts'
import { nodeName, sortOf } from '../session/node-name.ts'
import { afterPaint } from '../../ui/after-paint.ts'
import { useValue } from '../../ui/value.ts'
import { TYPING_PAUSE_MS, useLater } from '../../ui/use-later.ts'
import { KindIcon } from '../chrome/kind-icon.tsx'
import { useShownFindings } from '../problems/findings-context.tsx'
import { topOf } from './top-of.ts'
import { TroubleMark } from '../problems/trouble-mark.tsx'
import { Icon } from '../../ui/icon.tsx'

const Everywhere = styled.small`
  flex: none;
  margin-left: auto;
  color: var(--quiet);
  font-size: 12px;
  font-weight: 450;
`
const Row = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 24px;
  padding: 1px 8px 1px calc(10px + (var(--level) - 2) * 9px);
  border-radius: 3px;
  cursor: default;
  touch-action: none;
  user-select: none;
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > svg:first-child {
    flex: none;
    color: var(--quiet);
  }
  & > svg:last-child:not(:first-child) {
    margin-left: auto;
  }
  &:hover {
    background: var(--panel);
  }
  &[data-selected] {
    background: var(--accentTint);
    color: var(--accent);
    font-weight: 650;
  }
  &[data-hidden] {
    opacity: 0.65;
    text-decoration: line-through;
  }
  &[data-level='1'] {
    flex: 1;
    align-items: flex-start;
    padding: 6px 8px 6px 14px;
    color: var(--strong);
    font-weight: 550;
  }
  [data-open] > &[data-level='1'] {
    flex: none;
  }
`
const Fold = styled.i`
  flex: none;
  width: 0;
  height: 0;
  margin-left: -11px;
  border: 4px solid transparent;
  border-left-color: var(--control);
  border-right: 0;
  &[data-open] {
    rotate: 90deg;
  }
`
const DiffersMark = styled.i`
  flex: none;
  width: 9px;
  height: 8px;
  margin-left: auto;
  background:
    linear-gradient(var(--quiet) 0 0) 0 100% / 2px 3px,
    linear-gradient(var(--quiet) 0 0) 3.5px 100% / 2px 5.5px,
    linear-gradient(var(--quiet) 0 0) 100% 100% / 2px 8px;
  background-repeat: no-repeat;
`
const NameBox = styled.input`
  width: 100%;
  height: 22px;
  padding: 0 4px;
  border: 1px solid var(--accentBright);
  border-radius: 3px;
  background: var(--paper);
`

interface SpineRowProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly level: number
  readonly isShared?: boolean
  readonly isOpen: boolean | undefined
  /** Folds what is inside away, or out again; absent where nothing can be folded. */
  readonly onFold?: () => void
}

/** One block in the spine: what it is called, what is said of it, and what can be done with it there. */
export function SpineRow({ id, node, level, isShared = false, isOpen, onFold }: SpineRowProps) {
  const store = useStore()
  const row = useRef<HTMLDivElement>(null)
  const [isNaming, setNaming] = useState(false)
  const isLead = useEditor((state) => state.selection === id)
  const isSelected = useEditor((state) => state.selection === id || state.also.includes(id))
  const isFirst = useEditor((state) => state.selection === undefined && pageChildIds(state.page)[0] === id)
  const label = useLabel(id)
  const kind = usePage((page) => (findNode(page, id) ? sortOf(store, page, id) : ''))
  const problem = useShownProblem(id, level === 1)

  useEffect(() => {
    // Keys that move the selection from within the tree take the focus along.
    const tree = row.current?.closest('[role="tree"]')
    if (isLead && tree?.contains(document.activeElement)) row.current?.focus()
  }, [isLead])
  useEffect(() => {
    if (!isLead) return
    // Once what is selected has been painted: a row can only be scrolled to after all of the spine is laid out.
    return afterPaint(() => row.current?.scrollIntoView({ block: 'nearest' }))
  }, [isLead, isOpen])

  return (
    <Row
      ref={row}
      role="treeitem"
      aria-level={level}
      aria-selected={isSelected}
      aria-expanded={isOpen}
      aria-label={label === kind ? label : `${kind}: ${label}`}
      tabIndex={isLead || isFirst ? 0 : -1}
      data-spine-row={id}
      data-level={level}
      data-selected={isSelected ? '' : undefined}
      data-hidden={Object.values(node.sizes).some((values) => values?.shown === false) ? '' : undefined}
      style={{ '--level': level }}
      onFocus={() => !isSelected && store.dispatch({ type: 'select', id })}
      onDoubleClick={() => setNaming(true)}
      onKeyDown={(event) => {
        if (event.key === 'F2') setNaming(true)
        // As trees go: right unfolds and left folds, before either walks on.
        const folds = onFold && (isOpen ? event.key === 'ArrowLeft' : event.key === 'ArrowRight')
        if (!folds || event.altKey || event.ctrlKey || event.metaKey) return
        event.preventDefault()
        event.stopPropagation()
        onFold()
      }}
      onPointerDown={(event) => {
        if (event.button !== 0 || isNaming) return
        if (event.shiftKey || event.ctrlKey || event.metaKey) {
          // The press would focus the row, and so select it alone.
          event.preventDefault()
          store.dispatch({ type: event.shiftKey ? 'stretch' : 'toggle', id })
          return
        }
        if (isSelected && !isLead) store.dispatch({ type: 'select', id })
        event.currentTarget.setPointerCapture(event.pointerId)
        trackPress({
          store,
          source: document,
          toWindow: (point) => point,
          start: { x: event.clientX, y: event.clientY },
          item: () => ({
            type: 'node',
            id,
            kind: node.kind,
            title: describeNode(store.state.page, id, store.registry),
          }),
        })
      }}
    >
      {onFold && (
        <Fold
          aria-hidden="true"
          data-open={isOpen ? '' : undefined}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={onFold}
        />
      )}
      {level > 1 && <KindIcon kind={node.kind} size={14} />}
      {isNaming ? (
        <NameField id={id} initial={node.name ?? label} onDone={() => setNaming(false)} />
      ) : (
        <span>{label}</span>
      )}
      {isShared && !isNaming && <Everywhere>on every page</Everywhere>}
      {linkedPart(node, store.registry) !== undefined && !isNaming && <LinkedMark id={id} />}
      {level > 1 && Object.keys(node.sizes).length > 1 && (
        <DiffersMark title="Different at a narrower size" />
      )}
      {node.lock && (
        <Icon
          of={Lock}
          size={12}
          strokeWidth={2}
          aria-label={node.lock === 'all' ? 'Locked' : 'Locked, all but its text'}
        />
      )}
      {problem && <TroubleMark severity={problem.severity} title={problem.message} />}
    </Row>
  )
}

/** On how many pages what an instance shows stands. */
function LinkedMark({ id }: { readonly id: NodeId }) {
  const { linked, registry } = useStore()
  const node = useNode(id)
  const parts = useValue(linked)
  const part = node && linkedPart(node, registry)
  const reach = part === undefined ? undefined : parts[part]?.reach
  return <Everywhere>{reach && reach.pages > 1 ? `on ${reach.pages} pages` : 'shared'}</Everywhere>
}

/** What the row says. While words are typed on the page it follows once they pause, so that a letter paints the page alone. */
function useLabel(id: NodeId): string {
  const store = useStore()
  const now = usePage((page) => (findNode(page, id) ? nodeName(store, page, id) : ''))
  const isTyping = useEditor((state) => state.typing !== undefined)
  const later = useLater(now, TYPING_PAUSE_MS)
  return isTyping ? later : now
}

/** The worst problem of a block; a section whose blocks are not shown stands for all of them. */
function useShownProblem(id: NodeId, isSection: boolean): Finding | undefined {
  const findings = useShownFindings()
  const store = useStore()
  return useEditor((state) => {
    const isOpen = !isSection || (state.selection !== undefined && topOf(store, state) === id)
    return findings.find(({ nodeId }) => {
      if (nodeId === undefined) return false
      // Of what an instance shows, the instance says it while that is not worked in.
      return isOpen ? pressedAt(store, nodeId).id === id : isWithin(state.page, stepsOf(nodeId)[0]!, id)
    })
  })
}

/** Gives a block a name of its own, letter by letter; an empty one resets it to its text. */
function NameField({ id, initial, onDone }: { id: NodeId; initial: string; onDone: () => void }) {
  const store = useStore()
  const name = (typed: string): void => {
    const value = typed.trim() === '' ? {} : { value: typed }
    store.do(`Named “${typed.trim()}”`, [{ edit: 'set', nodeId: id, at: ['name'], ...value }], {
      joinKey: `${id}/name`,
    })
  }
  return (
    <NameBox
      autoFocus
      aria-label="Name"
      defaultValue={initial}
      maxLength={200}
      onFocus={(event) => event.target.select()}
      onChange={(event) => name(event.target.value)}
      onBlur={onDone}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === 'Escape') event.currentTarget.blur()
        // The tree takes no key that is typed here; the screen has those that mean nothing in a field.
        if (!event.ctrlKey && !event.metaKey && !event.altKey) event.stopPropagation()
      }}
    />
  )
}
