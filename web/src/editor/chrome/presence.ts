import { useEffect, useState } from 'react'
import type { Present, VersionInfo } from '@gullyline/core'
import { joinPresence, type Heard } from '../session/presence-channel.ts'

/** Who else has the page open, and the newest version that was saved from elsewhere. */
export interface Others {
  readonly people: readonly Present[]
  readonly saved: VersionInfo | undefined
  /** Whether somebody deleted the page since it was opened. */
  readonly isDeleted: boolean
}

const NOBODY: Others = { people: [], saved: undefined, isDeleted: false }

/** Listens for who is on a page and what becomes of it. The browser comes back by itself when the connection was lost. */
export function useOthers(pageId: string, tab: string): Others {
  const [others, setOthers] = useState(NOBODY)
  useEffect(
    () => joinPresence({ tab, pageId }, (heard) => setOthers((before) => afterHearing(before, heard, tab))),
    [pageId, tab],
  )
  return others
}

/** What is known of the others once something was heard. `own` is this tab, which is not told of itself. */
export function afterHearing(before: Others, heard: Heard, own: string): Others {
  const { people } = before
  switch (heard.event) {
    case 'people':
      return { ...before, people: heard.data.people.filter(({ tab }) => tab !== own) }
    case 'came': {
      const { tab, name } = heard.data
      return tab === own
        ? before
        : { ...before, people: [...people.filter((one) => one.tab !== tab), { tab, name }] }
    }
    case 'left':
      return { ...before, people: people.filter(({ tab }) => tab !== heard.data.tab) }
    case 'saved':
      return heard.data.tab === own ? before : { ...before, saved: heard.data }
    case 'deleted':
      return { ...before, isDeleted: true }
    case 'restored':
      return { ...before, isDeleted: false }
    case 'lost':
      return { ...before, people: [] }
  }
}
