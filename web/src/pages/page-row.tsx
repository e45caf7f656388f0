import { Ellipsis, ExternalLink, GripVertical, Pencil } from 'lucide-react'
import { useRef } from 'react'
import { mergeProps, useButton, useDrag, useDrop, type AriaButtonProps } from 'react-aria'
import { Menu, MenuTrigger } from 'react-aria-components'
import { Link } from 'react-router'
import styled from 'styled-components'
import type { PageState, PageSummary } from '@gullyline/core'
import { IconButton, mono } from '../ui/controls.tsx'
import { MenuLine, MenuPop, MenuRow, MenuOpener } from '../ui/menu.tsx'
import { Chip } from '../ui/chip.tsx'
import { when } from '../ui/when.ts'
import type { MoveDirection } from './tree-moves.ts'

const PageLink = styled(Link)`
  color: var(--strong);
  font-size: 14px;
  font-weight: 600;
  text-decoration: none;
  &:hover {
    color: var(--accent);
    text-decoration: underline;
  }
`
const Address = styled.div`
  ${mono}
  color: var(--quiet);
`
const Quiet = styled.span`
  color: var(--quiet);
  font-size: 12px;
`
const Acts = styled.div`
  display: flex;
  justify-content: flex-end;
`
const Cell = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
`
const Handle = styled.button`
  display: grid;
  place-items: center;
  width: 24px;
  height: 28px;
  margin-left: -6px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--control);
  cursor: grab;
  &:hover,
  &:focus-visible {
    color: var(--strong);
  }
`
const NoHandle = styled.span`
  width: 18px;
`
/** Where a dragged page lands after this one: a strip under the row, shown while something is over it. */
const AfterStrip = styled.div`
  position: absolute;
  inset: auto 0 -5px;
  z-index: 1;
  height: 10px;
  pointer-events: none;
  &[data-dragging] {
    pointer-events: auto;
  }
  &[data-over]::after,
  &:focus-visible::after {
    content: '';
    position: absolute;
    inset: 3px 0 3px calc(10px + var(--depth) * 22px);
    background: var(--accentBright);
  }
`

const STATES: Readonly<Record<PageState, { readonly words: string; readonly tone: string }>> = {
  live: { words: 'Live', tone: 'fine' },
  changed: { words: 'Saved, not live', tone: 'waiting' },
  'never-published': { words: 'Never published', tone: 'none' },
}

const DRAG_TYPE = 'application/x-gullyline-page'

/** What can be done with a page from the tree. */
export type PageAct = MoveDirection | 'rename' | 'add' | 'copy' | 'remove'

interface PageRowProps {
  readonly page: PageSummary
  readonly depth: number
  readonly isShown: boolean
  readonly mayChange: boolean
  /** Acts that can be done now. */
  readonly can: ReadonlySet<PageAct>
  readonly liveOrigin: string
  /** Whether a dragged page may land here. */
  readonly mayTake: (movingId: string) => boolean
  readonly isDragging: boolean
  readonly onDragging: (id: string | undefined) => void
  readonly onDrop: (movingId: string, where: 'after' | 'inside') => void
  readonly onShow: () => void
  readonly onAct: (act: PageAct) => void
}

/** With Alt; in and out with Shift as well, since browsers go back and forth with Alt and these arrows. */
const KEYS: Readonly<Record<string, MoveDirection>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  'Shift+ArrowRight': 'in',
  'Shift+ArrowLeft': 'out',
}

/** A page in the tree: its state, the ways to change it, and a place where other pages can be dropped. */
export function PageRow(props: PageRowProps) {
  const { page, depth, isShown, mayChange, can, liveOrigin, isDragging, onDragging, onShow, onAct } = props
  const row = useRef<HTMLTableRowElement>(null)
  const strip = useRef<HTMLDivElement>(null)
  const inside = useDropTarget(row, props, 'inside')
  const after = useDropTarget(strip, props, 'after')
  const mayMove = mayChange && can.has('remove')
  const { dragProps, dragButtonProps } = useDrag({
    hasDragButton: true,
    isDisabled: !mayMove,
    getItems: () => [{ [DRAG_TYPE]: page.id, 'text/plain': page.title }],
    getAllowedDropOperations: () => ['move'],
    onDragStart: () => onDragging(page.id),
    onDragEnd: () => onDragging(undefined),
  })
  const state = STATES[page.state]
  return (
    <tr
      ref={row}
      {...mergeProps(inside.dropProps, dragProps)}
      data-shown={isShown ? '' : undefined}
      data-over={inside.isDropTarget ? '' : undefined}
      style={{ '--depth': depth } as never}
      onMouseEnter={onShow}
      onFocus={onShow}
      onKeyDown={(event) => {
        const direction = event.altKey ? KEYS[`${event.shiftKey ? 'Shift+' : ''}${event.key}`] : undefined
        if (direction === undefined || !mayChange) return
        event.preventDefault()
        onAct(direction)
      }}
    >
      <td>
        <Cell>
          {mayMove ? <DragHandle title={page.title} button={dragButtonProps} /> : <NoHandle />}
          <div>
            <PageLink to={`/pages/${page.id}`}>{page.title}</PageLink>
            <Address>{page.path}</Address>
          </div>
        </Cell>
        <AfterStrip
          ref={strip}
          {...after.dropProps}
          {...(isDragging ? { role: 'button', tabIndex: -1, 'aria-label': `After ${page.title}` } : {})}
          data-dragging={isDragging ? '' : undefined}
          data-over={after.isDropTarget ? '' : undefined}
        />
      </td>
      <td>
        <Chip data-tone={state.tone}>{state.words}</Chip>
      </td>
      <td>
        <Quiet>
          {when(page.savedAt, new Date())} by {page.savedBy}
        </Quiet>
      </td>
      <td>
        <Acts>
          {mayChange && (
            <IconButton label={`Rename ${page.title}`} onPress={() => onAct('rename')}>
              <Pencil size={15} strokeWidth={1.75} />
            </IconButton>
          )}
          <IconButton
            label={`Open ${page.title} as visitors see it`}
            isDisabled={page.liveSince === null}
            onPress={() => window.open(liveOrigin + page.path, '_blank', 'noreferrer')}
          >
            <ExternalLink size={15} strokeWidth={1.75} />
          </IconButton>
          {mayChange && <PageMenu page={page} can={can} onAct={onAct} />}
        </Acts>
      </td>
    </tr>
  )
}

const MENU: readonly (readonly [act: PageAct, words: string, keys?: string] | 'line')[] = [
  ['add', 'Add a page under it'],
  ['copy', 'Duplicate…'],
  'line',
  ['up', 'Move up', 'Alt Up'],
  ['down', 'Move down', 'Alt Down'],
  ['in', 'Move under the page above', 'Alt Shift Right'],
  ['out', 'Move out', 'Alt Shift Left'],
  'line',
  ['remove', 'Remove…'],
]

function PageMenu({ page, can, onAct }: Pick<PageRowProps, 'page' | 'can' | 'onAct'>) {
  return (
    <MenuTrigger>
      <MenuOpener aria-label={`More acts on ${page.title}`}>
        <Ellipsis size={16} strokeWidth={1.75} />
      </MenuOpener>
      <MenuPop placement="bottom end">
        <Menu
          onAction={(key) => onAct(key as PageAct)}
          disabledKeys={MENU.flatMap((item) => (item === 'line' || can.has(item[0]) ? [] : [item[0]]))}
        >
          {MENU.map((item, i) =>
            item === 'line' ? (
              <MenuLine key={i} />
            ) : (
              <MenuRow key={item[0]} id={item[0]} textValue={item[1]}>
                {item[1]}
                {item[2] && <kbd>{item[2]}</kbd>}
              </MenuRow>
            ),
          )}
        </Menu>
      </MenuPop>
    </MenuTrigger>
  )
}

/** Begins a drag by keyboard; the pointer drags the whole row. */
function DragHandle({ title, button }: { title: string; button: AriaButtonProps }) {
  const ref = useRef<HTMLButtonElement>(null)
  const { buttonProps } = useButton({ ...button, 'aria-label': `Drag ${title}` }, ref)
  return (
    <Handle {...buttonProps} ref={ref}>
      <GripVertical size={15} strokeWidth={1.75} />
    </Handle>
  )
}

function useDropTarget(
  ref: React.RefObject<HTMLElement | null>,
  { mayTake, onDrop }: Pick<PageRowProps, 'mayTake' | 'onDrop'>,
  where: 'after' | 'inside',
) {
  return useDrop({
    ref,
    getDropOperation: (types) => (types.has(DRAG_TYPE) ? 'move' : 'cancel'),
    onDrop: (event) => {
      const [item] = event.items
      if (item?.kind !== 'text') return
      void item.getText(DRAG_TYPE).then((id) => {
        if (mayTake(id)) onDrop(id, where)
      })
    },
  })
}
