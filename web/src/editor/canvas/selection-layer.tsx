import { Lock, Plus } from 'lucide'
import { memo } from 'react'
import { Button as RoundBase } from 'react-aria-components'
import styled from 'styled-components'
import {
  ancestry,
  findNode,
  findPlace,
  instanceAround,
  linkedPart,
  originOf,
  type NodeId,
  type Page,
  type ShownId,
} from '@gullyline/core'
import { useEditor, usePage, useStore } from '../session/editor-store.ts'
import { Button } from '../../ui/controls.tsx'
import { useValue } from '../../ui/value.ts'
import { reachWords } from '../session/reach.ts'
import { useSiteView } from '../session/site-view.ts'
import { useShelf } from '../shelf/shelf-state.ts'
import { atBox, boxVariables } from './at-box.ts'
import { boxOf, type Box } from './boxes.ts'
import { shownId } from './shown-ids.ts'
import { boxToWindow, useFrameLayout } from './frame-geometry.ts'
import { useNodeTitle } from './node-title.ts'
import { gridCanvas } from './canvas-later.ts'
import { textEditing } from './text-editing-later.ts'
import { Icon } from '../../ui/icon.tsx'

const Outline = styled.div`
  ${atBox}
  outline: 2px solid var(--accentBright);
  /* Off the letters, which may stand at the very edge of the box. */
  outline-offset: 3px;
  pointer-events: none;
  &[data-parent] {
    outline: 1px dashed color-mix(in srgb, var(--accentBright) 65%, transparent);
  }
`

/** Above the page, where it covers nothing of it. */
/** Everything but what is worked in is dimmed. A double rule marks its edge, as for all that stands in more than one place. */
const Worked = styled.div`
  ${atBox}
  box-shadow: 0 0 0 9999px rgb(25 33 30 / 32%);
  pointer-events: none;
  &::before {
    content: '';
    position: absolute;
    inset: 0 auto 0 -6px;
    border-left: 5px double var(--accentBright);
  }
`

/** Above the page, at its other end: what is changed here, and where else that is seen. */
const WorkedTag = styled.span`
  position: absolute;
  right: 10px;
  top: 5px;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 1px 4px 1px 10px;
  border-left: 5px double var(--control);
  border-radius: 3px;
  background: var(--paper);
  color: var(--strong);
  font-size: 12px;
  line-height: 20px;
  box-shadow: 0 1px 4px rgb(25 33 30 / 20%);
  pointer-events: auto;
`

const Tag = styled.span`
  position: absolute;
  left: max(4px, var(--x) - 5px);
  top: 14px;
  max-width: 260px;
  overflow: hidden;
  text-overflow: ellipsis;
  padding: 2px 8px;
  border-radius: 3px;
  background: #0a6c7c;
  color: #fff;
  font-size: 11.5px;
  font-weight: 600;
  line-height: 18px;
  white-space: nowrap;
  svg {
    margin: 0 5px -1px 0;
  }
`

const AddSpot = styled.div`
  position: absolute;
  /* Beside the block, where it covers no word of it or of the next one. */
  left: max(2px, calc(var(--x) - 32px));
  top: calc(var(--y) + var(--h) - 12px);
  pointer-events: auto;
`

const RoundButton = styled(RoundBase)`
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 2px solid #fff;
  border-radius: 50%;
  background: #0a6c7c;
  color: #fff;
  box-shadow: 0 2px 6px rgb(0 0 0 / 30%);
`

const Clip = styled.div`
  position: absolute;
  inset: 0;
  overflow: hidden;
  pointer-events: none;
  & > [role='separator'] {
    pointer-events: auto;
  }
`

/** What is selected, drawn over the frame: its outline and name, what holds it, and the way to add after it. */
export function SelectionLayer({ inner, area }: { inner: Document; area: HTMLElement }) {
  useFrameLayout(inner)
  // Each edit may move the box, so the layer is rendered with the page.
  usePage((page) => page)
  const selection = useEditor((state) => state.selection)
  const parent = useEditor((state) =>
    state.selection === undefined ? undefined : findPlace(state.page, state.selection)?.parentId,
  )
  const also = useEditor((state) => state.also)
  const isTyping = useEditor((state) => state.typing !== undefined)
  const box = useBox(inner, area, selection)
  const around = useBox(inner, area, parent)
  const bar = textEditing.use()
  const grid = gridCanvas.use()
  const { mayChange } = useStore()
  const toLayer = (one: Box): Box => {
    const frame = inner.defaultView?.frameElement as HTMLIFrameElement
    const origin = area.getBoundingClientRect()
    const inWindow = boxToWindow(frame, one)
    return { ...inWindow, left: inWindow.left - origin.left, top: inWindow.top - origin.top }
  }
  if (selection === undefined || !box) return null
  return (
    <Clip>
      <WorkedIn inner={inner} area={area} />
      {!isTyping && grid && <grid.ColumnDividers inner={inner} toLayer={toLayer} />}
      {!isTyping && grid && <grid.GridHandles id={selection} inner={inner} toLayer={toLayer} />}
      {around && <Outline data-parent="" style={boxVariables(around)} />}
      {also.map((id) => (
        <AlsoSelected key={id} id={id} inner={inner} area={area} />
      ))}
      <Outline style={boxVariables(box)} />
      {isTyping ? (
        bar && <bar.TextBar left={box.left} />
      ) : (
        <>
          <NameTag id={selection} left={box.left} />
          {mayChange && (
            <AddSpot style={boxVariables(box)}>
              <AddHere after={selection} />
            </AddSpot>
          )}
        </>
      )}
    </Clip>
  )
}

/** The linked part that is worked in, and its reach. */
function WorkedIn({ inner, area }: { inner: Document; area: HTMLElement }) {
  const store = useStore()
  const around = useEditor((state) => state.around)
  const linked = useValue(store.linked)
  const view = useSiteView()
  const box = useShownBox(inner, area, around === '' ? undefined : around)
  if (!box) return null
  const instance = findNode(store.state.page, originOf(around))
  const part = instance && linkedPart(instance, store.registry)
  const leave = (): void =>
    store.dispatch({ type: 'select', id: originOf(around), around: instanceAround(around) })
  return (
    <>
      <Worked style={boxVariables(box)} />
      <WorkedTag role="note">
        {part !== undefined && reachWords(part, { ...view, linked })}
        <Button onPress={leave}>Done</Button>
      </WorkedTag>
    </>
  )
}

/** Apart from where it stands, which changes with every edit. */
const AddHere = memo(function AddHere({ after }: { after: NodeId }) {
  const shelf = useShelf()
  return (
    <RoundButton aria-label="Add below" onPress={() => shelf.openAfter(after)}>
      <Icon of={Plus} size={14} strokeWidth={2.5} />
    </RoundButton>
  )
})

function AlsoSelected({ id, inner, area }: { id: NodeId; inner: Document; area: HTMLElement }) {
  const box = useBox(inner, area, id)
  return box ? <Outline style={boxVariables(box)} /> : null
}

function NameTag({ id, left }: { id: NodeId; left: number }) {
  const title = useNodeTitle(id)
  const lock = usePage((page) => lockOf(page, id))
  return (
    <Tag style={{ '--x': `${left}px` }}>
      {lock && <Icon of={Lock} size={12} strokeWidth={2} aria-label={LOCKED[lock]} />}
      {title}
    </Tag>
  )
}

const LOCKED = { all: 'Locked', text: 'Locked, all but its text' } as const

/** How a block is locked, by itself or by what holds it; undefined when it is not. */
function lockOf(page: Page, id: NodeId): 'all' | 'text' | undefined {
  const locks = ancestry(page, id).flatMap((one) => findNode(page, one)?.lock ?? [])
  return locks.includes('all') ? 'all' : locks[0]
}

/** The box of a node in the coordinates of the canvas area, as it is laid out now. */
function useBox(inner: Document, area: HTMLElement, id: NodeId | undefined): Box | undefined {
  const store = useStore()
  return useShownBox(inner, area, id === undefined ? undefined : shownId(store, id))
}

/** The same for a shown node. */
function useShownBox(inner: Document, area: HTMLElement, shown: ShownId | undefined): Box | undefined {
  if (shown === undefined) return undefined
  const frame = inner.defaultView?.frameElement as HTMLIFrameElement | null
  // Measured while rendering: this component is rendered whenever the layout may have changed, and for nothing else.
  const box = boxOf(inner, shown)
  const origin = area.getBoundingClientRect()
  if (!frame || !box) return undefined
  const inWindow = boxToWindow(frame, box)
  return { ...inWindow, left: inWindow.left - origin.left, top: inWindow.top - origin.top }
}
