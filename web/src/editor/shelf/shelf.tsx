import { useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import {
  type NodeId,
  frameRefusal,
  createStarters,
  nodeLabel,
  placeAfter,
  placeEdit,
  type Starter,
  type Target,
} from '@gullyline/core'
import { FindBox, Keys } from '../../ui/controls.tsx'
import { typeInNew } from '../canvas/frame-input.ts'
import { followPress } from '../drag/drag-session.ts'
import { newId, usePage, useStore, type EditorStore } from '../editor-store.ts'
import { useShelf } from './shelf-state.ts'
import { StarterPicture } from './starter-picture.tsx'

const Tray = styled.section`
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  z-index: 20;
  display: grid;
  gap: 12px;
  padding: 12px 18px 16px;
  background: var(--paper);
  border-top: 1px solid var(--lineStrong);
  box-shadow: 0 -8px 30px rgb(25 33 30 / 18%);
  animation: rise 140ms ease-out;
  @keyframes rise {
    from {
      transform: translateY(24px);
      opacity: 0;
    }
  }
`

const Top = styled.div`
  display: flex;
  align-items: center;
  gap: 18px;
`

const Title = styled.h2`
  max-width: 320px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 14px;
`

const Narrow = styled.div`
  width: 260px;
`

const Filters = styled.div`
  display: flex;
  gap: 4px;
  button {
    padding: 4px 9px 5px;
    border: 0;
    border-bottom: 2px solid transparent;
    background: none;
    color: var(--quiet);
    font-weight: 550;
  }
  button[aria-pressed='true'] {
    border-color: var(--accent);
    color: var(--accent);
  }
`

const Close = styled.div`
  display: flex;
  gap: 12px;
  margin-left: auto;
  color: var(--quiet);
  font-size: 12px;
  button {
    border: 0;
    background: none;
    padding: 0;
  }
`

const Row = styled.ul`
  display: flex;
  gap: 16px;
  margin: 0 -18px;
  padding: 2px 18px 6px;
  overflow-x: auto;
  list-style: none;
`

const Card = styled.button`
  display: grid;
  gap: 6px;
  width: 186px;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
  touch-action: none;
  &:hover > :first-child,
  &:focus-visible > :first-child {
    border-color: var(--accentBright);
    box-shadow: 0 0 0 1px var(--accentBright);
  }
`

const Name = styled.span`
  color: var(--strong);
  font-weight: 600;
`

const About = styled.span`
  display: -webkit-box;
  overflow: hidden;
  color: var(--quiet);
  font-size: 12px;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
`

type Filter = 'all' | Starter['type']
const FILTERS: readonly { readonly id: Filter; readonly title: string }[] = [
  { id: 'all', title: 'Everything' },
  { id: 'block', title: 'Blocks' },
  { id: 'pattern', title: 'Patterns' },
]

/** The tray of things to add, with a live picture of each. Pressing one places it; dragging one places it anywhere. */
export function Shelf() {
  const store = useStore()
  const shelf = useShelf()
  const starters = useMemo(() => createStarters(store.registry), [store])
  const page = usePage((page) => page)
  const [search, setSearch] = useState('')
  const [filter, setFilter] = useState<Filter>('all')
  const list = useRef<HTMLUListElement>(null)
  const where = useWhere(shelf.after)
  if (shelf.after === undefined) return null
  // What the page's template has no room for is not offered.
  const matching = starters
    .filter((starter) => matches(starter, search) && !frameRefusal(page, starter.kind, store.registry))
    .sort(byTitle(search))
  const shown = matching.filter((starter) => filter === 'all' || starter.type === filter)
  const place = (starter: Starter): void => {
    const refusal = frameRefusal(page, starter.kind, store.registry)
    if (refusal !== undefined) return store.dispatch({ type: 'tell', words: refusal, tone: 'refused' })
    const placed = placeStarter(store, starter, targetFor(store, shelf.after ?? undefined, starter.kind))
    shelf.close()
    if (placed !== undefined) typeInNew(store, placed)
  }
  return (
    <Tray
      aria-label="Shelf"
      onKeyDown={(event) => {
        if (event.key === 'Escape') shelf.close()
        if (event.key === 'ArrowRight' || event.key === 'ArrowLeft')
          stepFocus(list.current, event.key === 'ArrowRight' ? 1 : -1, event)
      }}
    >
      <Top>
        <Title>{where}</Title>
        <Narrow>
          {/* The shelf is opened to type a name. */}
          <FindBox
            autoFocus
            label="Find something to add"
            placeholder="Find by name"
            value={search}
            onChange={setSearch}
            onEnter={() => shown[0] && place(shown[0])}
          />
        </Narrow>
        <Filters role="group" aria-label="Show">
          {FILTERS.map(({ id, title }) => (
            <button key={id} type="button" aria-pressed={filter === id} onClick={() => setFilter(id)}>
              {title} {matching.filter((starter) => id === 'all' || starter.type === id).length}
            </button>
          ))}
        </Filters>
        <Close>
          <span>
            Place <Keys>Enter</Keys>
          </span>
          <button type="button" onClick={shelf.close}>
            Close <Keys>Esc</Keys>
          </button>
        </Close>
      </Top>
      <Row ref={list}>
        {shown.map((starter) => (
          <li key={starter.id}>
            <Card
              type="button"
              aria-label={`${starter.title}. ${starter.about}`}
              onClick={(event) => event.detail === 0 && place(starter)}
              onPointerDown={(event) => {
                if (event.button !== 0) return
                event.currentTarget.setPointerCapture(event.pointerId)
                followPress({
                  store,
                  source: document,
                  toWindow: (point) => point,
                  start: { x: event.clientX, y: event.clientY },
                  item: () => ({ type: 'starter', starter, kind: starter.kind, title: starter.title }),
                  onClick: () => place(starter),
                })
              }}
            >
              <StarterPicture starter={starter} />
              <Name>{starter.title}</Name>
              <About>{starter.type === 'pattern' ? 'Pattern: your own copy' : starter.about}</About>
            </Card>
          </li>
        ))}
        {shown.length === 0 && <li>Nothing on the shelf is called “{search}”.</li>}
      </Row>
    </Tray>
  )
}

/** Things whose name begins with what was typed come first, the shortest name before longer ones; else the order stays. */
function byTitle(search: string): (a: Starter, b: Starter) => number {
  const typed = search.trim().toLowerCase()
  const rank = ({ title }: Starter) =>
    typed !== '' && title.toLowerCase().startsWith(typed) ? title.length : Infinity
  return (a, b) => (rank(a) === rank(b) ? 0 : rank(a) - rank(b))
}

function matches(starter: Starter, search: string): boolean {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  const text = `${starter.title} ${starter.about}`.toLowerCase()
  return words.every((word) => text.includes(word))
}

function targetFor(store: EditorStore, after: string | undefined, kind: string): Target {
  return placeAfter(store.state.page, after, kind, store.registry)
}

/** Gives the block that was added, not what had to be put around it; undefined when it was refused. */
function placeStarter(store: EditorStore, starter: Starter, target: Target): NodeId | undefined {
  const fragment = starter.build(newId)
  const edit = placeEdit(store.state.page, target, fragment, store.registry, newId)
  const isIn = store.do(`Added ${starter.title.toLowerCase()}`, [edit], {
    select: fragment.rootId,
    origin: 'shelf',
  })
  return isIn ? fragment.rootId : undefined
}

function useWhere(after: string | null | undefined): string {
  const { registry } = useStore()
  return usePage((page) => {
    if (after === undefined || after === null || !Object.hasOwn(page.nodes, after))
      return 'Add at the end of the page'
    return `Add below “${nodeLabel(page, after, registry)}”`
  })
}

function stepFocus(list: HTMLUListElement | null, step: number, event: React.KeyboardEvent): void {
  const cards = [...(list?.querySelectorAll('button') ?? [])]
  const at = cards.indexOf(document.activeElement as HTMLButtonElement)
  if (at < 0) return
  event.preventDefault()
  cards[Math.min(cards.length - 1, Math.max(0, at + step))]?.focus()
}
