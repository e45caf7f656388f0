/** What happens before a page can be worked on: edits that were kept and not saved are looked for, here and on the server. */
import { useLayoutEffect, useState } from 'react'
import {
  loadChecks,
  type JournalEntry,
  type KeptJournal,
  type Page,
  type OpenedPage,
  type Person,
  type SiteInfo,
} from '@gullyline/core'
import { dropEarly, givenEarly, request } from '../../api/client.ts'
import { inSite } from '../../api/site-address.ts'
import { later } from '../../ui/later.ts'
import { messageOf } from '../../ui/message-of.ts'
import { openEditor, type EditorState } from './editor-state.ts'
import { joinEntries, Journal, journalsInBrowser, journaledFrom, type Journaled } from './journal.ts'
import { setAsideEntries } from './set-aside.ts'
import { editorRegistry, openSession, sharedVersions } from './session.ts'
import { claimedTab, claimTab, openTabs } from './tab.ts'

/** Needed only where something was left unsaved. */
const resuming = later(() => import('./resume.ts'))

/** A journal that nobody works on: of this tab before it was loaded again, of a tab that died, or of another browser. */
export interface FoundJournal {
  readonly tab: string
  readonly entries: readonly JournalEntry[]
  readonly journaled: Journaled
}

export type Opening =
  | { readonly type: 'looking' }
  | {
      readonly type: 'ask'
      readonly found: FoundJournal
      /** Why going on did not work; the edits are still journaled. */
      readonly trouble: string | undefined
      readonly goOn: () => void
      readonly drop: () => void
    }
  | { readonly type: 'open'; readonly start: EditorState; readonly journal: Journal }

/** Opens a page as it was saved, after asking what is to become of edits that were not. */
export function useOpening({ summary, document, around }: OpenedPage, site: SiteInfo, me: Person): Opening {
  const { id, version } = summary
  const { parts } = around
  const [atOnce] = useState(() => journalWhereNothingIsKept(me, id))
  const [journal, setJournal] = useState(atOnce)
  const [found, setFound] = useState<readonly FoundJournal[] | undefined>(atOnce && [])
  const [start, setStart] = useState<EditorState>()
  const [trouble, setTrouble] = useState<string>()
  // Before the screen is painted: mostly there is nothing to wait for.
  useLayoutEffect(() => {
    if (atOnce) {
      dropEarly(journalPath(id))
      return
    }
    let isHere = true
    void (async () => {
      const own = await claimTab()
      const journals = me.role === 'reviewer' ? [] : await findJournals(me.id, id, own)
      if (!isHere) return
      // "Continue editing" must open the page in the same turn, or a key pressed right after it, such as Ctrl+S, is lost.
      if (journals.length > 0) await Promise.allSettled([resuming.load(), loadChecks()])
      if (!isHere) return
      setJournal(journalOf(me, id, own))
      setFound(journals)
    })()
    return () => {
      isHere = false
    }
  }, [id, me, atOnce])
  if (!found || !journal) return { type: 'looking' }
  const { owner } = journal
  const [first] = found
  if (start) return { type: 'open', start, journal }
  if (!first) {
    const start = openEditor(openSession(document, site, parts), version, sharedVersions(site, parts))
    return { type: 'open', start, journal }
  }
  const goOn = async (): Promise<void> => {
    const { base, shared } = first.journaled
    const page = base === version ? document : await request<Page>(inSite(`/pages/${id}/versions/${base}`))
    const [{ goOnFrom, sessionAt }] = await Promise.all([resuming.load(), loadChecks()])
    const versions = { ...sharedVersions(site, parts), ...shared?.newest, ...shared?.base }
    const together = await sessionAt(page, site, parts, versions)
    const { state, setAside } = goOnFrom(together, first.journaled, editorRegistry, versions)
    if (!setAsideEntries(owner, setAside))
      throw new Error(
        'Some of these edits no longer fit the page, and this browser’s storage is too full to set them aside. Make room in it, then try again.',
      )
    if (first.tab !== owner.tab || setAside.length > 0) {
      dropFound(first, owner)
      const own = new Journal(localStorage, owner)
      for (const entry of first.entries)
        if (!setAside.includes(entry)) own.keep(entry.base, entry.at, entry.edits, entry.shared)
      setJournal(own)
    }
    setStart(state)
  }
  return {
    type: 'ask',
    found: first,
    trouble,
    drop: () => {
      dropFound(first, owner)
      setJournal(new Journal(localStorage, owner))
      setFound(found.slice(1))
    },
    goOn: () => {
      setTrouble(undefined)
      goOn().catch((error: unknown) => setTrouble(messageOf(error)))
    },
  }
}

/** This tab's journal, where all is there already that says that nothing was kept: the screen is then drawn once. */
function journalWhereNothingIsKept(me: Person, pageId: string): Journal | undefined {
  const tab = claimedTab()
  const onServer =
    me.role === 'reviewer' ? [] : (givenEarly(journalPath(pageId)) as KeptJournal[] | undefined)
  if (tab === undefined || !onServer) return undefined
  const here = journalsInBrowser(localStorage, me.id, pageId)
  return unusedTabs(here, onServer).length === 0 ? journalOf(me, pageId, tab) : undefined
}

/** Journals nobody works on, the newest first. Without the server, those of this browser. */
async function findJournals(personId: string, pageId: string, own: string): Promise<FoundJournal[]> {
  const here = journalsInBrowser(localStorage, personId, pageId)
  const onServer = await request<KeptJournal[]>(journalPath(pageId)).catch(() => [])
  const found = unusedTabs(here, onServer).map((tab) => ({
    tab,
    entries: joinEntries(entriesOf(here, tab), entriesOf(onServer, tab)),
  }))
  if (found.length === 0) return []
  const isOpen = await openTabs()
  return found
    .filter(({ tab }) => tab === own || !isOpen(tab))
    .flatMap(({ tab, entries }): FoundJournal[] => {
      const journaled = journaledFrom(entries)
      return journaled ? [{ tab, entries, journaled }] : []
    })
    .sort((a, b) => b.journaled.at - a.journaled.at)
}

function unusedTabs(here: readonly { readonly tab: string }[], onServer: readonly KeptJournal[]): string[] {
  const unused = onServer.filter(({ isOpen: isInUse }) => !isInUse)
  return [...new Set([...here, ...unused].map(({ tab }) => tab))]
}

function journalPath(pageId: string): string {
  return inSite(`/pages/${pageId}/journal`)
}

function journalOf({ id: personId }: Person, pageId: string, tab: string): Journal {
  return new Journal(localStorage, { personId, pageId, tab })
}

function entriesOf(
  journals: readonly { readonly tab: string; readonly entries: readonly JournalEntry[] }[],
  tab: string,
): readonly JournalEntry[] {
  return journals.find((one) => one.tab === tab)?.entries ?? []
}

function dropFound({ tab }: FoundJournal, owner: { personId: string; pageId: string }): void {
  const journal = new Journal(localStorage, { ...owner, tab })
  journal.dropUntil(journal.mark(), 0)
  // When the server can't be told now, it offers them again, and they can be dropped then.
  request(inSite(`/pages/${owner.pageId}/journal/${tab}`), { method: 'DELETE' }).catch(() => undefined)
}
