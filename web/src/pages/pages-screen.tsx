import { Archive, FileText, Scale, Images, ListOrdered, Plus } from 'lucide-react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { mutate } from 'swr'
import type { PageSummary, PlacePageRequest, SiteInfo } from '@gullyline/core'
import { request } from '../api/client.ts'
import { usePages, useSite } from '../api/hooks.ts'
import { contourBackdrop } from '../editor/canvas/contours.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { Button } from '../ui/controls.tsx'
import { messageOf } from '../ui/message-of.ts'
import { Waiting } from '../ui/waiting.tsx'
import {
  AddPageDialog,
  BinDialog,
  CopyPageDialog,
  RemovePageDialog,
  RenamePageDialog,
  RulesDialog,
} from './page-dialogs.tsx'
import { inTreeOrder } from './page-order.ts'
import { PagePicture } from './page-picture.tsx'
import { PageRow, type PageAct } from './page-row.tsx'
import { SiteScreen } from './site-screen.tsx'
import { dropPlace, stepPlace, withSubPages, type MoveDirection } from './tree-moves.ts'

const Work = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(360px, 44%);
  min-height: 0;
`
const List = styled.section`
  padding: 24px 28px;
  overflow: auto;
`
const Top = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 14px;
  h2 {
    font-size: 18px;
  }
`
const Table = styled.table`
  width: 100%;
  border-spacing: 0;
  th {
    padding: 0 10px 6px;
    color: var(--quiet);
    font-size: 12px;
    font-weight: 450;
    text-align: left;
  }
  tbody td {
    height: 48px;
    padding: 0 10px;
    border-top: 1px solid var(--line);
    white-space: nowrap;
  }
  tbody td:first-child {
    position: relative;
    padding-left: calc(10px + var(--depth) * 22px);
  }
  tbody tr[data-over] td {
    background: var(--accentTint);
  }
  tbody tr:hover td,
  tbody tr[data-shown] td {
    background: var(--panel);
  }
  tbody tr[data-shown] td:first-child {
    box-shadow: inset 3px 0 0 var(--accent);
  }
`
const TopActs = styled.div`
  display: flex;
  gap: 8px;
`
const Told = styled.p`
  min-height: 20px;
  margin: 10px 10px 0;
  color: var(--quiet);
  font-size: 12px;
  &[data-trouble] {
    color: var(--clay);
  }
`
const Side = styled.aside`
  position: relative;
  overflow: hidden;
  border-left: 1px solid var(--line);
  ${contourBackdrop}
`

/** The site's pages as a tree, each with its state, and a picture of the one pointed at. */
export function PagesScreen() {
  const site = useSite()
  const pages = usePages()
  const error = site.error ?? pages.error
  if (error && !(site.data && pages.data))
    return <Waiting title="The pages can’t be shown">{error.message}</Waiting>
  if (!site.data || !pages.data) return <Waiting title="Reading the pages…" />
  return <Pages site={site.data} pages={pages.data} />
}

type Question = { readonly act: 'rename' | 'copy' | 'remove'; readonly page: PageSummary }

function Pages({ site, pages }: { site: SiteInfo; pages: readonly PageSummary[] }) {
  const navigate = useNavigate()
  const { role } = useMe()
  const mayChange = role !== 'reviewer'
  const [addingUnder, setAddingUnder] = useState<string | null>()
  const [question, setQuestion] = useState<Question>()
  const [isBinOpen, setBinOpen] = useState(false)
  const [isRulesOpen, setRulesOpen] = useState(false)
  const [shownId, setShownId] = useState<string>()
  const [dragging, setDragging] = useState<string>()
  const [told, setTold] = useState<{ readonly words: string; readonly isTrouble: boolean }>()
  const entries = inTreeOrder(pages)
  const shown = pages.find((page) => page.id === shownId) ?? entries[0]?.page
  const { homePageId } = site

  const place = async (page: PageSummary, to: PlacePageRequest): Promise<void> => {
    try {
      await request(`/api/pages/${page.id}/place`, { method: 'POST', body: to })
      await mutate('/api/pages')
      const parent = pages.find((one) => one.id === to.parentId)
      setTold({ words: `Moved ${page.title}${parent ? ` under ${parent.title}` : ''}`, isTrouble: false })
    } catch (error) {
      setTold({ words: messageOf(error), isTrouble: true })
    }
  }
  const act = (page: PageSummary, what: PageAct): void => {
    if (what === 'add') return setAddingUnder(page.id)
    if (what === 'rename' || what === 'copy' || what === 'remove') return setQuestion({ act: what, page })
    const to = stepPlace(pages, page, what, homePageId)
    if (to) void place(page, to)
    else setTold({ words: `${page.title} can’t be moved further that way`, isTrouble: true })
  }
  const can = (page: PageSummary): ReadonlySet<PageAct> => {
    const moves = MOVES.filter((direction) => stepPlace(pages, page, direction, homePageId))
    const isHome = page.id === homePageId
    return new Set<PageAct>(['rename', 'copy', ...moves, ...(isHome ? [] : (['add', 'remove'] as const))])
  }
  const subPages = question ? withSubPages(pages, question.page.id).size - 1 : 0

  return (
    <SiteScreen
      siteName={site.name}
      beside={
        <a href={site.liveOrigin} target="_blank" rel="noreferrer">
          {site.liveOrigin.replace('http://', '')}
        </a>
      }
    >
      <Work>
        <List aria-label="Pages">
          <Top>
            <h2>Pages</h2>
            <TopActs>
              <Button onPress={() => void navigate('/pictures')}>
                <Images size={15} strokeWidth={1.75} /> Pictures
              </Button>
              <Button onPress={() => void navigate('/site-files')}>
                <FileText size={15} strokeWidth={1.75} /> Files
              </Button>
              {role === 'keeper' && (
                <Button onPress={() => setRulesOpen(true)}>
                  <Scale size={15} strokeWidth={1.75} /> Rules
                </Button>
              )}
              <Button onPress={() => setBinOpen(true)}>
                <Archive size={15} strokeWidth={1.75} /> Bin
              </Button>
              {mayChange && (
                <>
                  <Button onPress={() => void navigate('/navigation')}>
                    <ListOrdered size={15} strokeWidth={1.75} /> Navigation
                  </Button>
                  <Button onPress={() => setAddingUnder(null)}>
                    <Plus size={15} strokeWidth={2} /> Add a page
                  </Button>
                </>
              )}
            </TopActs>
          </Top>
          <Table>
            <thead>
              <tr>
                <th scope="col">Page</th>
                <th scope="col">State</th>
                <th scope="col">Saved</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {entries.map(({ page, depth }) => (
                <PageRow
                  key={page.id}
                  page={page}
                  depth={depth}
                  isShown={page === shown}
                  mayChange={mayChange}
                  can={can(page)}
                  liveOrigin={site.liveOrigin}
                  isDragging={dragging !== undefined}
                  mayTake={(moving) => !withSubPages(pages, moving).has(page.id)}
                  onDragging={setDragging}
                  onDrop={(moving, where) => {
                    const moved = pages.find((one) => one.id === moving)
                    // Nothing stands under the first page: what is dropped into it goes after it.
                    const at = page.id === homePageId ? 'after' : where
                    if (moved) void place(moved, dropPlace(pages, moving, page, at))
                  }}
                  onShow={() => setShownId(page.id)}
                  onAct={(what) => act(page, what)}
                />
              ))}
            </tbody>
          </Table>
          <Told role="status" data-trouble={told?.isTrouble ? '' : undefined}>
            {told?.words}
          </Told>
        </List>
        <Side aria-label="The page as it was last saved">
          {shown && <PagePicture key={shown.id} site={site} pages={pages} page={shown} />}
        </Side>
      </Work>
      {addingUnder !== undefined && (
        <AddPageDialog
          site={site}
          pages={pages}
          under={addingUnder}
          onClose={() => setAddingUnder(undefined)}
          onAdded={(id) => void navigate(`/pages/${id}`)}
        />
      )}
      {question?.act === 'rename' && (
        <RenamePageDialog page={question.page} onClose={() => setQuestion(undefined)} />
      )}
      {question?.act === 'copy' && (
        <CopyPageDialog page={question.page} subPages={subPages} onClose={() => setQuestion(undefined)} />
      )}
      {question?.act === 'remove' && (
        <RemovePageDialog page={question.page} subPages={subPages} onClose={() => setQuestion(undefined)} />
      )}
      {isRulesOpen && <RulesDialog site={site} onClose={() => setRulesOpen(false)} />}
      {isBinOpen && <BinDialog mayChange={mayChange} onClose={() => setBinOpen(false)} />}
    </SiteScreen>
  )
}

const MOVES: readonly MoveDirection[] = ['up', 'down', 'in', 'out']
