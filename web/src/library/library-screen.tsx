import { useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import styled from 'styled-components'
import { matchSorter } from 'match-sorter'
import {
  getKind,
  isComponent,
  PART_PURPOSES,
  savedStarter,
  screenRegistry,
  type PartFacts,
  type PartType,
  type SavedPart,
  type SiteContext,
} from '@gullyline/core'
import { ApiError, request } from '../api/client.ts'
import { documentsOf, refreshPages, refreshParts, usePages, useParts, useSite } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
import { exportPackage } from '../exchange/export-package.ts'
import { ImportDialog } from '../exchange/import-dialog.tsx'
import { viewSite } from '../editor/session/site-view.ts'
import { LivePicture } from '../editor/shelf/live-picture.tsx'
import { pageOfStarter } from '../editor/shelf/starter-page.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { ListPane, ListTop, Panes, SidePane } from '../site/panes.ts'
import { SiteScreen } from '../site/site-screen.tsx'
import { Card } from '../ui/card.ts'
import { Button, FindBox, Tabs } from '../ui/controls.tsx'
import { DraftLine } from '../ui/draft-line.tsx'
import { useDraft } from '../ui/drafts.ts'
import { messageOf } from '../ui/message-of.ts'
import { useAct } from '../ui/use-act.ts'
import { Waiting } from '../ui/waiting.tsx'
import { when } from '../ui/when.ts'
import { DeletePartDialog } from './delete-part-dialog.tsx'
import { PartPages } from './part-pages.tsx'
import { PurposeField } from './purpose-field.tsx'

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
const Note = styled.p`
  max-width: 60ch;
  color: var(--quiet);
`
const Trouble = styled.p`
  && {
    color: var(--clay);
  }
`
const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`

const SIZE = { width: 218, height: 132 }
const SCREEN = { section: 1000, block: 620 } as const

type Shown = PartType | 'deleted'

const WORDS: Readonly<Record<PartType, { readonly one: string; readonly several: string }>> = {
  pattern: { one: 'pattern', several: 'Patterns' },
  shared: { one: 'shared section', several: 'Shared sections' },
}

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
  const isShown = ({ binnedAt, type }: SavedPart, which: Shown): boolean =>
    which === 'deleted' ? binnedAt !== null : binnedAt === null && type === which
  const listed = parts.filter((part) => isShown(part, shown))
  const found = findParts(listed, search)
  const chosen = listed.find(({ id }) => id === chosenId)
  const count = (which: Shown): number => parts.filter((part) => isShown(part, which)).length
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
            <Button onPress={() => setImporting(true)} aria-label="Import a package…">
              Import…
            </Button>
          )}
          <Tabs
            label="Show"
            value={shown}
            options={[
              ['pattern', `${WORDS.pattern.several} ${count('pattern')}`],
              ['shared', `${WORDS.shared.several} ${count('shared')}`],
              ['deleted', `Deleted ${count('deleted')}`],
            ]}
            onChange={setShown}
          />
        </ListTop>
        <p role="status">{told}</p>
        {mayChange && shown !== 'deleted' && found.length > 1 && (
          <ExportButton
            words={search.trim() === '' ? `Export all ${found.length}` : `Export these ${found.length}`}
            ids={found.map(({ id }) => id)}
            name={WORDS[shown].several}
            onDone={setTold}
          />
        )}
        {found.length === 0 ? (
          <Note>{emptyWords(shown, search)}</Note>
        ) : (
          <Grid>
            {found.map((part) => (
              <li key={part.id}>
                <PartCard
                  type="button"
                  aria-pressed={part.id === chosenId}
                  aria-label={`${part.name}. ${PART_PURPOSES[part.purpose]}`}
                  onClick={() => setChosenId(part.id)}
                >
                  <PartPicture part={part} context={context} />
                  <strong data-shared={part.type === 'shared' ? '' : undefined}>{part.name}</strong>
                  <small>
                    {part.type === 'shared'
                      ? `${isComponent(part.document) ? 'Component · ' : ''}${reachOf(part)}`
                      : PART_PURPOSES[part.purpose]}
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
      {isImporting && <ImportDialog onClose={() => setImporting(false)} />}
    </Panes>
  )
}

interface ExportButtonProps {
  readonly words: string
  readonly ids: readonly string[]
  /** What the file is called. */
  readonly name: string
  readonly onDone: (words: string) => void
}

function ExportButton({ words, ids, name, onDone }: ExportButtonProps) {
  const act = useAct(async () => onDone(await exportPackage({ parts: ids }, name)))
  return (
    <div>
      <Button isDisabled={act.isBusy} onPress={act.run}>
        {words}
      </Button>
      {act.trouble && <Trouble role="alert">{act.trouble}</Trouble>}
    </div>
  )
}

/** What is listed first: the part that was asked for by its address, or what there is any of. */
function firstShown(parts: readonly SavedPart[], asked: string | null): Shown {
  const wanted = parts.find(({ id }) => id === asked)
  if (wanted) return wanted.binnedAt === null ? wanted.type : 'deleted'
  const offered = parts.filter(({ binnedAt }) => binnedAt === null)
  return offered.length > 0 && offered.every(({ type }) => type === 'shared') ? 'shared' : 'pattern'
}

function reachOf({ reach: { pages } }: SavedPart): string {
  if (pages === 0) return 'Not used on any page'
  return pages === 1 ? 'On 1 page' : `On ${pages} pages`
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

function PartPicture({ part, context }: { readonly part: SavedPart; readonly context: SiteContext }) {
  const starter = useMemo(() => savedStarter(part, screenRegistry), [part])
  const page = useMemo(() => pageOfStarter(starter, screenRegistry), [starter])
  const isSection = getKind(screenRegistry, starter.kind).group === 'section'
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

interface ChosenPartProps {
  readonly part: SavedPart
  readonly parts: readonly SavedPart[]
  readonly mayChange: boolean
  readonly onDone: (words: string) => void
}

function ChosenPart({ part, parts, mayChange, onDone }: ChosenPartProps) {
  const { id, type, name, savedAt, savedBy, binnedAt } = part
  const now = new Date()
  const [isAsking, setAsking] = useState(false)
  const act = useAct(async () => {
    if (binnedAt === null) {
      try {
        await request(inSite(`/parts/${id}`), { method: 'DELETE' })
      } catch (error) {
        // Where it stands, the server knows: also in patterns, and in other shared sections alone.
        if (!(error instanceof ApiError) || error.body?.code !== 'in-use') throw error
        return setAsking(true)
      }
      const stays = type === 'pattern' ? ' Copies of it on pages stay.' : ''
      onDone(`Deleted the ${WORDS[type].one} “${name}”.${stays} It can be restored under Deleted.`)
    } else {
      await request(inSite(`/parts/${id}/restore`), { method: 'POST', body: {} })
      onDone(`Restored the ${WORDS[type].one} “${name}”.`)
    }
    await refreshParts()
  })
  const isOffered = binnedAt === null
  return (
    <>
      <h2>{name}</h2>
      <Note>
        Saved {when(savedAt, now)} by {savedBy}
        {binnedAt !== null && `, deleted ${when(binnedAt, now)}`}.{' '}
        {type === 'pattern'
          ? 'Placed on a page, it is an independent copy.'
          : 'It is edited on any page that shows it, and is the same on all of them.'}
      </Note>
      {isOffered && <PartFields part={part} isReadOnly={!mayChange} onDone={onDone} />}
      {type === 'shared' && <PartPages part={part} />}
      {mayChange && (
        <Acts>
          {isOffered && <ExportButton words="Export" ids={[id]} name={name} onDone={onDone} />}
          <Button isDisabled={act.isBusy} onPress={act.run}>
            {isOffered ? `Delete ${WORDS[type].one}` : `Restore ${WORDS[type].one}`}
          </Button>
        </Acts>
      )}
      {act.trouble && <Trouble role="alert">{act.trouble}</Trouble>}
      {isAsking && (
        <DeletePartDialog
          part={part}
          parts={parts}
          onClose={() => setAsking(false)}
          onDone={(words) => {
            setAsking(false)
            onDone(words)
            void refreshParts()
            void refreshPages()
          }}
        />
      )}
    </>
  )
}

interface PartFieldsProps {
  readonly part: SavedPart
  readonly isReadOnly: boolean
  readonly onDone: (words: string) => void
}

function PartFields({ part, isReadOnly, onDone }: PartFieldsProps) {
  const change = async (wanted: Partial<PartFacts>, was: Partial<PartFacts>): Promise<true> => {
    await request(inSite(`/parts/${part.id}`), { method: 'PATCH', body: { ...wanted, was } })
    await refreshParts()
    onDone('Saved.')
    return true
  }
  const name = useDraft({
    name: `part.${part.id}.name`,
    label: `Name of “${part.name}”`,
    saved: part.name,
    save: (text, base) => change({ name: text }, { name: base }),
  })
  const about = useDraft({
    name: `part.${part.id}.about`,
    label: `Description of “${part.name}”`,
    saved: part.about,
    save: (text, base) => change({ about: text }, { about: base }),
  })
  const [trouble, setTrouble] = useState<string>()
  return (
    <>
      <DraftLine label="Name" draft={name} saved={part.name} isReadOnly={isReadOnly} />
      <PurposeField
        value={part.purpose}
        isDisabled={isReadOnly}
        onChange={(next) => {
          setTrouble(undefined)
          change({ purpose: next }, { purpose: part.purpose }).catch((error: unknown) =>
            setTrouble(messageOf(error)),
          )
        }}
      />
      <DraftLine label="Description" draft={about} saved={part.about} isReadOnly={isReadOnly} isOptional />
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </>
  )
}
