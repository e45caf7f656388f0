import { useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import styled from 'styled-components'
import { matchSorter } from 'match-sorter'
import {
  getKind,
  PART_PURPOSES,
  patternStarter,
  screenRegistry,
  type PartFacts,
  type SavedPart,
  type SiteContext,
} from '@gullyline/core'
import { request } from '../api/client.ts'
import { refreshParts, usePages, useParts, useSite } from '../api/hooks.ts'
import { inSite } from '../api/site-address.ts'
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

type Shown = 'offered' | 'deleted'

/** All patterns of the site: found, renamed, described, deleted and restored. */
export function LibraryScreen() {
  const site = useSite()
  const pages = usePages()
  const parts = useParts()
  const error = site.error ?? pages.error ?? parts.error
  const context = useMemo(() => {
    const [first] = pages.data ?? []
    return site.data && first ? viewSite(site.data, pages.data!, first, screenRegistry).context : undefined
  }, [site.data, pages.data])
  return (
    <SiteScreen title="Library">
      {context && parts.data ? (
        <Patterns context={context} parts={parts.data} />
      ) : (
        <Waiting title={error ? 'The library can’t be shown' : 'Reading the library…'}>
          {error?.message}
        </Waiting>
      )}
    </SiteScreen>
  )
}

interface PatternsProps {
  readonly context: SiteContext
  readonly parts: readonly SavedPart[]
}

function Patterns({ context, parts }: PatternsProps) {
  const mayChange = useMe().role !== 'reviewer'
  const [params] = useSearchParams()
  const [search, setSearch] = useState('')
  const [shown, setShown] = useState<Shown>('offered')
  const [chosenId, setChosenId] = useState(params.get('part') ?? undefined)
  const [told, setTold] = useState('')
  const listed = parts.filter(({ binnedAt }) => (binnedAt === null) === (shown === 'offered'))
  const found = findParts(listed, search)
  const chosen = listed.find(({ id }) => id === chosenId)
  const count = (binned: boolean): number =>
    parts.filter(({ binnedAt }) => (binnedAt !== null) === binned).length
  return (
    <Panes>
      <ListPane aria-label="Patterns">
        <ListTop>
          <h1>Library</h1>
          <FindBox
            label="Search patterns"
            placeholder="Search patterns"
            value={search}
            onChange={setSearch}
            onEnter={() => setChosenId(found[0]?.id)}
          />
          <Tabs
            label="Show"
            value={shown}
            options={[
              ['offered', `Patterns ${count(false)}`],
              ['deleted', `Deleted ${count(true)}`],
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
                  aria-label={`${part.name}. ${PART_PURPOSES[part.purpose]}`}
                  onClick={() => setChosenId(part.id)}
                >
                  <PartPicture part={part} context={context} />
                  <strong>{part.name}</strong>
                  <small>
                    {PART_PURPOSES[part.purpose]}
                    {part.about && ` · ${part.about}`}
                  </small>
                </PartCard>
              </li>
            ))}
          </Grid>
        )}
      </ListPane>
      <SidePane aria-label="Selected pattern">
        {chosen ? (
          <ChosenPart key={chosen.id} part={chosen} mayChange={mayChange} onDone={setTold} />
        ) : (
          <Note>Select a pattern to rename it, describe it or delete it.</Note>
        )}
      </SidePane>
    </Panes>
  )
}

function emptyWords(shown: Shown, search: string): string {
  if (search.trim() !== '') return `No pattern matches “${search}”.`
  return shown === 'deleted'
    ? 'No pattern was deleted.'
    : 'No patterns yet. On a page, select blocks or sections and choose “Save as pattern…” under More actions. They are then offered on the shelf of every page.'
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
  const starter = useMemo(() => patternStarter(part), [part])
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
  readonly mayChange: boolean
  readonly onDone: (words: string) => void
}

function ChosenPart({ part, mayChange, onDone }: ChosenPartProps) {
  const { id, name, savedAt, savedBy, binnedAt } = part
  const now = new Date()
  const act = useAct(async () => {
    if (binnedAt === null) {
      await request(inSite(`/parts/${id}`), { method: 'DELETE' })
      onDone(`Deleted the pattern “${name}”. Copies of it on pages stay. It can be restored under Deleted.`)
    } else {
      await request(inSite(`/parts/${id}/restore`), { method: 'POST', body: {} })
      onDone(`Restored the pattern “${name}”.`)
    }
    await refreshParts()
  })
  const isOffered = binnedAt === null
  return (
    <>
      <h2>{name}</h2>
      <Note>
        Saved {when(savedAt, now)} by {savedBy}
        {binnedAt !== null && `, deleted ${when(binnedAt, now)}`}. Placed on a page, it is an independent
        copy.
      </Note>
      {isOffered && <PartFields part={part} isReadOnly={!mayChange} onDone={onDone} />}
      {mayChange && (
        <Acts>
          <Button isDisabled={act.isBusy} onPress={act.run}>
            {isOffered ? 'Delete pattern' : 'Restore pattern'}
          </Button>
        </Acts>
      )}
      {act.trouble && <Trouble role="alert">{act.trouble}</Trouble>}
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
