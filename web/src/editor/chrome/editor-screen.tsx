import { lazy, Suspense, useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react'
import { useParams } from 'react-router'
import {
  createNodeRenderer,
  settingsOf,
  withSettingsOf,
  type OpenedPage,
  type PageSummary,
  type SiteInfo,
} from '@gullyline/core'
import { ApiError, request } from '../../api/client.ts'
import { inSite } from '../../api/site-address.ts'
import {
  documentsOf,
  useLibrary,
  usePageDocument,
  usePages,
  useParts,
  useSiteInfo,
  type Site,
} from '../../api/hooks.ts'
import { replaced } from '../../api/page-index.ts'
import { useMe } from '../../people/sign-in-gate.tsx'
import { TYPING_PAUSE_MS, useLater } from '../../ui/use-later.ts'
import { Waiting } from '../../ui/waiting.tsx'
import type { EditorState } from '../session/editor-state.ts'
import { EditorProvider, EditorStore } from '../session/editor-store.ts'
import { Editor } from './editor.tsx'
import { JournalFull, JournalSender } from '../session/journal-sender.ts'
import type { Journal } from '../session/journal.ts'
import { useOpening } from '../session/opening.ts'
import { editorRegistry } from '../session/session.ts'
import { RendererProvider, SiteViewProvider, useDrawing } from '../session/site-view.ts'

/** Opening a page seldom needs it, so it comes when it is asked for. */
const JournaledDialog = lazy(async () => ({
  default: (await import('./journaled-dialog.tsx')).JournaledDialog,
}))

/** The editor for the page in the address. */
export function EditorScreen() {
  const { pageId = '' } = useParams()
  const site = useSiteInfo()
  const opened = usePageDocument(pageId)
  const error = site.error ?? opened.error
  // What was read once stays on the screen, whatever asking again for it brings.
  if (!site.data || !opened.data) {
    if (error) return <Waiting title="This page can’t be opened">{error.message}</Waiting>
    return <Waiting title="Opening the page…" frame="page" />
  }
  return <SiteAround key={pageId} info={site.data} opened={opened.data} />
}

/** Shows a page with what stands around it; all other pages and the whole library are there a moment later. */
function SiteAround({ info, opened }: { readonly info: SiteInfo; readonly opened: OpenedPage }) {
  const [isDrawn, setDrawn] = useState(false)
  const onDrawn = useCallback(() => setDrawn(true), [])
  const { data: listed, isWhole } = usePages(isDrawn)
  const { data: library } = useLibrary(isDrawn)
  // For the shelf, where a name may be typed as soon as it is open.
  const { data: parts } = useParts(isDrawn)
  const { around } = opened
  const pages = useMemo(
    () => (listed && isWhole ? listed : replaced(around.pages, listed ?? [])),
    [around, listed, isWhole],
  )
  const site = useMemo(() => {
    const { pictures, files } = library ?? around
    const known = Object.entries(around.parts).map(([id, { document }]) => [id, document] as const)
    return { ...info, pictures, files, parts: { ...Object.fromEntries(known), ...documentsOf(parts ?? []) } }
  }, [info, library, around, parts])
  const all = { site, pages, isWhole: isWhole && library !== undefined }
  return <OpenPage {...all} opened={opened} onDrawn={onDrawn} />
}

interface OpenPageProps {
  readonly site: Site
  readonly pages: readonly PageSummary[]
  readonly isWhole: boolean
  readonly opened: OpenedPage
  /** Called once the page is on the screen. */
  readonly onDrawn: () => void
}

/** Opens the page as it was saved, or asks first when edits were kept that were not. */
function OpenPage(props: OpenPageProps) {
  const me = useMe()
  const opening = useOpening(props.opened, props.site, me)
  switch (opening.type) {
    case 'looking':
      return <Waiting title="Opening the page…" frame="page" />
    case 'ask': {
      const { found, trouble, goOn, drop } = opening
      const isOlder = found.journaled.newest !== props.opened.summary.version
      return (
        <Suspense fallback={<Waiting title="Opening the page…" frame="page" />}>
          <JournaledDialog
            journaled={found.journaled}
            isOlder={isOlder}
            trouble={trouble}
            onGoOn={goOn}
            onDrop={drop}
          />
        </Suspense>
      )
    }
    case 'open':
      return <RunningEditor {...props} start={opening.start} journal={opening.journal} />
  }
}

interface RunningEditorProps extends OpenPageProps {
  readonly start: EditorState
  readonly journal: Journal
}

function RunningEditor(props: RunningEditorProps) {
  const { site, pages, isWhole, opened, start, journal, onDrawn } = props
  const mayChange = useMe().role !== 'reviewer'
  const [{ store, sender }] = useState(() => {
    const { pageId, tab } = journal.owner
    const sender = new JournalSender(journal, async (entries) => {
      const path = inSite(`/pages/${pageId}/journal/${tab}`)
      await request(path, { method: 'POST', body: { entries } }).catch((error: unknown) => {
        throw error instanceof ApiError && error.body?.code === 'journal-full' ? new JournalFull() : error
      })
    })
    const linked = opened.around.parts
    const store = new EditorStore(start, editorRegistry, journal, {
      mayChange,
      onKept: sender.changed,
      linked,
    })
    return { store, sender }
  })
  useEffect(() => {
    // What was kept before this screen was there may not have been sent.
    sender.release()
    const isBack = (): void => void sender.flush()
    window.addEventListener('online', isBack)
    return () => {
      window.removeEventListener('online', isBack)
      sender.stop()
    }
  }, [sender])
  const { data: parts } = useParts(isWhole)
  useEffect(() => {
    if (!parts) return
    const shared = parts.filter(({ type }) => type === 'shared')
    store.knowParts(Object.fromEntries(shared.map((part) => [part.id, part])))
  }, [store, parts])
  const saved = pages.find((page) => page.id === opened.summary.id) ?? opened.summary
  // What the page says of itself, and not what was saved of it: the canvas shows a theme as soon as it is chosen.
  const settings = useLater(
    useSyncExternalStore(store.subscribePage, () => settingsOf(store.state.page)),
    TYPING_PAUSE_MS,
  )
  const summary = useMemo(() => withSettingsOf(saved, settings), [saved, settings])
  const view = useMemo(() => ({ site, pages, isWhole, summary }), [site, pages, isWhole, summary])
  const drawing = useDrawing(site, pages)
  const { id, title } = summary
  const { theme } = summary.more
  const renderer = useMemo(
    () => createNodeRenderer(editorRegistry, drawing.context({ id, title, theme })),
    [drawing, id, title, theme],
  )
  return (
    <EditorProvider value={store}>
      <SiteViewProvider value={view}>
        <RendererProvider value={renderer}>
          <Editor
            store={store}
            sender={sender}
            site={site}
            pages={pages}
            summary={summary}
            onDrawn={onDrawn}
          />
        </RendererProvider>
      </SiteViewProvider>
    </EditorProvider>
  )
}
