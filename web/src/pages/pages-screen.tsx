import { Plus } from 'lucide-react'
import { useCallback, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { mutate } from 'swr'
import type { PageState, PageSummary, PlacePageRequest, SiteInfo } from '@gullyline/core'
import { request } from '../api/client.ts'
import { usePages, useSite } from '../api/hooks.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { SiteScreen } from '../site/site-screen.tsx'
import { Button, FindBox, MainButton, Tabs } from '../ui/controls.tsx'
import { messageOf } from '../ui/message-of.ts'
import { useRowsInView } from '../ui/use-rows-in-view.ts'
import { Waiting } from '../ui/waiting.tsx'
import { AddPageDialog, CopyPageDialog, RenamePageDialog } from './page-dialogs.tsx'
import { actOnPages, ManyPagesDialog, type ManyPagesAct } from './many-pages-dialog.tsx'
import { PageAside } from './page-aside.tsx'
import { COLUMNS, PageRow, ROW_HEIGHT, type PageAct, type RowActs } from './page-row.tsx'
import { findPages, listPages, type ListedPage } from './page-list.ts'
import { subPagesOf } from './page-order.ts'
import { dropPlace, stepPlace, withSubPages, type MoveDirection } from './tree-moves.ts'
import { useCollapsed } from './use-collapsed.ts'

const Work = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 36%);
  min-height: 0;
  @media (max-width: 1060px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
const List = styled.section`
  display: grid;
  grid-template-rows: auto auto auto minmax(0, 1fr);
  gap: 8px;
  min-height: 0;
  padding: 20px 24px 0;
`
const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  h1 {
    font-size: 18px;
  }
  > :last-child {
    margin-left: auto;
  }
`
const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  > label {
    flex: 0 1 240px;
  }
`
const Told = styled.p`
  min-height: 28px;
  padding-top: 4px;
  color: var(--quiet);
  font-size: 12px;
  &[data-trouble] {
    color: var(--clay);
  }
`
const Selected = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  min-height: 28px;
  button {
    height: 28px;
  }
`
const Grid = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 120px;
  margin: 0 -24px;
`
const Head = styled.div`
  display: grid;
  grid-template-columns: ${COLUMNS};
  padding: 0 24px;
  border-bottom: 1px solid var(--line);
  color: var(--quiet);
  font-size: 12px;
  > * {
    padding: 0 8px 6px;
  }
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr) 150px 64px;
    > :nth-child(3) {
      display: none;
    }
  }
`
const Scroller = styled.div`
  overflow: auto;
  padding: 0 24px 24px;
`
const All = styled.div`
  position: relative;
`
const None = styled.p`
  padding: 18px 8px;
  color: var(--quiet);
`

/** The site's pages as a tree, each with its state, and a preview of the current one. */
export function PagesScreen() {
  const site = useSite()
  const pages = usePages()
  const error = site.error ?? pages.error
  return (
    <SiteScreen title="Pages">
      {site.data && pages.data ? (
        <Pages site={site.data} pages={pages.data} />
      ) : (
        <Waiting title={error ? 'The pages can’t be shown' : 'Reading the pages…'}>{error?.message}</Waiting>
      )}
    </SiteScreen>
  )
}

type Question =
  | { readonly act: 'rename' | 'copy'; readonly page: PageSummary }
  | { readonly act: 'add'; readonly parentId: string | null }
  | { readonly act: ManyPagesAct; readonly pages: readonly PageSummary[] }

export type Filter = PageState | 'all'

const FILTERS: readonly (readonly [Filter, string])[] = [
  ['all', 'All'],
  ['live', 'Live'],
  ['changed', 'Unpublished changes'],
  ['never-published', 'Draft'],
]
const MOVES: readonly MoveDirection[] = ['up', 'down', 'in', 'out']
function Pages({ site, pages }: { site: SiteInfo; pages: readonly PageSummary[] }) {
  const navigate = useNavigate()
  const mayChange = useMe().role !== 'reviewer'
  const [search, setSearch] = useState('')
  const [filter, setFilter] = useState<Filter>('all')
  const [question, setQuestion] = useState<Question>()
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set())
  const [currentId, setCurrentId] = useState<string>()
  const [dragging, setDragging] = useState<string>()
  const [told, setTold] = useState<{ readonly words: string; readonly isTrouble: boolean }>()
  const { collapsed, setCollapsed } = useCollapsed()
  const isTree = search.trim() === '' && filter === 'all'
  const listed = useMemo(
    () => (isTree ? listPages(pages, collapsed) : findPages(pages, search, filter)),
    [pages, collapsed, search, filter, isTree],
  )
  const current = listed.find(({ page }) => page.id === currentId)?.page ?? listed[0]?.page
  const chosen = useMemo(() => pages.filter(({ id }) => selected.has(id)), [pages, selected])

  const place = useCallback(
    async (page: PageSummary, to: PlacePageRequest): Promise<void> => {
      try {
        await request(`/api/pages/${page.id}/place`, { method: 'POST', body: to })
        await mutate('/api/pages')
        const parent = pages.find((one) => one.id === to.parentId)
        setTold({ words: `Moved ${page.title}${parent ? ` under ${parent.title}` : ''}`, isTrouble: false })
      } catch (error) {
        setTold({ words: messageOf(error), isTrouble: true })
      }
    },
    [pages],
  )
  const acts = useRowActs({
    site,
    pages,
    mayChange,
    place,
    setQuestion,
    setTold,
    setSelected,
    setCollapsed,
    setDragging,
    setCurrentId,
  })
  const { setScroller, height, rows, onKeyDown } = useList(listed, {
    acts,
    currentId: current?.id,
    setCollapsed,
    selected,
    mayChange,
  })

  return (
    <Work>
      <List aria-label="Pages">
        <Top>
          <h1>Pages</h1>
          {mayChange && (
            <MainButton onPress={() => setQuestion({ act: 'add', parentId: null })}>
              <Plus size={15} strokeWidth={2} aria-hidden="true" /> Add page
            </MainButton>
          )}
        </Top>
        <Tools>
          <FindBox
            label="Search pages"
            placeholder="Search pages"
            value={search}
            onChange={setSearch}
            onEnter={() => listed[0] && void navigate(`/pages/${listed[0].page.id}`)}
          />
          <Tabs
            label="Show"
            value={filter}
            options={FILTERS.map(([id, words]) => [
              id,
              `${words} ${id === 'all' ? pages.length : pages.filter(({ state }) => state === id).length}`,
            ])}
            onChange={setFilter}
          />
        </Tools>
        {chosen.length > 0 ? (
          <SelectedActs
            pages={chosen}
            acts={acts}
            mayChange={mayChange}
            onAsk={(act) => setQuestion({ act, pages: chosen })}
            onClear={() => setSelected(new Set())}
          />
        ) : (
          <Told role="status" data-trouble={told?.isTrouble ? '' : undefined}>
            {told?.words}
          </Told>
        )}
        <Grid
          role="treegrid"
          aria-label="Pages of the site"
          aria-rowcount={listed.length + 1}
          aria-multiselectable="true"
        >
          <div role="rowgroup">
            <Head role="row" aria-rowindex={1}>
              <span role="columnheader">Page</span>
              <span role="columnheader">State</span>
              <span role="columnheader">Changed</span>
              <span role="columnheader">Actions</span>
            </Head>
          </div>
          <Scroller ref={setScroller} role="rowgroup" onKeyDown={onKeyDown}>
            <All role="presentation" style={{ height: height }}>
              {rows.map(({ page, depth, index }) => (
                <PageRow
                  key={page.id}
                  page={page}
                  depth={depth}
                  index={index}
                  isExpanded={
                    isTree && subPagesOf(pages, page.id).length > 0 ? !collapsed.has(page.id) : undefined
                  }
                  isCurrent={page === current}
                  isSelected={selected.has(page.id)}
                  isDragging={dragging !== undefined}
                  role={roleOf(page, site)}
                  mayChange={mayChange}
                  isTree={isTree}
                  liveOrigin={site.liveOrigin}
                  acts={acts}
                />
              ))}
            </All>
            {listed.length === 0 && (
              <None>
                {search.trim() === '' ? 'No page is in this state.' : `No page matches “${search}”.`}
              </None>
            )}
          </Scroller>
        </Grid>
      </List>
      {current && <PageAside site={site} pages={pages} page={current} acts={acts} mayChange={mayChange} />}
      {question && (
        <Questions
          question={question}
          site={site}
          pages={pages}
          onClose={() => setQuestion(undefined)}
          onDone={(words) => {
            setSelected(new Set())
            setTold({ words, isTrouble: false })
          }}
        />
      )}
    </Work>
  )
}

function roleOf({ id }: PageSummary, { homePageId, notFoundPageId }: SiteInfo): string | undefined {
  if (id === homePageId) return 'home page'
  return id === notFoundPageId ? 'shown for missing pages' : undefined
}

interface ActsInput {
  readonly site: SiteInfo
  readonly pages: readonly PageSummary[]
  readonly mayChange: boolean
  readonly place: (page: PageSummary, to: PlacePageRequest) => Promise<void>
  readonly setQuestion: (question: Question) => void
  readonly setTold: (told: { readonly words: string; readonly isTrouble: boolean }) => void
  readonly setSelected: (change: (before: ReadonlySet<string>) => ReadonlySet<string>) => void
  readonly setCollapsed: (id: string, isCollapsed: boolean) => void
  readonly setDragging: (id: string | undefined) => void
  readonly setCurrentId: (id: string) => void
}

/** What rows and the preview can do. The same object as long as the pages are, so that no row is drawn for nothing. */
function useRowActs(input: ActsInput): RowActs {
  const { site, pages, mayChange, place, setQuestion, setTold, setSelected, setCollapsed, setDragging } =
    input
  const { setCurrentId } = input
  const { homePageId, notFoundPageId } = site
  return useMemo((): RowActs => {
    const fixed = new Set([homePageId, notFoundPageId])
    return {
      can: (page) => {
        const live: readonly PageAct[] = page.liveSince === null || fixed.has(page.id) ? [] : ['unpublish']
        const shown: readonly PageAct[] = page.state === 'live' ? live : [...live, 'publish']
        if (!mayChange) return new Set(shown)
        const moves = MOVES.filter((direction) => stepPlace(pages, page, direction, homePageId))
        const more: readonly PageAct[] = fixed.has(page.id) ? [] : ['add', 'delete']
        return new Set<PageAct>([...shown, 'rename', 'copy', ...(fixed.has(page.id) ? [] : moves), ...more])
      },
      act: (page, act) => {
        if (act === 'add') return setQuestion({ act, parentId: page.id })
        if (act === 'rename' || act === 'copy') return setQuestion({ act, page })
        if (act === 'delete' || act === 'publish' || act === 'unpublish')
          return setQuestion({ act, pages: [page] })
        const to = fixed.has(page.id) ? undefined : stepPlace(pages, page, act, homePageId)
        if (to) void place(page, to)
        else setTold({ words: `${page.title} can’t be moved further in that direction`, isTrouble: true })
      },
      mayLand: (movingId, on) => !withSubPages(pages, movingId).has(on.id),
      land: (movingId, on, where) => {
        const moved = pages.find((one) => one.id === movingId)
        // Nothing stands under the home page: a page that is dropped into it goes after it.
        if (moved) void place(moved, dropPlace(pages, movingId, on, fixed.has(on.id) ? 'after' : where))
      },
      drag: setDragging,
      show: setCurrentId,
      select: (id, isSelected) =>
        setSelected((before) => {
          const next = new Set(before)
          if (isSelected) next.add(id)
          else next.delete(id)
          return next
        }),
      expand: (id, isExpanded) => setCollapsed(id, !isExpanded),
    }
  }, [
    homePageId,
    notFoundPageId,
    pages,
    mayChange,
    place,
    setQuestion,
    setTold,
    setSelected,
    setCollapsed,
    setDragging,
    setCurrentId,
  ])
}

interface ListInput {
  readonly acts: RowActs
  readonly currentId: string | undefined
  readonly setCollapsed: (id: string, isCollapsed: boolean) => void
  readonly selected: ReadonlySet<string>
  readonly mayChange: boolean
}

const ALT_KEYS: Readonly<Record<string, MoveDirection>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  'Shift+ArrowRight': 'in',
  'Shift+ArrowLeft': 'out',
}

/** The rows that can be seen, and going from one to the next by keys (ARIA Authoring Practices, "Treegrid"). */
function useList(listed: readonly ListedPage[], { acts, currentId, selected, mayChange }: ListInput) {
  const inView = useRowsInView(listed.length, ROW_HEIGHT)
  const focusRow = (index: number): void => {
    const found = listed[index]
    if (!found) return
    acts.show(found.page.id)
    inView.show(index)
    // Once it is drawn, if it was not seen before.
    requestAnimationFrame(() => requestAnimationFrame(() => rowOf(found.page.id)?.focus()))
  }
  const onKeyDown = (event: React.KeyboardEvent): void => {
    const at = listed.findIndex(({ page }) => page.id === currentId)
    const found = listed[at]
    const isRow = event.target instanceof HTMLElement && event.target.role === 'row'
    if (!found) return
    const handled = (): void => {
      event.preventDefault()
      event.stopPropagation()
    }
    if (event.altKey) {
      const direction = ALT_KEYS[`${event.shiftKey ? 'Shift+' : ''}${event.key}`]
      if (!direction || !mayChange) return
      handled()
      return acts.act(found.page, direction)
    }
    if (!isRow || event.ctrlKey || event.metaKey) return
    const { page, depth, isExpanded } = found
    const steps: Readonly<Record<string, number>> = {
      ArrowDown: Math.min(at + 1, listed.length - 1),
      ArrowUp: Math.max(at - 1, 0),
      Home: 0,
      End: listed.length - 1,
    }
    if (event.key in steps) {
      handled()
      return focusRow(steps[event.key]!)
    }
    if (event.key === 'ArrowRight' && isExpanded !== undefined) {
      handled()
      return isExpanded ? focusRow(at + 1) : acts.expand(page.id, true)
    }
    if (event.key === 'ArrowLeft') {
      handled()
      if (isExpanded) return acts.expand(page.id, false)
      return focusRow(listed.findLastIndex((one, i) => i < at && one.depth < depth))
    }
    if (event.key === ' ' && mayChange) {
      handled()
      return acts.select(page.id, !selected.has(page.id))
    }
    if (event.key === 'Delete' && acts.can(page).has('delete')) {
      handled()
      return acts.act(page, 'delete')
    }
    if (event.key === 'Enter') {
      handled()
      rowOf(page.id)?.querySelector('a')?.click()
    }
  }
  const rows = listed.slice(inView.first, inView.end).map((one, i) => ({ ...one, index: inView.first + i }))
  return { setScroller: inView.setScroller, height: listed.length * ROW_HEIGHT, rows, onKeyDown }
}

function rowOf(pageId: string): HTMLElement | null {
  return document.querySelector<HTMLElement>(`[data-page="${pageId}"]`)
}

interface SelectedActsProps {
  readonly pages: readonly PageSummary[]
  readonly acts: RowActs
  readonly mayChange: boolean
  readonly onAsk: (act: ManyPagesAct) => void
  readonly onClear: () => void
}

function SelectedActs({ pages, acts, mayChange, onAsk, onClear }: SelectedActsProps) {
  const count = (act: ManyPagesAct): number => pages.filter((page) => acts.can(page).has(act)).length
  return (
    <Selected role="group" aria-label="Selected pages">
      <span role="status">{pages.length === 1 ? '1 page selected' : `${pages.length} pages selected`}</span>
      {(['publish', 'unpublish', ...(mayChange ? (['delete'] as const) : [])] as const).map((act) => (
        <Button key={act} isDisabled={count(act) === 0} onPress={() => onAsk(act)}>
          {actOnPages(act)} {count(act)}…
        </Button>
      ))}
      <Button onPress={onClear}>Clear selection</Button>
    </Selected>
  )
}

interface QuestionsProps {
  readonly question: Question
  readonly site: SiteInfo
  readonly pages: readonly PageSummary[]
  readonly onClose: () => void
  readonly onDone: (words: string) => void
}

function Questions({ question, site, pages, onClose, onDone }: QuestionsProps) {
  const navigate = useNavigate()
  switch (question.act) {
    case 'add':
      return (
        <AddPageDialog
          site={site}
          pages={pages}
          under={question.parentId}
          onClose={onClose}
          onAdded={(id) => void navigate(`/pages/${id}`)}
        />
      )
    case 'rename':
      return <RenamePageDialog page={question.page} onClose={onClose} />
    case 'copy':
      return (
        <CopyPageDialog
          page={question.page}
          subPages={withSubPages(pages, question.page.id).size - 1}
          onClose={onClose}
        />
      )
    default:
      return (
        <ManyPagesDialog
          act={question.act}
          chosen={question.pages}
          site={site}
          pages={pages}
          onClose={onClose}
          onDone={onDone}
        />
      )
  }
}
