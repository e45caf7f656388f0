import { useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import {
  createStarters,
  findNode,
  itemStarters,
  layoutRefusal,
  PURPOSES,
  nodeLabel,
  savedStarter,
  takeNameMarkEdits,
  placeAfter,
  type Purpose,
  type Starter,
  type Target,
} from '@gullyline/core'
import { useParts } from '../../api/hooks.ts'
import { Card } from '../../ui/card.ts'
import { FindBox, Keys, Tabs } from '../../ui/controls.tsx'
import { startTyping, typeInNew } from '../canvas/frame-input.ts'
import { isInstance, isOfComponent } from '../canvas/shown-ids.ts'
import { trackPress } from '../drag/drag-session.ts'
import { usePage, useStore, type EditorStore } from '../session/editor-store.ts'
import { findStarters } from './find-starters.ts'
import { placeStarter } from './place-starter.ts'
import { useRecent } from './use-recent.ts'
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
  flex-wrap: wrap;
  gap: 8px 18px;
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

const Grid = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(148px, 1fr));
  gap: 12px;
  max-height: min(340px, 42vh);
  margin: 0 -18px;
  padding: 2px 18px 6px;
  overflow-y: auto;
  list-style: none;
`

const None = styled.p`
  color: var(--quiet);
`

const StarterCard = styled(Card)`
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
  /* As for everything that stands in more than one place. */
  &[data-shared] {
    padding-left: 8px;
    border-left: 5px double var(--control);
  }
`

const About = styled.span`
  display: -webkit-box;
  overflow: hidden;
  color: var(--quiet);
  font-size: 12px;
  -webkit-line-clamp: 1;
  -webkit-box-orient: vertical;
`

type Filter = 'all' | Purpose
const FILTERS: readonly (readonly [Filter, string])[] = [
  ['all', 'All'],
  ...(Object.entries(PURPOSES) as [Purpose, string][]),
]

/** The tray of things to add, with a live picture of each. Pressing one places it; dragging one places it anywhere. */
export function Shelf() {
  const store = useStore()
  const shelf = useShelf()
  const { data: parts } = useParts()
  const starters = useMemo(() => {
    const saved = (parts ?? []).flatMap((part) => {
      const { type, binnedAt } = part
      return binnedAt === null && type !== 'template' ? [savedStarter({ ...part, type }, store.registry)] : []
    })
    const shipped = createStarters(store.registry)
    // Blocks before ready arrangements of them, of which there are many.
    const isBlock = ({ type }: Starter): boolean => type === 'block'
    return [...saved, ...shipped.filter(isBlock), ...shipped.filter((one) => !isBlock(one))]
  }, [store, parts])
  const page = usePage((page) => page)
  const [search, setSearch] = useState('')
  const [filter, setFilter] = useState<Filter>('all')
  const [recent, remember] = useRecent()
  const list = useRef<HTMLUListElement>(null)
  const where = useWhere(shelf.after)
  // What the page's layout has no room for is not offered.
  const { after, mark } = shelf
  // Another item of what is selected comes first, and is nothing elsewhere.
  const items = useMemo(
    () => (after != null && findNode(page, after) ? itemStarters(page, after, store.registry) : []),
    [page, after, store],
  )
  const fitting = [...items, ...starters].filter(
    (starter) => !layoutRefusal(page, starter.kind, store.registry),
  )
  const matching = findStarters(fitting, search, recent)
  const shown = matching.filter(
    (starter) => filter === 'all' || starter.purpose === filter || items.includes(starter),
  )
  const place = (starter: Starter): void => {
    const refusal = layoutRefusal(page, starter.kind, store.registry)
    if (refusal !== undefined) return store.dispatch({ type: 'tell', words: refusal, tone: 'refused' })
    const placed = placeStarter(
      store,
      starter,
      targetFor(store, shelf.after ?? undefined, starter.kind),
      'shelf',
      // The paragraph may say something else by now.
      mark && takeNameMarkEdits(store.state.page, mark.id, mark.at, store.registry),
    )
    remember(starter.id)
    shelf.close()
    if (placed === undefined) return
    if (isOfComponent(store, placed)) startTyping(store, placed, undefined, 'all')
    else if (!isInstance(store, placed)) typeInNew(store, placed)
  }
  return (
    <Tray
      aria-label="Shelf"
      onKeyDown={(event) => {
        if (event.key === 'Escape') shelf.close()
        if (event.key in STEPS) stepFocus(list.current, event)
      }}
    >
      <Top>
        <Title>{where}</Title>
        <Narrow>
          {/* The shelf is opened to type a name. */}
          <FindBox
            autoFocus
            label="Search blocks and patterns"
            placeholder="Search"
            value={search}
            onChange={setSearch}
            onEnter={() => shown[0] && place(shown[0])}
          />
        </Narrow>
        <Tabs label="Show" value={filter} options={FILTERS} onChange={setFilter} />
        <Close>
          <span>
            Place <Keys>Enter</Keys>
          </span>
          <button type="button" onClick={shelf.close}>
            Close <Keys>Esc</Keys>
          </button>
        </Close>
      </Top>
      <Grid ref={list}>
        {shown.map((starter) => (
          <li key={starter.id}>
            <StarterCard
              type="button"
              aria-label={`${starter.title}. ${starter.about}`}
              title={starter.about}
              onClick={(event) => event.detail === 0 && place(starter)}
              onPointerDown={(event) => {
                if (event.button !== 0) return
                event.currentTarget.setPointerCapture(event.pointerId)
                trackPress({
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
              <Name data-shared={starter.type === 'shared' ? '' : undefined}>{starter.title}</Name>
              <About>
                {search === '' && recent.includes(starter.id) ? 'Recently used' : typeWords(starter)}
              </About>
            </StarterCard>
          </li>
        ))}
      </Grid>
      {shown.length === 0 && (
        <None role="status">
          Nothing found for “{search}”{filter === 'all' ? '' : ` in ${PURPOSES[filter]}`}.
        </None>
      )}
    </Tray>
  )
}

const TYPES = {
  block: 'Block',
  pattern: 'Pattern',
  'page-body': 'Whole page',
  shared: 'Shared section',
} as const

function typeWords({ type, isSaved, isComponent }: Starter): string {
  if (type === 'shared') return isComponent === true ? 'Component' : TYPES.shared
  return isSaved === true ? `Saved ${TYPES[type].toLowerCase()}` : TYPES[type]
}

function targetFor(store: EditorStore, after: string | undefined, kind: string): Target {
  return placeAfter(store.state.page, after, kind, store.registry)
}

function useWhere(after: string | null | undefined): string {
  const { registry } = useStore()
  return usePage((page) => {
    if (after === undefined || after === null || !Object.hasOwn(page.nodes, after))
      return 'Add at the end of the page'
    return `Add below “${nodeLabel(page, after, registry)}”`
  })
}

const STEPS: Readonly<Record<string, readonly [across: number, down: number]>> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowDown: [0, 1],
  ArrowUp: [0, -1],
}

/** To the next card in a direction; from the search field, down to the first. */
function stepFocus(list: HTMLUListElement | null, event: React.KeyboardEvent): void {
  const cards = [...(list?.querySelectorAll('button') ?? [])]
  const at = cards.indexOf(document.activeElement as HTMLButtonElement)
  const [across, down] = STEPS[event.key]!
  if (at < 0 && (down !== 1 || !(event.target instanceof HTMLInputElement))) return
  event.preventDefault()
  const top = cards[0]?.getBoundingClientRect().top
  const inRow = cards.filter((card) => card.getBoundingClientRect().top === top).length
  const next = at < 0 ? 0 : at + across + down * inRow
  cards[Math.min(cards.length - 1, Math.max(0, next))]?.focus()
}
