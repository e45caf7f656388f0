import { useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import styled from 'styled-components'
import { matchSorter } from 'match-sorter'
import {
  getKind,
  PART_PURPOSES,
  savedStarter,
  screenRegistry,
  type Page,
  type SavedPart,
  type SiteContext,
} from '@gullyline/core'
import { documentsOf, usePages, useParts, useSite } from '../api/hooks.ts'
import { ImportDialog } from '../exchange/import-dialog.tsx'
import { viewSite } from '../editor/session/site-view.ts'
import { LivePicture } from '../editor/shelf/live-picture.tsx'
import { pageOfStarter } from '../editor/shelf/starter-page.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { ListPane, ListTop, Panes, SidePane } from '../site/panes.ts'
import { SiteScreen } from '../site/site-screen.tsx'
import { Card } from '../ui/card.ts'
import { Button, FindBox, Tabs } from '../ui/controls.tsx'
import { Waiting } from '../ui/waiting.tsx'
import { AlikeDialog } from './alike-dialog.tsx'
import { ChosenPart } from './chosen-part.tsx'
import { ExportButton } from './export-button.tsx'
import { Acts } from '../ui/form-parts.ts'
import { Note } from './library-parts.ts'
import { isShownAs, SORTS, sortOf, WORDS, type Shown } from './part-sorts.ts'
import { counted } from '../ui/counted.ts'

const Grid = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, 218px);
  gap: 18px 22px;
  margin: 0;
  padding: 2px;
  list-style: none;
`
const PartCard = styled(Card)`
  strong {
    color: var(--strong);
    /* As for everything that stands in more than one place. */
    &[data-shared] {
      padding-left: 8px;
      border-left: 5px double var(--control);
    }
  }
  small {
    overflow: hidden;
    color: var(--quiet);
    font-size: 12px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &[aria-pressed='true'] > :first-child {
    border-color: var(--accentBright);
    box-shadow: 0 0 0 2px var(--accentBright);
  }
`
const SIZE = { width: 218, height: 132 }
const SCREEN = { section: 1000, block: 620 } as const

/** All parts of the site: found, renamed, described, deleted and restored. */
export function LibraryScreen() {
  const site = useSite()
  const pages = usePages()
  const parts = useParts()
  const error = site.error ?? pages.error ?? parts.error
  const context = useMemo(() => {
    const [first] = pages.data ?? []
    if (!site.data || !first || !parts.data) return undefined
    const withParts = { ...site.data, parts: documentsOf(parts.data) }
    return viewSite(withParts, pages.data!, first, screenRegistry).context
  }, [site.data, pages.data, parts.data])
  return (
    <SiteScreen title="Library">
      {context && parts.data ? (
        <Parts context={context} parts={parts.data} />
      ) : (
        <Waiting title={error ? 'The library can’t be shown' : 'Reading the library…'}>
          {error?.message}
        </Waiting>
      )}
    </SiteScreen>
  )
}

interface PartsProps {
  readonly context: SiteContext
  readonly parts: readonly SavedPart[]
}

function Parts({ context, parts }: PartsProps) {
  const mayChange = useMe().role !== 'reviewer'
  const [params] = useSearchParams()
  const [search, setSearch] = useState('')
  const [shown, setShown] = useState<Shown>(() => firstShown(parts, params.get('part')))
  const [chosenId, setChosenId] = useState(params.get('part') ?? undefined)
  const [told, setTold] = useState('')
  const [isImporting, setImporting] = useState(false)
  const [isComparing, setComparing] = useState(false)
  const listed = parts.filter((part) => isShownAs(part, shown))
  const found = findParts(listed, search)
  const chosen = listed.find(({ id }) => id === chosenId)
  const count = (which: Shown): number => parts.filter((part) => isShownAs(part, which)).length
  return (
    <Panes>
      <ListPane aria-label="Parts">
        <ListTop>
          <h1>Library</h1>
          <FindBox
            label="Search the library"
            placeholder="Search the library"
            value={search}
            onChange={setSearch}
            onEnter={() => setChosenId(found[0]?.id)}
          />
          {mayChange && (
            <Acts>
              <Button onPress={() => setComparing(true)} aria-label="Find sections that are nearly alike…">
                Find alike…
              </Button>
              <Button onPress={() => setImporting(true)} aria-label="Import a package…">
                Import…
              </Button>
              {shown !== 'deleted' && found.length > 1 && (
                <ExportButton
                  words={search.trim() === '' ? `Export all ${found.length}` : `Export these ${found.length}`}
                  ids={found.map(({ id }) => id)}
                  name={shown === 'unused' ? 'Unused' : WORDS[shown].several}
                  onDone={setTold}
                />
              )}
            </Acts>
          )}
          <Tabs
            label="Show"
            value={shown}
            options={[
              ...SORTS.map((sort): [Shown, string] => [sort, `${WORDS[sort].several} ${count(sort)}`]),
              ['unused', `Unused ${count('unused')}`],
              ['deleted', `Deleted ${count('deleted')}`],
            ]}
            onChange={setShown}
          />
        </ListTop>
        <p role="status">{told}</p>
        {found.length === 0 ? (
          <Note>{emptyWords(shown, search)}</Note>
        ) : (
          <Grid>
            {found.map((part) => (
              <li key={part.id}>
                <PartCard
                  type="button"
                  aria-pressed={part.id === chosenId}
                  aria-label={`${part.name}. ${part.type === 'template' ? 'Page template' : PART_PURPOSES[part.purpose]}`}
                  onClick={() => setChosenId(part.id)}
                >
                  <PartPicture part={part} context={context} />
                  <strong data-shared={part.type === 'shared' ? '' : undefined}>{part.name}</strong>
                  <small>
                    {part.type === 'pattern' ? PART_PURPOSES[part.purpose] : reachOf(part)}
                    {part.about && ` · ${part.about}`}
                  </small>
                </PartCard>
              </li>
            ))}
          </Grid>
        )}
      </ListPane>
      <SidePane aria-label="Selected part">
        {chosen ? (
          <ChosenPart key={chosen.id} part={chosen} parts={parts} mayChange={mayChange} onDone={setTold} />
        ) : (
          <Note>Select one to rename it, describe it or delete it.</Note>
        )}
      </SidePane>
      {isComparing && <AlikeDialog onClose={() => setComparing(false)} onDone={setTold} />}
      {isImporting && <ImportDialog onClose={() => setImporting(false)} />}
    </Panes>
  )
}

/** What is listed first: the part that was asked for by its address, or what there is any of. */
function firstShown(parts: readonly SavedPart[], asked: string | null): Shown {
  const wanted = parts.find(({ id }) => id === asked)
  if (wanted) return wanted.binnedAt === null ? sortOf(wanted) : 'deleted'
  const offered = parts.filter(({ binnedAt }) => binnedAt === null)
  return SORTS.find((sort) => offered.some((part) => sortOf(part) === sort)) ?? 'pattern'
}

function reachOf({ type, reach: { pages } }: SavedPart): string {
  if (type === 'template') return counted(pages, 'page was made from it', 'pages were made from it')
  if (pages === 0) return 'Not used on any page'
  return `On ${counted(pages, 'page')}`
}

function emptyWords(shown: Shown, search: string): string {
  if (search.trim() !== '') return `Nothing here matches “${search}”.`
  return EMPTY[shown]
}

const EMPTY: Readonly<Record<Shown, string>> = {
  pattern:
    'No patterns yet. On a page, select blocks or sections and choose “Save as pattern…” under More actions. They are then offered on the shelf of every page.',
  shared:
    'No shared sections yet. On a page, select blocks or sections and choose “Make shared section…” under More actions. What is changed in one is changed on every page that shows it.',
  component:
    'No components yet. On a page, select blocks or a section, choose “Make shared section…” under More actions, and Component in the dialog. Each place that shows one says something else in its fields.',
  template:
    'No page templates yet. Open a page, and under Page settings choose “Make a page template…”. New pages can then start from it.',
  unused: 'Every shared section and component stands on a page.',
  deleted: 'Nothing was deleted.',
}

/** Parts that have every word that was typed, in their name first, then in what is said about them and in their text. */
function findParts(parts: readonly SavedPart[], search: string): readonly SavedPart[] {
  const words = search.trim().split(/\s+/).filter(Boolean)
  return words.reduceRight<readonly SavedPart[]>(
    (left, word) =>
      matchSorter(left, word, {
        keys: ['name', ({ purpose }) => PART_PURPOSES[purpose], 'about', 'words'],
        threshold: matchSorter.rankings.CONTAINS,
      }),
    parts,
  )
}

/** A part as a page of its own, and whether it takes the width of a screen. */
function shownPart(part: SavedPart): { readonly page: Page; readonly isSection: boolean } {
  const { type } = part
  if (type === 'template') return { page: part.document, isSection: true }
  const starter = savedStarter({ ...part, type }, screenRegistry)
  const isSection = getKind(screenRegistry, starter.kind).group === 'section'
  return { page: pageOfStarter(starter, screenRegistry), isSection }
}

function PartPicture({ part, context }: { readonly part: SavedPart; readonly context: SiteContext }) {
  const { page, isSection } = useMemo(() => shownPart(part), [part])
  return (
    <LivePicture
      page={page}
      context={context}
      title={part.name}
      screen={isSection ? SCREEN.section : SCREEN.block}
      size={SIZE}
    />
  )
}
