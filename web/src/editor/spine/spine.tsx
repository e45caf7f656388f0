import { Plus } from 'lucide'
import { Fragment, useEffect, useRef, useState } from 'react'
import styled from 'styled-components'
import { ASIDE, layoutOf, getNode, isSharedSlot, sharedRoot, type NodeId } from '@gullyline/core'
import { Button, FindBox } from '../../ui/controls.tsx'
import { registerLanding } from '../drag/landing-places.ts'
import { useEditorAfterPaint, usePage, useStore } from '../session/editor-store.ts'
import { useShelf } from '../shelf/shelf-state.ts'
import { focusCanvas } from '../canvas/focus-canvas.ts'
import { useHeights } from './section-heights.ts'
import { landingOnRow } from './spine-landing.ts'
import { topOf } from './top-of.ts'
import { SpineFound, SpineNode } from './spine-node.tsx'
import { counted } from '../../ui/counted.ts'
import { Icon } from '../../ui/icon.tsx'

const Pane = styled.nav`
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 10px;
  background: var(--panel);
  border-right: 1px solid var(--line);
`
const Title = styled.h2`
  display: flex;
  justify-content: space-between;
  padding: 0 2px 8px;
  color: var(--quiet);
  font-size: 12px;
  font-weight: 450;
`
const Tree = styled.ul`
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 5px;
  min-height: 0;
  margin: 6px -4px 0;
  padding: 2px 4px 10px;
  overflow: auto;
  list-style: none;
`
const PartTitle = styled.li`
  flex: none;
  padding: 4px 2px 0;
  color: var(--quiet);
  font-size: 12px;
  &[data-aside] {
    color: var(--clay);
  }
`
/** The page in proportion: tall sections are tall here too. The one that is worked on is opened. */
export function Spine({ inner }: { inner: Document | undefined }) {
  const store = useStore()
  const shelf = useShelf()
  const tree = useRef<HTMLUListElement>(null)
  const slots = usePage((page) => getNode(page, page.root).slots)
  const content = usePage((page) => getNode(page, page.root).content)
  const layout = layoutOf(content)
  const parts = Object.entries({ ...layout.slots, [ASIDE]: 'Not in this template: not published' }).map(
    ([slot, title]) => ({
      slot,
      title,
      ids: slots[slot] ?? NONE,
    }),
  )
  // What stands in slots that this template does not show is aside as well.
  const hidden = Object.entries(slots).flatMap(([slot, ids]) =>
    slot === ASIDE || slot in layout.slots || isSharedSlot(slot) ? [] : ids,
  )
  const sections = slots.sections ?? NONE
  const isSimple = Object.keys(layout.slots).length === 1
  const [search, setSearch] = useState('')
  const isWhole = search.trim() === ''
  const header = usePage((page) => sharedRoot(page, 'header'))
  const footer = usePage((page) => sharedRoot(page, 'footer'))
  // What is selected is painted first, on the page and in its row; that its section opens here may come a layout later.
  const openId = useEditorAfterPaint((state) =>
    state.selection === undefined ? undefined : topOf(store, state),
  )
  const heights = useHeights(inner, sections)

  useEffect(
    () =>
      registerLanding((item, point) => {
        const row = document.elementFromPoint(point.x, point.y)?.closest<HTMLElement>('[data-spine-row]')
        const id = row?.dataset.spineRow
        if (!row || id === undefined || !tree.current?.contains(row)) return undefined
        return landingOnRow(
          store.state.page,
          store.registry,
          item,
          { id, box: row.getBoundingClientRect() },
          point,
        )
      }),
    [store],
  )

  return (
    <Pane aria-label="Spine">
      <Title>
        <span>Spine</span>
        <span>{counted(sections.length, 'section')}</span>
      </Title>
      <FindBox
        label="Search blocks"
        placeholder="Search blocks"
        value={search}
        onChange={setSearch}
        onLeave={focusCanvas}
      />
      <Tree
        ref={tree}
        role="tree"
        aria-label="Sections and blocks"
        aria-multiselectable="true"
        onKeyDown={(event) => onTreeKey(event, tree.current)}
      >
        {header !== undefined && isWhole && (
          <SpineNode key={header} id={header} level={1} isWorkedOn={header === openId} isShared />
        )}
        {isWhole ? (
          parts.map(({ slot, title, ids }) => {
            const all = slot === ASIDE ? [...ids, ...hidden] : ids
            return (
              <Fragment key={slot}>
                {(slot === ASIDE ? all.length > 0 : !isSimple) && (
                  <PartTitle role="none" data-aside={slot === ASIDE ? '' : undefined}>
                    {title}
                  </PartTitle>
                )}
                {all.map((id) => (
                  <SpineNode key={id} id={id} level={1} height={heights.get(id)} isWorkedOn={id === openId} />
                ))}
              </Fragment>
            )
          })
        ) : (
          <SpineFound search={search} />
        )}
        {footer !== undefined && isWhole && (
          <SpineNode key={footer} id={footer} level={1} isWorkedOn={footer === openId} isShared />
        )}
      </Tree>
      {store.mayChange && (
        <Button onPress={() => shelf.openAfter(store.state.selection)}>
          <Icon of={Plus} size={15} strokeWidth={2} /> Add to page
        </Button>
      )}
    </Pane>
  )
}

const NONE: readonly NodeId[] = []

/** Up and down through what is shown, as trees go (ARIA Authoring Practices, "Tree View"). */
function onTreeKey(event: React.KeyboardEvent, tree: HTMLElement | null): void {
  if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return
  if (event.target instanceof HTMLInputElement) return
  const rows = [...(tree?.querySelectorAll<HTMLElement>('[data-spine-row]') ?? [])]
  const at = rows.indexOf(document.activeElement as HTMLElement)
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[event.key]
  if (to === undefined || at < 0) return
  event.preventDefault()
  event.stopPropagation()
  rows[Math.min(rows.length - 1, Math.max(0, to))]?.focus()
}
