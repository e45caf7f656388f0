/** What is being edited, as one pure reducer. */
import {
  ancestry,
  applyEdits,
  EMPTY_HISTORY,
  findNode,
  findPlace,
  instanceAround,
  isFrameName,
  joinPart,
  partAt,
  partOf,
  record,
  redo,
  sharedRoot,
  shownIdOf,
  stepsOf,
  undo,
  type History,
  type NodeId,
  type Page,
  type Registry,
  type SessionPart,
  type SharedVersions,
  type ShownId,
  type Transaction,
} from '@gullyline/core'
import { newId } from './new-id.ts'

/** A field of a node whose words are being typed on the page itself. */
export interface Typing {
  readonly id: NodeId
  readonly field: string
  /** Where the caret goes first; the end of the text where this is left out. */
  readonly start?: TypingStart
}

/** A point of the frame's window that was pressed, or everything there is, which typing then replaces. */
export type TypingStart = { readonly x: number; readonly y: number } | 'all'

/** What is told to the person about the last act, by eye and by ear. */
export interface Notice {
  readonly words: string
  readonly tone: 'done' | 'refused'
  /** Counts up, so that the same words twice are told twice. */
  readonly count: number
}

/** What of the edits is on the server. */
export interface Saved {
  readonly version: number
  /** The versions of what is shared with other pages. */
  readonly shared: SharedVersions
  readonly step: History['done'][number] | undefined
  /** Everything as it was saved last. */
  readonly page: Page
}

export interface EditorState {
  readonly page: Page
  readonly history: History
  /** The selected block that keys and details go by; undefined for the page itself. */
  readonly selection: NodeId | undefined
  /** The instance that the selected block is seen in, by its shown id; empty for what is no part of one. */
  readonly around: ShownId
  /** Blocks selected with it: siblings of it, in no certain order. */
  readonly also: readonly NodeId[]
  readonly typing: Typing | undefined
  /** The version that edits were made from, and the step of the history that was last when it was saved. */
  readonly saved: Saved
  readonly notice: Notice
}

export type EditorAction =
  | {
      readonly type: 'do'
      readonly transaction: Transaction
      readonly select?: NodeId | undefined
      readonly also?: readonly NodeId[]
    }
  | { readonly type: 'undo' }
  | { readonly type: 'redo' }
  | {
      readonly type: 'select'
      readonly id: NodeId | undefined
      readonly also?: readonly NodeId[]
      /** See `EditorState`; of a part that is shown several times, the instance that was pressed. */
      readonly around?: ShownId
    }
  /** A part that the page shows is there, and is edited with it from now on. */
  | { readonly type: 'join'; readonly part: string; readonly document: Page; readonly version: number }
  /** Adds a block to the selection, or takes it out again. Only siblings are selected together. */
  | { readonly type: 'toggle'; readonly id: NodeId }
  /** Selects a block and all between it and the one that keys go by. */
  | { readonly type: 'stretch'; readonly id: NodeId }
  | { readonly type: 'start-typing'; readonly typing: Typing; readonly around?: ShownId }
  | { readonly type: 'stop-typing' }
  | { readonly type: 'saved'; readonly saved: Saved }
  /** Somebody else's versions were merged in; `isSaved` when nothing of ours differs from them. */
  | { readonly type: 'rebased'; readonly base: Omit<Saved, 'step'>; readonly isSaved: boolean }
  | { readonly type: 'tell'; readonly words: string; readonly tone: Notice['tone'] }

export function openEditor(page: Page, version: number, shared: SharedVersions = {}): EditorState {
  return {
    page,
    history: EMPTY_HISTORY,
    selection: undefined,
    around: '',
    also: NONE,
    typing: undefined,
    saved: { version, shared, step: undefined, page },
    notice: { words: '', tone: 'done', count: 0 },
  }
}

/** The state after an action. A transaction that does not fit changes nothing but the notice, which says why. */
export function reduceEditor(state: EditorState, action: EditorAction, registry: Registry): EditorState {
  const next = reduce(state, action, registry)
  const isElsewhere = next.selection !== state.selection || next.page !== state.page
  const around = 'around' in action ? action.around : undefined
  return isElsewhere || around !== undefined ? seenIn(next, around ?? state.around, registry) : next
}

/** The state with the instance that what is selected is seen in. A block that is not on the page any more is not selected. */
function seenIn(state: EditorState, around: ShownId, registry: Registry): EditorState {
  const { selection, page } = state
  if (selection === undefined) return state.around === '' ? state : { ...state, around: '' }
  // The root of a part is no block: what stands for it on the page is its instance.
  if (isLinked(selection) && sharedRoot(page, selection) === selection) {
    const [instance] = stepsOf(shownIdOf(page, selection, around, registry)).slice(-2)
    const at = instance === selection ? undefined : instance
    return seenIn({ ...state, selection: at }, instanceAround(around), registry)
  }
  const shown = shownIdOf(page, selection, around, registry)
  if (shown === selection && isLinked(partAt(page, selection)))
    return { ...state, selection: undefined, also: NONE, typing: undefined, around: '' }
  const now = instanceAround(shown)
  return now === state.around ? state : { ...state, around: now }
}

/** Whether a document of the session is a part, which stands where instances of it do. */
function isLinked(part: SessionPart): boolean {
  return part !== 'page' && !isFrameName(part)
}

function reduce(state: EditorState, action: EditorAction, registry: Registry): EditorState {
  switch (action.type) {
    case 'do':
      return doTransaction(state, action, registry)
    case 'undo':
    case 'redo':
      return stepHistory(state, action.type, registry)
    case 'select':
      return state.selection === action.id && !state.typing && !action.also && state.also.length === 0
        ? state
        : { ...state, selection: action.id, also: action.also ?? NONE, typing: undefined }
    case 'toggle':
      return toggleSelected(state, action.id)
    case 'stretch':
      return stretchSelected(state, action.id)
    case 'start-typing':
      return { ...state, selection: action.typing.id, also: NONE, typing: action.typing }
    case 'stop-typing':
      return state.typing ? { ...state, typing: undefined } : state
    case 'saved':
      return { ...state, saved: action.saved }
    case 'rebased':
      return {
        ...state,
        saved: { ...action.base, step: action.isSaved ? state.history.done.at(-1) : state.saved.step },
      }
    case 'join':
      return join(state, action)
    case 'tell':
      return tell(state, action.words, action.tone)
  }
}

/** Nothing of it was edited yet: it is as it was saved. */
function join(
  state: EditorState,
  { part, document, version }: Extract<EditorAction, { type: 'join' }>,
): EditorState {
  const page = joinPart(state.page, part, document, newId)
  if (page === state.page) return state
  // With the very same nodes, so that nothing of it counts as changed.
  const savedPage = joinPart(state.saved.page, part, partOf(page, part), newId)
  const shared = { ...state.saved.shared, [part]: version }
  return { ...state, page, saved: { ...state.saved, shared, page: savedPage } }
}

function doTransaction(
  state: EditorState,
  { transaction, select, also }: Extract<EditorAction, { type: 'do' }>,
  registry: Registry,
): EditorState {
  const result = applyEdits(state.page, transaction.edits, registry)
  if (!result.ok) return tell(state, result.message, 'refused')
  const next: EditorState = {
    ...state,
    page: result.page,
    history: record(state.history, transaction, result.inverse),
    selection: select ?? state.selection,
    also: also ?? (select === undefined ? state.also : NONE),
    // What is typed in is selected: with another block selected, nobody types any more.
    typing: select !== undefined && select !== state.typing?.id ? undefined : state.typing,
  }
  const typed = transaction.joinKey !== undefined
  return dropWhatIsGone(typed ? next : tell(next, transaction.label, 'done'), state.page)
}

function stepHistory(state: EditorState, direction: 'undo' | 'redo', registry: Registry): EditorState {
  const result = (direction === 'undo' ? undo : redo)(state.history, state.page, registry)
  if (!result) return tell(state, direction === 'undo' ? 'Nothing to undo' : 'Nothing to redo', 'refused')
  const verb = direction === 'undo' ? 'Undone' : 'Redone'
  const next = { ...state, page: result.page, history: result.history }
  return dropWhatIsGone(tell(next, `${verb}: ${result.step.transaction.label}`, 'done'), state.page)
}

function toggleSelected(state: EditorState, id: NodeId): EditorState {
  const { selection, also, page } = state
  if (selection === undefined) return { ...state, selection: id, typing: undefined }
  if (id === selection) {
    const [next, ...rest] = also
    return next === undefined ? state : { ...state, selection: next, also: rest }
  }
  if (also.includes(id)) return { ...state, also: also.filter((one) => one !== id) }
  if (!areSiblings(page, selection, id)) return tell(state, ONLY_SIBLINGS, 'refused')
  return { ...state, selection: id, also: [...also, selection], typing: undefined }
}

function stretchSelected(state: EditorState, id: NodeId): EditorState {
  const { selection, also, page } = state
  const place = findPlace(page, id)
  if (selection === undefined || !place) return { ...state, selection: id, also: NONE, typing: undefined }
  if (!areSiblings(page, selection, id)) return tell(state, ONLY_SIBLINGS, 'refused')
  const siblings = findNode(page, place.parentId)?.slots[place.slot] ?? NONE
  const [from, to] = [siblings.indexOf(selection), place.index].sort((a, b) => a - b)
  const all = new Set([...siblings.slice(from, to! + 1), ...also, selection])
  all.delete(id)
  return { ...state, selection: id, also: [...all], typing: undefined }
}

const ONLY_SIBLINGS = 'Only blocks next to each other in one parent can be selected together'

function areSiblings(page: Page, a: NodeId, b: NodeId): boolean {
  const [placeA, placeB] = [findPlace(page, a), findPlace(page, b)]
  return placeA?.parentId === placeB?.parentId && placeA?.slot === placeB?.slot
}

/** All selected blocks in the order they stand in. */
export function selectedIds({ selection, also, page }: EditorState): readonly NodeId[] {
  if (selection === undefined) return NONE
  if (also.length === 0) return [selection]
  const place = findPlace(page, selection)
  const siblings = place ? (findNode(page, place.parentId)?.slots[place.slot] ?? NONE) : NONE
  return siblings.filter((id) => id === selection || also.includes(id))
}

const NONE: readonly NodeId[] = []

/** Instead of a selected block that is no longer on the page, what held it is selected; and one that stands elsewhere is not selected with the others. */
function dropWhatIsGone(state: EditorState, before: Page): EditorState {
  const has = (id: NodeId | undefined) => id !== undefined && findNode(state.page, id) !== undefined
  const holders = state.selection === undefined ? NONE : ancestry(before, state.selection)
  const selection = has(state.selection)
    ? state.selection
    : holders.find((id) => id !== state.page.root && has(id))
  const also =
    selection === undefined || state.also.length === 0
      ? NONE
      : state.also.filter((id) => has(id) && areSiblings(state.page, selection, id))
  return {
    ...state,
    selection,
    also,
    typing: has(state.typing?.id) ? state.typing : undefined,
  }
}

function tell(state: EditorState, words: string, tone: Notice['tone']): EditorState {
  return { ...state, notice: { words, tone, count: state.notice.count + 1 } }
}

/** How many steps lie between the page and what was saved: 0 means that everything is saved. */
export function unsavedCount({ history, saved }: EditorState): number {
  if (history.done.at(-1) === saved.step) return 0
  const at = saved.step ? history.done.indexOf(saved.step) : -1
  if (at >= 0 || saved.step === undefined) return Math.max(1, history.done.length - 1 - at)
  const undone = history.undone.indexOf(saved.step)
  // What was saved has been undone since; or typing went on in the same step, or the step is no longer remembered.
  return undone < 0 ? Math.max(1, history.done.length) : history.undone.length - undone
}
