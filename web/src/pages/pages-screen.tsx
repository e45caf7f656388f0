import { Plus } from 'lucide'
import { useCallback, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import type { PageState, PageSummary, PlacePageRequest, SiteInfo } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'
import { refreshPages, usePages, useSite, type Site } from '../api/hooks.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { FirstVisit } from '../site/first-visit.tsx'
import { useBegin } from '../site/begin.ts'
import { SiteScreen } from '../site/site-screen.tsx'
import { Button, FindBox, MainButton, Tabs } from '../ui/controls.tsx'
import { Acts } from '../ui/form-parts.ts'
import { KeyLine } from '../ui/key-line.tsx'
import { messageOf } from '../ui/message-of.ts'
import { Waiting } from '../ui/waiting.tsx'
import { actOnPages, type ManyPagesAct } from './many-pages-dialog.tsx'
import { PageAside } from './page-aside.tsx'
import { Questions, type Question } from './page-questions.tsx'
import { COLUMNS, PageRow, type RowActs } from './page-row.tsx'
import { findPages, listPages } from './page-list.ts'
import { subPagesOf } from './page-order.ts'
import { useCollapsed } from './use-collapsed.ts'
import { usePageRows } from './use-page-rows.ts'
import { useRowActs } from './use-row-acts.ts'
import { counted } from '../ui/counted.ts'
import { Icon } from '../ui/icon.tsx'

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
const PageHead = styled.div`
  display: grid;
  gap: 12px;
`
const Told = styled.div`
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
        <Pages site={site.data} pages={pages.data} isWhole={pages.isWhole} />
      ) : (
        <Waiting title={error ? 'The pages can’t be shown' : 'Reading the pages…'}>{error?.message}</Waiting>
      )}
    </SiteScreen>
  )
}

type Filter = PageState | 'all'

const FILTERS: readonly (readonly [Filter, string])[] = [
  ['all', 'All'],
  ['live', 'Live'],
  ['changed', 'Unpublished changes'],
  ['never-published', 'Draft'],
]
interface PagesProps {
  readonly site: Site
  readonly pages: readonly PageSummary[]
  /** Whether all of them are there. */
  readonly isWhole: boolean
}

function Pages({ site, pages, isWhole }: PagesProps) {
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
  useBegin('add-page', () => mayChange && setQuestion({ act: 'add', parentId: null }))
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
        await request(inSite(`/pages/${page.id}/place`), { method: 'POST', body: to })
        await refreshPages()
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
  const { setScroller, height, rows, onKeyDown } = usePageRows(listed, {
    acts,
    currentId: current?.id,
    selected,
    mayChange,
  })

  return (
    <Work>
      <List aria-label="Pages">
        <Top>
          <h1>Pages</h1>
          {mayChange && (
            <Acts>
              <MainButton onPress={() => setQuestion({ act: 'add', parentId: null })}>
                <Icon of={Plus} size={15} strokeWidth={2} aria-hidden="true" /> Add page
              </MainButton>
              <Button onPress={() => setQuestion({ act: 'read' })}>Add from a file…</Button>
            </Acts>
          )}
        </Top>
        <PageHead>
          <FirstVisit home={pages.find(({ path }) => path === '/')} />
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
                isWhole
                  ? `${words} ${id === 'all' ? pages.length : pages.filter(({ state }) => state === id).length}`
                  : words,
              ])}
              onChange={setFilter}
            />
          </Tools>
        </PageHead>
        {chosen.length > 0 ? (
          <SelectedActs
            pages={chosen}
            acts={acts}
            mayChange={mayChange}
            onAsk={(act) => setQuestion({ act, pages: chosen })}
            onClear={() => setSelected(new Set())}
          />
        ) : (
          <Told data-trouble={told?.isTrouble ? '' : undefined}>
            {!told && isWhole && mayChange && <KeyLine keys={ROW_KEYS} />}
            <span role="status">{told?.words ?? (isWhole ? '' : 'Reading the other pages…')}</span>
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
      <span role="status">{counted(pages.length, 'page selected', 'pages selected')}</span>
      {(['publish', 'unpublish', ...(mayChange ? (['delete'] as const) : [])] as const).map((act) => (
        <Button key={act} isDisabled={count(act) === 0} onPress={() => onAsk(act)}>
          {actOnPages(act)} {count(act)}…
        </Button>
      ))}
      <Button onPress={onClear}>Clear selection</Button>
    </Selected>
  )
}

/** What keys do in the list, shown while there is nothing else to tell. */
const ROW_KEYS = [
  ['Open', 'Enter'],
  ['Select', 'Space'],
  ['Move', 'Alt Up'],
  ['Move under previous page', 'Alt Shift Right'],
] as const
