import { Ellipsis } from 'lucide'
import { useEffect, useRef, useState } from 'react'
import { Menu, MenuTrigger } from 'react-aria-components'
import styled from 'styled-components'
import { MenuLine as Line, MenuPop as Pop, MenuRow as Item, MenuOpener } from '../../ui/menu.tsx'
import { frameToWindow } from '../canvas/frame-geometry.ts'
import { gridCanvas } from '../canvas/canvas-later.ts'
import { keysOf, offered, type CommandId } from './command-list.ts'
import { useRunCommand } from './commands.ts'
import { useStore } from '../session/editor-store.ts'
import { Icon } from '../../ui/icon.tsx'

const Spot = styled.span`
  position: fixed;
  left: var(--x);
  top: var(--y);
  width: 1px;
  height: 1px;
`

/** All that can be done with what is selected. */
const GROUPS: readonly (readonly CommandId[])[] = [
  ['type', 'add', 'duplicate', 'copy', 'cut', 'paste'],
  ['move-up', 'move-down', 'in-before', 'out-after'],
  ['wrap-group', 'wrap-stack', 'wrap-row', 'wrap-columns', 'unwrap'],
  ['to-heading', 'to-quote', 'to-text', 'copy-look', 'paste-look', 'copy-arrangement'],
  ['save-pattern', 'make-shared', 'own-copy'],
  ['hold', 'hold-words', 'let-go'],
  ['delete'],
]

function SelectionCommands({ onDone }: { onDone?: () => void }) {
  const run = useRunCommand()
  const { mayChange, state, registry } = useStore()
  const inGrid = gridCanvas.use()?.gridMenu(state, registry) ?? []
  const all = [...GROUPS.slice(0, 2), ...inGrid, ...GROUPS.slice(2)]
  const groups = all.map((ids) => offered(ids, mayChange)).filter((ids) => ids.length > 0)
  return (
    <Menu
      aria-label="Actions on the selection"
      onAction={(id) => {
        onDone?.()
        run(id as CommandId)
      }}
    >
      {groups.flatMap((ids, i) => [
        ...(i > 0 ? [<Line key={i} />] : []),
        ...ids.map((id) => {
          const { title, keys } = keysOf(id)
          return (
            <Item key={id} id={id} textValue={title}>
              {title} {keys !== '' && <kbd>{keys}</kbd>}
            </Item>
          )
        }),
      ])}
    </Menu>
  )
}

/** The button that opens the menu. */
export function SelectionMenuButton() {
  return (
    <MenuTrigger>
      <MenuOpener aria-label="More actions">
        <Icon of={Ellipsis} size={16} strokeWidth={1.75} />
      </MenuOpener>
      <Pop placement="bottom end">
        <SelectionCommands />
      </Pop>
    </MenuTrigger>
  )
}

interface CanvasMenuProps {
  readonly inner: Document
  /** Selects what is under a point before the menu opens for it. */
  readonly onPoint: (target: Element) => void
}

/** The same menu where the second button of a mouse was pressed on the page, or by the keyboard's menu key. */
export function CanvasMenu({ inner, onPoint }: CanvasMenuProps) {
  const store = useStore()
  const [at, setAt] = useState<{ readonly x: number; readonly y: number }>()
  const spot = useRef<HTMLSpanElement>(null)
  useEffect(() => {
    const open = (event: MouseEvent): void => {
      // Words that are being typed have the browser's own menu, with its spelling.
      if (store.state.typing) return
      event.preventDefault()
      const frame = inner.defaultView?.frameElement as HTMLIFrameElement | null
      if (!frame) return
      onPoint(event.target as Element)
      if (store.state.selection !== undefined)
        setAt(frameToWindow(frame, { x: event.clientX, y: event.clientY }))
    }
    inner.addEventListener('contextmenu', open)
    return () => inner.removeEventListener('contextmenu', open)
  }, [inner, store, onPoint])
  return (
    <>
      <Spot ref={spot} style={{ '--x': `${at?.x ?? 0}px`, '--y': `${at?.y ?? 0}px` }} />
      <Pop
        triggerRef={spot}
        placement="bottom start"
        isOpen={at !== undefined}
        onOpenChange={(isOpen) => !isOpen && setAt(undefined)}
      >
        <SelectionCommands onDone={() => setAt(undefined)} />
      </Pop>
    </>
  )
}
