import { PanelRightOpen } from 'lucide-react'
import { lazy, Suspense, useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react'
import { useNavigate, useParams } from 'react-router'
import styled from 'styled-components'
import {
  defaultRegistry,
  settingsOf,
  sizeAt,
  type NodeId,
  type PageDocument,
  type PageSettings,
  type PageSummary,
  type SiteInfo,
} from '@gullyline/core'
import { ApiError, request } from '../api/client.ts'
import { usePageDocument, usePages, useSite } from '../api/hooks.ts'
import { useUploads } from '../media/uploads.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { AfterFirst, FirstIsThereProvider, usePainted } from '../ui/after-first.tsx'
import { IconButton } from '../ui/controls.tsx'
import { TYPING_PAUSE_MS, useLater } from '../ui/use-later.ts'
import { Waiting } from '../ui/waiting.tsx'
import { Canvas } from './canvas/canvas.tsx'
import { CommandsDialog } from './commands-dialog.tsx'
import { keyName, runKey, ScreenActsProvider, type ScreenActs } from './commands.ts'
import { DeletedBar } from './deleted-bar.tsx'
import { Details } from './details/details.tsx'
import { openMainSetting } from './details/main-setting.ts'
import { DragLayer } from './drag/drag-layer.tsx'
import { dragStore } from './drag/drag-store.ts'
import type { EditorState } from './editor-state.ts'
import { EditorProvider, EditorStore } from './editor-store.ts'
import { Foot, Line } from './foot.tsx'
import { JournalFull, JournalSender } from './journal-sender.ts'
import type { Journal } from './journal.ts'
import { LineUp } from './line-up/line-up.tsx'
import { FindingsProvider } from './problems/findings-context.tsx'
import { useOpening } from './opening.ts'
import { useOthers } from './presence.tsx'
import { nextSample, rulerSizes } from './ruler/ruler-scale.ts'
import { Ruler, Strip } from './ruler/ruler.tsx'
import { Shelf } from './shelf/shelf.tsx'
import { ShelfProvider, type ShelfControl } from './shelf/shelf-state.ts'
import { SiteViewProvider, viewSite } from './site-view.ts'
import { Spine } from './spine/spine.tsx'
import { Bar, TopBar } from './top-bar.tsx'
import { UnsavedGuard } from './unsaved-guard.tsx'
import { useFocusOnCanvas } from './focus-canvas.ts'
import { useSave } from './use-save.ts'

/** What opening a page does not need comes when it is asked for. */
const ConflictsDialog = lazy(async () => ({
  default: (await import('./conflicts-dialog.tsx')).ConflictsDialog,
}))
const PublishDialog = lazy(async () => ({ default: (await import('./publish-dialog.tsx')).PublishDialog }))
const JournaledDialog = lazy(async () => ({
  default: (await import('./journaled-dialog.tsx')).JournaledDialog,
}))
const UploadPanel = lazy(async () => ({ default: (await import('./upload-panel.tsx')).UploadPanel }))

const Screen = styled.div`
  position: relative;
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  height: 100%;
  overflow: hidden;
  &:has(> [data-deleted]) {
    grid-template-rows: auto auto auto minmax(0, 1fr) auto;
  }
`
const Work = styled.div`
  position: relative;
  display: grid;
  grid-template: minmax(0, 1fr) / 196px minmax(0, 1fr) 292px;
  min-height: 0;
  /* What changes in one pane lays out that pane alone. Not the canvas: what is fixed over it goes by the window. */
  & > nav,
  & > aside {
    contain: strict;
  }
  &[data-folded] {
    grid-template-columns: 196px minmax(0, 1fr) 0;
  }
`
const Unfold = styled.div`
  position: absolute;
  top: 10px;
  right: 10px;
  z-index: 5;
  border-radius: 5px;
  background: var(--paper);
  box-shadow: 0 2px 8px rgb(25 33 30 / 20%);
`

/** The editor for the page in the address. */
export function EditorScreen() {
  const { pageId = '' } = useParams()
  const site = useSite()
  const pages = usePages()
  const opened = usePageDocument(pageId)
  const error = site.error ?? pages.error ?? opened.error
  // What was read once stays on the screen, whatever asking again for it brings.
  if (!site.data || !pages.data || !opened.data) {
    if (error) return <Waiting title="This page can’t be opened">{error.message}</Waiting>
    return <Waiting title="Opening the page…" />
  }
  return <OpenPage key={pageId} site={site.data} pages={pages.data} opened={opened.data} />
}

interface OpenPageProps {
  readonly site: SiteInfo
  readonly pages: readonly PageSummary[]
  readonly opened: PageDocument
}

/** Opens the page as it was saved, or asks first when edits were kept that were not. */
function OpenPage(props: OpenPageProps) {
  const me = useMe()
  const opening = useOpening(props.opened, me)
  switch (opening.type) {
    case 'looking':
      return <Waiting title="Opening the page…" />
    case 'ask': {
      const { found, trouble, goOn, drop } = opening
      const isOlder = found.journaled.newest !== props.opened.summary.version
      return (
        <Suspense fallback={<Waiting title="Opening the page…" />}>
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

function RunningEditor({ site, pages, opened, start, journal }: RunningEditorProps) {
  const mayChange = useMe().role !== 'reviewer'
  const [{ store, sender }] = useState(() => {
    const { pageId, tab } = journal.owner
    const sender = new JournalSender(journal, async (entries) => {
      const path = `/api/pages/${pageId}/journal/${tab}`
      await request(path, { method: 'POST', body: { entries } }).catch((error: unknown) => {
        throw error instanceof ApiError && error.body?.code === 'journal-full' ? new JournalFull() : error
      })
    })
    const store = new EditorStore(start, defaultRegistry, journal, { mayChange, onKept: sender.changed })
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
  const saved = pages.find((page) => page.id === opened.summary.id) ?? opened.summary
  // What the page says of itself, and not what was saved of it: the canvas shows a theme as soon as it is chosen.
  const settings = useLater(
    useSyncExternalStore(store.subscribePage, () => settingsOf(store.state.page)),
    TYPING_PAUSE_MS,
  )
  const summary = useMemo(() => withSettingsOf(saved, settings), [saved, settings])
  const view = useMemo(() => viewSite(site, pages, summary, defaultRegistry), [site, pages, summary])
  return (
    <EditorProvider value={store}>
      <SiteViewProvider value={view}>
        <Editor store={store} sender={sender} site={site} pages={pages} summary={summary} />
      </SiteViewProvider>
    </EditorProvider>
  )
}

function withSettingsOf(summary: PageSummary, settings: PageSettings): PageSummary {
  const { title, description, inNavigation, ...more } = settings
  return { ...summary, title: title.trim() || summary.title, description, inNavigation, more }
}

/** A width that shows the page as most visitors of a desk see it. */
const FIRST_WIDTH = 1280

interface EditorProps {
  readonly store: EditorStore
  readonly sender: JournalSender
  readonly site: SiteInfo
  readonly pages: readonly PageSummary[]
  readonly summary: PageSummary
}

function Editor({ store, sender, site, pages, summary }: EditorProps) {
  const [width, setWidth] = useState(FIRST_WIDTH)
  const [isLineUp, setLineUp] = useState(false)
  const [isFolded, setFolded] = useState(false)
  const [isPublishing, setPublishing] = useState(false)
  const [isListing, setListing] = useState(false)
  const [inner, setInner] = useState<Document>()
  // Once: coming back from the line-up, the panes stay while the page is drawn again.
  const wasThere = usePainted(inner !== undefined)
  const shelf = useShelfControl()
  const saving = useSave(store, summary.id, sender)
  useFocusOnCanvas()
  const others = useOthers(summary.id, store.journal.owner.tab)
  const { save, deleted } = saving
  const { isDeleted } = others
  useEffect(() => {
    if (isDeleted) deleted()
  }, [isDeleted, deleted])
  const forget = useCallback(() => {
    const { journal, state } = store
    const { pageId, tab } = journal.owner
    journal.dropUntil(journal.mark(), state.saved.version)
    sender.stop()
    // Not told, the server offers them again, and they can be dropped then.
    request(`/api/pages/${pageId}/journal/${tab}`, { method: 'DELETE' }).catch(() => undefined)
  }, [store, sender])

  const navigate = useNavigate()
  const follow = useCallback(
    (href: string) => {
      const path = new URL(href, 'http://site').pathname
      const target = href.startsWith('/') ? pages.find((page) => page.path === path) : undefined
      if (target) void navigate(`/pages/${target.id}`)
      else
        store.dispatch({
          type: 'tell',
          words: `${href} is not an address of a page of this site`,
          tone: 'refused',
        })
    },
    [navigate, pages, store],
  )
  const fold = useCallback(() => setFolded(true), [])
  const acts = useMemo(
    (): ScreenActs => ({
      openShelf: () => shelf.openAfter(store.state.selection),
      openSetting: () => {
        setFolded(false)
        openMainSetting(store.state.selection)
      },
      stepSize: (direction) => setWidth((now) => nextSample(rulerSizes(site.look), now, direction)),
      toggleLineUp: () => {
        store.dispatch({ type: 'stop-typing' })
        setInner(undefined)
        setLineUp((shown) => !shown)
      },
      save: () => void save(),
      publish: () => setPublishing(true),
      openCommands: () => setListing(true),
    }),
    [shelf, store, site.look, save],
  )
  const onKeyDown = useCallback(
    (event: KeyboardEvent) => {
      // A drag under way has the keys: Escape ends it, and it alone.
      if (event.defaultPrevented || dragStore.get() || isField(event)) return
      runKey(event, { store, acts, shown: isLineUp ? 'line-up' : 'page' })
    },
    [store, acts, isLineUp],
  )
  useEffect(() => {
    // Keys with Ctrl on their way down, since a focused button would take Ctrl+Enter for a press; plain keys on their way
    // up, since lists and fields have the first say in those.
    const withCtrl = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey) onKeyDown(event)
    }
    const plain = (event: KeyboardEvent): void => {
      if (!event.ctrlKey && !event.metaKey) onKeyDown(event)
    }
    window.addEventListener('keydown', withCtrl, true)
    window.addEventListener('keydown', plain)
    return () => {
      window.removeEventListener('keydown', withCtrl, true)
      window.removeEventListener('keydown', plain)
    }
  }, [onKeyDown])

  return (
    <ShelfProvider value={shelf}>
      <ScreenActsProvider value={acts}>
        <FirstIsThereProvider value={wasThere}>
          <FindingsProvider>
            <Screen>
              <AfterFirst instead={<Bar />}>
                <TopBar
                  siteName={site.name}
                  summary={summary}
                  saving={saving}
                  others={others}
                  isLineUp={isLineUp}
                />
              </AfterFirst>
              {saving.state.type === 'deleted' && <DeletedBar onRestore={saving.restore} />}
              <AfterFirst instead={<Strip />}>
                <Ruler look={site.look} width={width} onChange={setWidth} />
              </AfterFirst>
              {isLineUp ? (
                <LineUp
                  onChoose={(chosen) => {
                    setWidth(chosen)
                    setLineUp(false)
                  }}
                />
              ) : (
                <Work data-folded={isFolded ? '' : undefined}>
                  <AfterFirst instead={<nav />}>
                    <Spine inner={inner} />
                  </AfterFirst>
                  <Canvas width={width} onDocument={setInner} onKeyDown={onKeyDown} onNavigate={follow} />
                  {isFolded ? (
                    <Unfold>
                      <IconButton label="Show details" onPress={() => setFolded(false)}>
                        <PanelRightOpen size={16} strokeWidth={1.75} />
                      </IconButton>
                    </Unfold>
                  ) : (
                    <AfterFirst instead={<aside />}>
                      <Details size={sizeAt(width, site.look.bounds)} onFold={fold} />
                    </AfterFirst>
                  )}
                  <Uploads />
                  <Shelf key={String(shelf.after)} />
                </Work>
              )}
              <AfterFirst instead={<Line />}>
                <Foot isLineUp={isLineUp} sender={sender} />
              </AfterFirst>
              <DragLayer />
              <Suspense>
                {saving.state.type === 'conflicts' && (
                  <ConflictsDialog newer={saving.state.newer} saving={saving} />
                )}
                {isPublishing && (
                  <PublishDialog summary={summary} saving={saving} onClose={() => setPublishing(false)} />
                )}
                {isListing && <CommandsDialog onClose={() => setListing(false)} />}
              </Suspense>
              <UnsavedGuard save={save} forget={forget} />
            </Screen>
          </FindingsProvider>
        </FirstIsThereProvider>
      </ScreenActsProvider>
    </ShelfProvider>
  )
}

/** Uploads that were begun on the page; nothing is loaded for them before there are any. */
function Uploads() {
  const hasAny = useUploads().length > 0
  return hasAny ? (
    <Suspense>
      <UploadPanel />
    </Suspense>
  ) : null
}

function useShelfControl(): ShelfControl {
  const [after, setAfter] = useState<NodeId | null | undefined>(undefined)
  return useMemo(
    () => ({
      after,
      openAfter: (id) => setAfter(id ?? null),
      close: () => setAfter(undefined),
    }),
    [after],
  )
}

/**
 * Keys typed into a field of the editor's own screen belong to that field, and all keys of a dialog to the dialog; of
 * buttons, only those that buttons and lists mean something by. Saving works from everywhere but a dialog.
 */
function isField(event: KeyboardEvent): boolean {
  const target = event.target as Element | null
  if (target?.ownerDocument !== document) return false
  if (target.closest('[role="dialog"], [role="alertdialog"]')) return true
  const isPlain = !event.ctrlKey && !event.metaKey && !event.altKey
  if (target.closest('input, textarea, select')) return !SCREEN_KEYS.has(keyName(event))
  if (isPlain && target.closest('[role="slider"], [aria-label="Shelf"]')) return true
  return isPlain && !DELETE_KEYS.has(event.key) && target.closest('header button, aside button') !== null
}

/** Keys that no button means anything by. */
const DELETE_KEYS = new Set(['Delete', 'Backspace'])

/** Keys that mean nothing inside a field, and so always mean the screen. */
const SCREEN_KEYS = new Set(['Ctrl+S', 'Ctrl+Shift+L', 'Ctrl+Shift+Enter', 'Alt+PageUp', 'Alt+PageDown'])
