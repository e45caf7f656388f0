import { ChevronDown, ChevronRight, Ellipsis, ExternalLink, GripVertical } from 'lucide'
import { memo, useRef } from 'react'
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
import { Icon } from '../ui/icon.tsx'

/** Every row is as high, so that the list knows where each one is without drawing it. */
export const ROW_HEIGHT = 48

/** The columns of the list, in its head as in every row. */
export const COLUMNS = 'minmax(200px, 1fr) 160px 72px 68px'

const Row = styled.div`
  position: absolute;
  inset: 0 0 auto;
  display: grid;
  grid-template-columns: ${COLUMNS};
  align-items: center;
  height: ${ROW_HEIGHT}px;
  border-bottom: 1px solid var(--line);
  &:hover {
    background: var(--panel);
  }
  &[data-current] {
    background: var(--panel);
    box-shadow: inset 3px 0 0 var(--accent);
  }
  &[aria-selected='true'],
  &[data-over] {
    background: var(--accentTint);
  }
  &:focus-visible {
    z-index: 1;
    outline-offset: -2px;
  }
  > * {
    min-width: 0;
    padding: 0 8px;
  }
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) 150px 64px;
    > :nth-child(3) {
      display: none;
    }
  }
`
const PageLink = styled(Link)`
  display: block;
  overflow: hidden;
  color: var(--strong);
  font-size: 14px;
  font-weight: 600;
  text-decoration: none;
  text-overflow: ellipsis;
  white-space: nowrap;
  &:hover {
    color: var(--accent);
    text-decoration: underline;
  }
`
const Address = styled.div`
  ${mono}
  overflow: hidden;
  color: var(--quiet);
  text-overflow: ellipsis;
  white-space: nowrap;
`
const Quiet = styled.span`
  display: block;
  overflow: hidden;
  color: var(--quiet);
  font-size: 12px;
  text-overflow: ellipsis;
  white-space: nowrap;
`
const Acts = styled.div`
  display: flex;
  justify-content: flex-end;
`
const Name = styled.div`
  display: flex;
  gap: 2px;
  align-items: center;
  && {
    padding-left: calc(8px + var(--depth) * 20px);
  }
  > div {
    min-width: 0;
  }
`
const Small = styled.button`
  display: grid;
  flex: none;
  place-items: center;
  width: 24px;
  height: 28px;
  margin-right: -4px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--control);
  &:hover,
  &:focus-visible {
    color: var(--strong);
  }
`
const Handle = styled(Small)`
  cursor: grab;
`
const Gap = styled.span`
  flex: none;
  width: 20px;
`
/** Where a dragged page lands after this one: a strip under the row, shown while something is over it. */
const AfterStrip = styled.div`
  position: absolute;
  inset: auto 0 -5px;
  z-index: 1;
  height: 10px;
  padding: 0;
  pointer-events: none;
  &[data-dragging] {
    pointer-events: auto;
  }
  &[data-over]::after,
  &:focus-visible::after {
    content: '';
    position: absolute;
    inset: 3px 0 3px calc(10px + var(--depth) * 20px);
    background: var(--accentBright);
  }
`

const STATES: Readonly<Record<PageState, { readonly words: string; readonly tone: string }>> = {
  live: { words: 'Live', tone: 'fine' },
  changed: { words: 'Unpublished changes', tone: 'waiting' },
  'never-published': { words: 'Draft', tone: 'none' },
}

const DRAG_TYPE = 'application/x-gullyline-page'

/** What can be done with a page from the list. */
export type PageAct =
  | MoveDirection
  | 'rename'
  | 'add'
  | 'copy'
  | 'export'
  | 'publish'
  | 'unpublish'
  | 'delete'

/** What rows ask of the list; the same object as long as the pages are. */
export interface RowActs {
  readonly can: (page: PageSummary) => ReadonlySet<PageAct>
  readonly act: (page: PageSummary, act: PageAct) => void
  /** Whether a dragged page may land on a page. */
  readonly mayLand: (movingId: string, on: PageSummary) => boolean
  readonly land: (movingId: string, on: PageSummary, where: 'after' | 'inside') => void
  readonly drag: (id: string | undefined) => void
  readonly show: (id: string) => void
  readonly select: (id: string, isSelected: boolean) => void
  readonly expand: (id: string, isExpanded: boolean) => void
}

interface PageRowProps {
  readonly page: PageSummary
  readonly depth: number
  /** Its number in the list, from 0. */
  readonly index: number
  /** Undefined for a page without sub-pages. */
  readonly isExpanded: boolean | undefined
  readonly isCurrent: boolean
  readonly isSelected: boolean
  readonly isDragging: boolean
  /** What stands for the site or for addresses that do not exist, in a word. */
  readonly role: string | undefined
  readonly mayChange: boolean
  /** False in a list that was searched: what stands beside a page there is not its neighbour. */
  readonly isTree: boolean
  readonly liveOrigin: string
  readonly acts: RowActs
}

/** A page in the list: its state, the ways to change it, and a place where other pages can be dropped. */
export const PageRow = memo(function PageRow(props: PageRowProps) {
  const { page, depth, index, isExpanded, isCurrent, isSelected, isDragging, acts } = props
  const { mayChange, isTree, liveOrigin } = props
  const row = useRef<HTMLDivElement>(null)
  const strip = useRef<HTMLDivElement>(null)
  const inside = useDropTarget(row, props, 'inside')
  const after = useDropTarget(strip, props, 'after')
  const can = acts.can(page)
  const mayMove = mayChange && isTree && can.has('delete')
  const { dragProps, dragButtonProps } = useDrag({
    hasDragButton: true,
    isDisabled: !mayMove,
    getItems: () => [{ [DRAG_TYPE]: page.id, 'text/plain': page.title }],
    getAllowedDropOperations: () => ['move'],
    onDragStart: () => acts.drag(page.id),
    onDragEnd: () => acts.drag(undefined),
  })
  const state = STATES[page.state]
  const tabIndex = isCurrent ? 0 : -1
  return (
    <Row
      ref={row}
      {...mergeProps(inside.dropProps, dragProps)}
      role="row"
      tabIndex={tabIndex}
      aria-level={depth + 1}
      aria-rowindex={index + 2}
      aria-expanded={isExpanded}
      aria-selected={isSelected}
      data-page={page.id}
      data-current={isCurrent ? '' : undefined}
      data-over={inside.isDropTarget ? '' : undefined}
      style={{ '--depth': depth, transform: `translateY(${index * ROW_HEIGHT}px)` }}
      onFocus={() => acts.show(page.id)}
      onClick={(event) => {
        acts.show(page.id)
        if (event.target instanceof HTMLElement && !event.target.closest('a, button, input'))
          row.current?.focus()
      }}
    >
      <Name role="rowheader">
        {mayChange && (
          <input
            type="checkbox"
            tabIndex={tabIndex}
            aria-label={`Select ${page.title}`}
            checked={isSelected}
            onChange={(event) => acts.select(page.id, event.target.checked)}
          />
        )}
        {mayMove ? <DragHandle title={page.title} button={dragButtonProps} tabIndex={tabIndex} /> : <Gap />}
        {isExpanded === undefined ? (
          isTree && <Gap />
        ) : (
          <Small
            type="button"
            tabIndex={-1}
            aria-label={`${isExpanded ? 'Collapse' : 'Expand'} ${page.title}`}
            onClick={() => acts.expand(page.id, !isExpanded)}
          >
            {isExpanded ? <Icon of={ChevronDown} size={16} /> : <Icon of={ChevronRight} size={16} />}
          </Small>
        )}
        <div>
          <PageLink to={`/pages/${page.id}`} tabIndex={tabIndex}>
            {page.title}
          </PageLink>
          <Address>{props.role === undefined ? page.path : `${page.path} · ${props.role}`}</Address>
        </div>
      </Name>
      <div role="gridcell">
        <Chip data-tone={state.tone}>{state.words}</Chip>
      </div>
      <div role="gridcell">
        <Quiet title={`By ${page.savedBy}`}>{when(page.savedAt)}</Quiet>
      </div>
      <Acts role="gridcell">
        <IconButton
          label={`View live page: ${page.title}`}
          isDisabled={page.liveSince === null}
          excludeFromTabOrder={!isCurrent}
          onPress={() => window.open(liveOrigin + page.path, '_blank', 'noreferrer')}
        >
          <Icon of={ExternalLink} size={15} strokeWidth={1.75} />
        </IconButton>
        <PageMenu page={page} can={can} onAct={(act) => acts.act(page, act)} isInTabOrder={isCurrent} />
      </Acts>
      {isTree && (
        <AfterStrip
          ref={strip}
          {...after.dropProps}
          {...(isDragging ? { role: 'button', tabIndex: -1, 'aria-label': `After ${page.title}` } : {})}
          data-dragging={isDragging ? '' : undefined}
          data-over={after.isDropTarget ? '' : undefined}
        />
      )}
    </Row>
  )
})

const MENU: readonly (readonly [act: PageAct, words: string, keys?: string] | 'line')[] = [
  ['publish', 'Publish…'],
  ['unpublish', 'Unpublish…'],
  'line',
  ['rename', 'Rename…'],
  ['add', 'Add sub-page…'],
  ['copy', 'Duplicate…'],
  ['export', 'Export with sub-pages'],
  'line',
  ['up', 'Move up', 'Alt Up'],
  ['down', 'Move down', 'Alt Down'],
  ['in', 'Move under previous page', 'Alt Shift Right'],
  ['out', 'Move up a level', 'Alt Shift Left'],
  'line',
  ['delete', 'Delete…', 'Delete'],
]
/** What reviewers may do: nothing is offered that would be refused. */
const FOR_REVIEWERS: ReadonlySet<PageAct> = new Set(['publish', 'unpublish'])

/** The commands of a menu that somebody who may or may not change pages has. */
function pageMenu(mayChange: boolean): readonly (typeof MENU)[number][] {
  return mayChange ? MENU : MENU.filter((item) => item !== 'line' && FOR_REVIEWERS.has(item[0]))
}

interface PageMenuProps {
  readonly page: PageSummary
  readonly can: ReadonlySet<PageAct>
  readonly onAct: (act: PageAct) => void
  readonly isInTabOrder: boolean
}

function PageMenu({ page, can, onAct, isInTabOrder }: PageMenuProps) {
  const mayChange = can.has('copy')
  const menu = pageMenu(mayChange)
  return (
    <MenuTrigger>
      <MenuOpener aria-label={`More actions: ${page.title}`} excludeFromTabOrder={!isInTabOrder}>
        <Icon of={Ellipsis} size={16} strokeWidth={1.75} />
      </MenuOpener>
      <MenuPop placement="bottom end">
        <Menu
          onAction={(key) => onAct(key as PageAct)}
          disabledKeys={menu.flatMap((item) => (item === 'line' || can.has(item[0]) ? [] : [item[0]]))}
        >
          {menu.map((item, i) =>
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

interface DragHandleProps {
  readonly title: string
  readonly button: AriaButtonProps
  readonly tabIndex: number
}

/** Begins a drag by keyboard; the pointer drags the whole row. */
function DragHandle({ title, button, tabIndex }: DragHandleProps) {
  const ref = useRef<HTMLButtonElement>(null)
  const { buttonProps } = useButton({ ...button, 'aria-label': `Drag ${title}` }, ref)
  return (
    <Handle {...buttonProps} tabIndex={tabIndex} ref={ref}>
      <Icon of={GripVertical} size={15} strokeWidth={1.75} />
    </Handle>
  )
}

function useDropTarget(
  ref: React.RefObject<HTMLElement | null>,
  { page, acts, isTree }: Pick<PageRowProps, 'page' | 'acts' | 'isTree'>,
  where: 'after' | 'inside',
) {
  return useDrop({
    ref,
    isDisabled: !isTree,
    getDropOperation: (types) => (types.has(DRAG_TYPE) ? 'move' : 'cancel'),
    onDrop: (event) => {
      const [item] = event.items
      if (item?.kind !== 'text') return
      void item.getText(DRAG_TYPE).then((id) => {
        if (acts.mayLand(id, page)) acts.land(id, page, where)
      })
    },
  })
}
