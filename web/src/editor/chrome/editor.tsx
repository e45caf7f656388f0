import { PanelRightOpen } from 'lucide'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { loadChecks, sizeAt, type PageSummary } from '@gullyline/core'
import type { Site } from '../../api/hooks.ts'
import { request } from '../../api/client.ts'
import { inSite } from '../../api/site-address.ts'
import { useUploads } from '../../media/uploads.ts'
import { AfterFirst, FirstIsThereProvider, usePainted } from '../../ui/after-first.tsx'
import { IconButton } from '../../ui/controls.tsx'
import { giveRestTo } from '../../ui/early-keys.ts'
import { later, loadAtLast } from '../../ui/later.ts'
import { LaterPart } from '../../ui/later-part.tsx'
import { whenTyping } from '../canvas/active-editor.ts'
import type { Zoom } from '../ruler/screens.tsx'
import { Canvas, canvasMenu } from '../canvas/canvas.tsx'
import { gridCanvas } from '../canvas/canvas-later.ts'
import { textEditing } from '../canvas/text-editing-later.ts'
import { LATER_ACTS, runKey, ScreenActsProvider, type ScreenActs } from '../commands/commands.ts'
import { DeletedBar } from './deleted-bar.tsx'
import { detailsCode, LaterDetails } from '../details/later-details.tsx'
import { openMainSetting } from '../details/main-setting.ts'
import { DragLayer } from '../drag/drag-layer.tsx'
import { dragStore } from '../drag/drag-store.ts'
import { commandsDialog, EditorDialogs, type AskedFor } from './editor-dialogs.tsx'
import type { EditorStore } from '../session/editor-store.ts'
import { isOfField } from '../commands/field-keys.ts'
import { useFocusOnCanvas } from '../canvas/focus-canvas.ts'
import { Foot, Line } from './foot.tsx'
import type { JournalSender } from '../session/journal-sender.ts'
import { useOthers } from './presence.ts'
import { FindingsProvider } from '../problems/findings-context.tsx'
import { findings } from '../problems/use-findings.ts'
import { GullylineProvider, type StepGully } from '../gullyline/gully-context.tsx'
import { gullyCode } from '../gullyline/gully-later.ts'
import { GullyRuler } from '../gullyline/gully-ruler.tsx'
import { nextSample, rulerSizes } from '../ruler/ruler-scale.ts'
import { Strip } from '../ruler/strip.ts'
import { sessionDocuments } from '../session/session.ts'
import { OpenShelf, shelfCode } from '../shelf/open-shelf.tsx'
import { ShelfProvider, type ShelfControl } from '../shelf/shelf-state.ts'
import { Spine } from '../spine/spine.tsx'
import { Bar, TopBar, topBarParts } from './top-bar.tsx'
import { UnsavedGuard } from './unsaved-guard.tsx'
import { merging, sending, useSave } from '../session/use-save.ts'
import { Icon } from '../../ui/icon.tsx'

/** Nothing is loaded for uploads before there are any. */
const uploadPanel = later(() => import('./upload-panel.tsx'))

/** What edits are checked by. */
const checks = later(loadChecks)

const lineUp = later(() => import('../line-up/line-up.tsx'))

/** What comes as soon as the page is there, since it is needed first. */
const NEXT = [
  textEditing,
  gridCanvas,
  canvasMenu,
  lineUp,
  findings,
  topBarParts,
  sending,
  shelfCode,
  commandsDialog,
  merging,
  ...LATER_ACTS,
]

const Screen = styled.div`
  position: relative;
  display: grid;
  grid-template: auto auto minmax(0, 1fr) auto / minmax(0, 1fr);
  height: 100%;
  overflow: hidden;
  &:has(> [data-deleted]) {
    grid-template-rows: auto auto auto minmax(0, 1fr) auto;
  }
`
const NARROW = '(max-width: 900px)'

const Work = styled.div`
  position: relative;
  display: grid;
  --spine: clamp(196px, 15vw, 300px);
  grid-template: minmax(0, 1fr) / var(--spine) minmax(0, 1fr) 292px;
  min-height: 0;
  /* What changes in one pane lays out that pane alone. Not the canvas: what is fixed over it goes by the window. */
  & > nav,
  & > aside {
    contain: strict;
  }
  &[data-folded] {
    grid-template-columns: var(--spine) minmax(0, 1fr) 0;
  }
  /* In a narrow window the details lie over the page for as long as they are wanted. */
  @media ${NARROW} {
    --spine: 164px;
    &,
    &[data-folded] {
      grid-template-columns: var(--spine) minmax(0, 1fr);
    }
    & > aside {
      position: absolute;
      inset: 0 0 0 auto;
      z-index: 6;
      width: 292px;
      box-shadow: -8px 0 30px rgb(25 33 30 / 18%);
    }
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

/** A width that shows the page as most visitors of a desk see it. */
const FIRST_WIDTH = 1280

interface EditorProps {
  readonly store: EditorStore
  readonly sender: JournalSender
  readonly site: Site
  readonly pages: readonly PageSummary[]
  readonly summary: PageSummary
  /** Called once the page is on the screen. */
  readonly onDrawn: () => void
}

/** Shows the editor of a page that was opened, and runs its keys and commands. */
export function Editor({ store, sender, site, pages, summary, onDrawn }: EditorProps) {
  const [width, setWidth] = useState(FIRST_WIDTH)
  const [isLineUp, setLineUp] = useState(false)
  const stepGully = useRef<StepGully>(undefined)
  const takeStep = useCallback((step: StepGully) => {
    stepGully.current = step
  }, [])
  const shownWidth = useRef(width)
  useEffect(() => {
    shownWidth.current = width
  }, [width])
  const [isPath, setPath] = useState(false)
  const [viewCss, setViewCss] = useState('')
  const [zoom, setZoom] = useState<Zoom>('fit')
  const [isFolded, setFolded] = useState(() => matchMedia(NARROW).matches)
  const [asked, setAsked] = useState<AskedFor>()
  const [inner, setInner] = useState<Document>()
  // Once: coming back from the line-up, the panes stay while the page is drawn again.
  const wasThere = usePainted(inner !== undefined)
  useEffect(() => {
    if (!wasThere) return
    onDrawn()
    // Where they can't be fetched now, they are once they are needed.
    for (const code of NEXT) code.load().catch(() => undefined)
    let isOpen = true
    void loadAtLast(detailsCode, () => isOpen)
    void loadAtLast(gullyCode, () => isOpen)
    void loadAtLast(checks, () => isOpen).then(() => isOpen && store.recheck())
    return () => {
      isOpen = false
    }
  }, [wasThere, store, onDrawn])
  useEffect(() => {
    // What was typed ahead of a shelf that was not there yet: its name, Enter, and then the words of the new block.
    giveRestTo((input) => {
      if (!store.state.typing) return false
      whenTyping((editing) => editing.take(input))
      return true
    })
    return () => giveRestTo(undefined)
  }, [store])
  const gullies = gullyCode.use()
  const shelf = useShelfControl()
  const [documents] = useState(() => sessionDocuments(summary.id, site))
  const saving = useSave(store, documents, sender, site.look)
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
    request(inSite(`/pages/${pageId}/journal/${tab}`), { method: 'DELETE' }).catch(() => undefined)
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
  const closeDialog = useCallback(() => setAsked(undefined), [])
  const acts = useMemo(
    (): ScreenActs => ({
      openShelf: () => shelf.openAfter(store.state.selection),
      openSetting: () => {
        setFolded(false)
        void openMainSetting(store.state.selection, detailsCode.load())
      },
      stepSize: (direction) => setWidth((now) => nextSample(rulerSizes(site.look), now, direction)),
      toggleLineUp: () => {
        store.dispatch({ type: 'stop-typing' })
        setInner(undefined)
        setLineUp((shown) => !shown)
      },
      toggleReadingPath: () => setPath((shown) => !shown),
      sizeShown: () => sizeAt(shownWidth.current, site.look),
      stepGully: (direction) => {
        if (stepGully.current) stepGully.current(direction)
        else store.dispatch({ type: 'tell', words: 'The page is still to be measured', tone: 'done' })
      },
      save: () => void save(),
      publish: () => setAsked('publish'),
      openCommands: () => setAsked('commands'),
      copyArrangement: () => setAsked('arrangement'),
      openDevice: () => setAsked('device'),
      savePattern: () => setAsked('pattern'),
      makeShared: () => setAsked('shared'),
    }),
    [shelf, store, site.look, save],
  )
  const onKeyDown = useCallback(
    (event: KeyboardEvent) => {
      // A drag under way has the keys: Escape ends it, and it alone.
      if (event.defaultPrevented || dragStore.get() || isOfField(event)) return
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
            <GullylineProvider code={gullies}>
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
                  <GullyRuler
                    look={site.look}
                    width={width}
                    onChange={setWidth}
                    onStep={takeStep}
                    onView={setViewCss}
                    zoom={zoom}
                    onZoom={setZoom}
                  />
                </AfterFirst>
                {isLineUp ? (
                  <LaterPart code={lineUp}>
                    {({ LineUp }) => (
                      <LineUp
                        width={width}
                        onKeyDown={onKeyDown}
                        onChoose={(chosen) => {
                          setWidth(chosen)
                          setLineUp(false)
                        }}
                      />
                    )}
                  </LaterPart>
                ) : (
                  <Work data-folded={isFolded ? '' : undefined}>
                    <AfterFirst instead={<nav />}>
                      <Spine inner={inner} />
                    </AfterFirst>
                    <Canvas
                      width={width}
                      onDocument={setInner}
                      onKeyDown={onKeyDown}
                      onNavigate={follow}
                      onPicture={acts.openSetting}
                      hasReadingPath={isPath}
                      viewCss={viewCss}
                      zoom={zoom}
                    />
                    {isFolded ? (
                      <Unfold>
                        <IconButton label="Show details" onPress={() => setFolded(false)}>
                          <Icon of={PanelRightOpen} size={16} strokeWidth={1.75} />
                        </IconButton>
                      </Unfold>
                    ) : (
                      <AfterFirst instead={<aside />}>
                        <LaterDetails size={sizeAt(width, site.look)} onFold={fold} />
                      </AfterFirst>
                    )}
                    <Uploads />
                    <OpenShelf />
                  </Work>
                )}
                <AfterFirst instead={<Line />}>
                  <Foot isLineUp={isLineUp} sender={sender} />
                </AfterFirst>
                <DragLayer />
                <EditorDialogs
                  summary={summary}
                  saving={saving}
                  asked={asked}
                  size={sizeAt(width, site.look)}
                  onClose={closeDialog}
                />
                <UnsavedGuard save={save} forget={forget} />
              </Screen>
            </GullylineProvider>
          </FindingsProvider>
        </FirstIsThereProvider>
      </ScreenActsProvider>
    </ShelfProvider>
  )
}

/** Uploads that were begun on the page; nothing is loaded for them before there are any. */
function Uploads() {
  const hasAny = useUploads().length > 0
  const code = uploadPanel.use()
  useEffect(() => {
    let isWanted = hasAny
    void loadAtLast(uploadPanel, () => isWanted)
    return () => {
      isWanted = false
    }
  }, [hasAny])
  return hasAny && code ? <code.UploadPanel /> : null
}

const CLOSED = { after: undefined, mark: undefined }

function useShelfControl(): ShelfControl {
  const [{ after, mark }, setOpen] = useState<Pick<ShelfControl, 'after' | 'mark'>>(CLOSED)
  return useMemo(
    () => ({
      after,
      mark,
      openAfter: (id, at) => setOpen({ after: id ?? null, mark: at }),
      close: () => setOpen(CLOSED),
    }),
    [after, mark],
  )
}
