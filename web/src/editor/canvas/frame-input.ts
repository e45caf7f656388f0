import {
  describeNode,
  findNode,
  getKind,
  getNode,
  instanceAround,
  instanceFields,
  originOf,
  type NodeId,
  type PageNode,
  type ShownId,
} from '@gullyline/core'
import { trackPress } from '../drag/drag-session.ts'
import type { TypingStart } from '../session/editor-state.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { whenTyping } from './active-editor.ts'
import { trackBox } from './box-select.ts'
import { boxOf, type Point } from './boxes.ts'
import { frameToWindow } from './frame-geometry.ts'
import { componentAround, fieldOfWords, shownPlace } from '../session/typed-field.ts'
import { isInstance, pressedAt, seenAt, shownId } from './shown-ids.ts'

export interface FrameHandlers {
  readonly onKeyDown: (event: KeyboardEvent) => void
  /** A link was pressed with Ctrl: it is followed, inside the editor. */
  readonly onNavigate: (href: string) => void
  /** A picture of the selected block was pressed twice: it is to be replaced. */
  readonly onPicture: () => void
}

/**
 * Pointer and keys inside the frame: pressing selects, pressing what is selected types, dragging moves. Native
 * listeners, since keys pressed while the frame's body has the focus never reach React.
 */
export function listenToFrame(
  inner: Document,
  store: EditorStore,
  { onKeyDown, onNavigate, onPicture }: FrameHandlers,
): () => void {
  let last: PointerEvent | undefined
  const press = (event: PointerEvent): void => {
    if (event.button !== 0) return
    const target = event.target as Element
    const href = event.ctrlKey || event.metaKey ? target.closest('a[href]')?.getAttribute('href') : undefined
    if (href) {
      event.preventDefault()
      return onNavigate(href)
    }
    // The text editor has the presses on the words that are typed, and on no others inside the same block.
    if (isTyped(target, store)) return
    event.preventDefault()
    inner.defaultView?.focus()
    // Told by the presses, since no "dblclick" comes of an element that the text editor has replaced meanwhile.
    const isSecond = last !== undefined && isDouble(last, event)
    last = event
    if (isSecond && isPictureOf(target, store)) onPicture()
    else startPress(inner, store, target, event, isSecond)
  }
  const twice = (event: MouseEvent): void => {
    const target = event.target as Element
    if (!isPictureOf(target, store)) typeAt(store, target, { x: event.clientX, y: event.clientY })
  }
  return listenToInput(inner, { press, twice, onKeyDown })
}

interface InputListeners {
  readonly press: (event: PointerEvent) => void
  readonly twice: (event: MouseEvent) => void
  readonly onKeyDown: (event: KeyboardEvent) => void
}

/** Hears what is pressed in a frame; gives how to end that. */
export function listenToInput(inner: Document, { press, twice, onKeyDown }: InputListeners): () => void {
  inner.addEventListener('pointerdown', press)
  inner.addEventListener('dblclick', twice)
  // While it is on its way down: the text editor takes some keys, Escape among them, and tells nobody.
  inner.addEventListener('keydown', onKeyDown, true)
  return () => {
    inner.removeEventListener('pointerdown', press)
    inner.removeEventListener('dblclick', twice)
    inner.removeEventListener('keydown', onKeyDown, true)
  }
}

/** Starts typing in what was pressed twice, whatever instances it stands in, and selects the word there. */
export function typeAt(store: EditorStore, target: Element, point: Point): void {
  const shown = shownIdAt(target)
  if (shown === undefined) return
  const words = target.closest<HTMLElement>('[data-words]')?.dataset.words ?? ''
  const field = fieldOfWords(store, shown, words)
  const component = componentAround(store, shown)
  const { id, around } = field ?? seenAt(component ?? shown)
  if (!findNode(store.state.page, id)) return
  if (around !== store.state.around || id !== store.state.selection)
    store.dispatch({ type: 'select', id: id === store.state.page.root ? undefined : id, around })
  if (component !== undefined && !field) return tellOfComponent(store)
  if (!store.state.typing) startTyping(store, id, target, point)
  // As in every text: pressing a word twice selects it.
  if (store.state.typing?.id === id) whenTyping((editing) => editing.selectWordAt(point))
}

/** Whether a press is on the words that are being typed. */
export function isTyped(target: Element, store: EditorStore): boolean {
  const { typing } = store.state
  const words = target.closest<HTMLElement>('[data-words]')
  if (!typing || !words) return false
  const place = shownPlace(store.state, typing, store.registry)
  return words.dataset.words === place.words && shownIdAt(words) === place.shown
}

/** Whether this is a picture of the selected block, or where one will be. */
function isPictureOf(target: Element, store: EditorStore): boolean {
  const { state, registry, mayChange } = store
  const { selection, page } = state
  if (!mayChange || selection === undefined || shownIdAt(target) !== shownId(store, selection)) return false
  const { content, isPicture } = getKind(registry, getNode(page, selection).kind)
  const hasPicture = Object.values(content.properties).some(({ control }) => control === 'media')
  return hasPicture && (target.closest('picture') !== null || isPicture === true)
}

/** Two presses are one double press when they come within this time, in ms, and this far from each other, in px. Common practice, no source. */
const DOUBLE_MS = 500
const DOUBLE_PX = 5

function isDouble(first: PointerEvent, second: PointerEvent): boolean {
  const distance = Math.hypot(second.clientX - first.clientX, second.clientY - first.clientY)
  return second.timeStamp - first.timeStamp < DOUBLE_MS && distance < DOUBLE_PX
}

function startPress(
  inner: Document,
  store: EditorStore,
  target: Element,
  event: PointerEvent,
  isSecond: boolean,
): void {
  const shown = shownIdAt(target)
  const { id, around } = shown === undefined ? { id: undefined, around: '' } : pressedAt(store, shown)
  const before = store.state.selection
  const dragged = id !== undefined && before !== undefined && isInside(target, before, store) ? before : id
  const frame = inner.defaultView?.frameElement as HTMLIFrameElement | null
  if (!frame) return
  if (event.shiftKey) {
    const isBlock = id !== undefined && id !== store.state.page.root
    return trackBox(inner, store, { x: event.clientX, y: event.clientY }, () => {
      if (isBlock) store.dispatch({ type: 'toggle', id })
    })
  }
  trackPress({
    store,
    source: inner,
    toWindow: (point) => frameToWindow(frame, point),
    start: { x: event.clientX, y: event.clientY },
    item: () =>
      dragged === undefined || dragged === store.state.page.root
        ? undefined
        : dragItem(inner, store, dragged, { x: event.clientX, y: event.clientY }),
    onClick: () => {
      const point = { x: event.clientX, y: event.clientY }
      // An instance is worked in by pressing it twice: what it shows changes on other pages, too.
      if (id !== undefined && id === before && !isInstance(store, id)) {
        startTyping(store, id, target, point)
        if (isSecond && store.state.typing?.id === id) whenTyping((editing) => editing.selectWordAt(point))
      } else store.dispatch({ type: 'select', id: id === store.state.page.root ? undefined : id, around })
    },
  })
}

function dragItem(inner: Document, store: EditorStore, id: NodeId, at: Point) {
  const { page } = store.state
  const box = boxOf(inner, shownId(store, id))
  return {
    type: 'node',
    id,
    kind: getNode(page, id).kind,
    title: describeNode(page, id, store.registry),
    ...(box ? { grab: { x: at.x - box.left, y: at.y - box.top } } : {}),
  } as const
}

function shownIdAt(target: Element): ShownId | undefined {
  return target.closest<HTMLElement>('[data-node]')?.dataset.node
}

function isInside(target: Element, id: NodeId, store: EditorStore): boolean {
  const shown = CSS.escape(shownId(store, id))
  const isOf = isInstance(store, id) ? `[data-node^="${shown}/"]` : `[data-node="${shown}"]`
  return target.closest(isOf) !== null
}

/** Starts typing in the first field of a component that has words. Does nothing for a part without any. */
function typeInFirstField(store: EditorStore, id: NodeId, start?: TypingStart): void {
  const { state, registry } = store
  const words = ['line', 'formatted-line', 'words', 'list']
  const first = instanceFields(state.page, id, registry).find(({ schema }) => words.includes(schema.control))
  if (!first) return
  const at = start === 'all' ? { start } : {}
  store.dispatch({ type: 'start-typing', typing: { id, field: first.field.id, ...at } })
}

/** What is no field of a component is the same in all of its instances. */
function tellOfComponent(store: EditorStore): void {
  const words = 'This belongs to the component. “Edit component” in the details changes it wherever it stands'
  store.dispatch({ type: 'tell', words, tone: 'refused' })
}

/** Starts typing in the words under the pointer, or in the first that the block has. */
export function startTyping(store: EditorStore, id: NodeId, target?: Element, start?: TypingStart): void {
  const node = getNode(store.state.page, id)
  const kind = getKind(store.registry, node.kind)
  const under = target?.closest<HTMLElement>('[data-words]')
  if (kind.linksTo) {
    const shown = under ? shownIdAt(under) : undefined
    const field = under && shown !== undefined ? fieldOfWords(store, shown, under.dataset.words!) : undefined
    if (field?.id !== id) return typeInFirstField(store, id, start)
    store.dispatch({
      type: 'start-typing',
      typing: { id, field: field.field, ...(start ? { start } : {}) },
      around: field.around,
    })
    return
  }
  const isUnder = under != null && shownIdAt(under) === shownId(store, id)
  const field = isUnder ? under?.dataset.words : firstWordsField(kind, node)
  if (field === undefined) return
  // The words that are typed in first may stand elsewhere than what was pressed.
  const at = start === 'all' || isUnder ? start : undefined
  store.dispatch({ type: 'start-typing', typing: { id, field, ...(at ? { start: at } : {}) } })
}

/** Goes on to the next text of the page, or back to the one before. False where there is none. */
export function stepTyping(store: EditorStore, from: Element, by: 1 | -1): boolean {
  const places = [...from.ownerDocument.querySelectorAll<HTMLElement>('[data-words]')].filter(
    (place) => place.checkVisibility() && (place.contains(from) || mayBeTyped(store, place)),
  )
  const at = places.findIndex((place) => place.contains(from))
  const next = at < 0 ? undefined : places[at + by]
  const shown = next && shownIdAt(next)
  if (shown === undefined) return false
  startTyping(store, fieldOfWords(store, shown, next?.dataset.words ?? '')?.id ?? originOf(shown), next)
  next?.scrollIntoView({ block: 'nearest' })
  return true
}

/** Whether words are ones that can be edited here, and are not locked. */
function mayBeTyped(store: EditorStore, place: HTMLElement): boolean {
  const shown = shownIdAt(place)
  const field = place.dataset.words?.split('.')[0]
  if (shown === undefined || field === undefined) return false
  const ofInstance = fieldOfWords(store, shown, place.dataset.words!)
  if (ofInstance) return ofInstance.around === store.state.around
  // The text after that of an instance is of another document.
  if (instanceAround(shown) !== store.state.around) return false
  const id = originOf(shown)
  if (!findNode(store.state.page, id)) return false
  return store.lockRefusal([{ edit: 'set', nodeId: id, at: ['content', field] }]) === undefined
}

/** Starts typing in a block that was just added, where it has text of its own: what it was given to begin with is replaced. */
export function typeInNew(store: EditorStore, id: NodeId): void {
  const node = findNode(store.state.page, id)
  if (node && firstWordsField(getKind(store.registry, node.kind), node) !== undefined)
    startTyping(store, id, undefined, 'all')
}

/** The field that is typed into first: the heading of what has one, else its words. */
function firstWordsField(kind: ReturnType<typeof getKind>, node: PageNode): string | undefined {
  const { properties, required } = kind.content
  const isWords = (key: string) => ['words', 'list'].includes(properties[key]!.control)
  const line = required.find((key) => ['line', 'formatted-line'].includes(properties[key]?.control ?? ''))
  if (line !== undefined && shownLines(kind, node).includes(line)) return line
  const words = Object.keys(properties).find(isWords)
  if (words !== undefined) return words
  return properties.rows ? 'rows.0.0' : undefined
}

/** Lines that can be typed into on the page; others, such as words for screen readers, are set in the details. */
function shownLines(kind: ReturnType<typeof getKind>, node: PageNode): readonly string[] {
  const said = new Set(kind.words(node.content))
  return Object.entries(node.content).flatMap(([key, value]) =>
    typeof value === 'string' && (said.has(value) || value === '') ? [key] : [],
  )
}

/** Selects the block that an element of the page belongs to, unless it is selected already, with others or alone. */
export function selectAt(store: EditorStore, target: Element): void {
  const shown = shownIdAt(target)
  const { selection, also, page } = store.state
  if (shown === undefined || shown === page.root) return
  const isInSelection = [selection, ...also].some((one) => one !== undefined && isInside(target, one, store))
  if (!isInSelection) store.dispatch({ type: 'select', ...pressedAt(store, shown) })
}
