/** What each command does, and running commands by their keys. */
import { createContext, useContext } from 'react'
import type { SizeKey } from '@gullyline/core'
import {
  copy,
  copyLook,
  cut,
  duplicate,
  moveIn,
  moveOut,
  paste,
  pasteLook,
  remove,
  setLock,
  stepMove,
  unwrap,
  withSelection,
  wrap,
  wrapInColumns,
} from './acts.ts'
import {
  openInstance,
  selectAll,
  selectEnd,
  selectSibling,
  stepIn,
  stepOut,
  stretchSelection,
} from './select-acts.ts'
import { COMMAND_IDS, COMMANDS, type CommandId } from './command-list.ts'
import { startTyping } from '../canvas/frame-input.ts'
import { later, type Later } from '../../ui/later.ts'
import { messageOf } from '../../ui/message-of.ts'
import { isInstance, isOfComponent } from '../canvas/shown-ids.ts'
import { useStore, type EditorStore } from '../session/editor-store.ts'

/** What commands do to the screen around the page. */
export interface ScreenActs {
  readonly openShelf: () => void
  /** Opens what the selected block is mostly set by: its picture, or where it leads. */
  readonly openSetting: () => void
  /** Steps the ruler to the next named size. */
  readonly stepSize: (direction: -1 | 1) => void
  readonly toggleLineUp: () => void
  readonly toggleReadingPath: () => void
  /** The size that the canvas shows. */
  readonly sizeShown: () => SizeKey
  /** Goes to the next gully, or the one before. */
  readonly stepGully: (direction: -1 | 1) => void
  readonly save: () => void
  readonly publish: () => void
  readonly openCommands: () => void
  /** Asks from which size the arrangement is copied to the one that is shown. */
  readonly copyArrangement: () => void
  /** Shows where the page can be opened on other devices. */
  readonly openDevice: () => void
  /** Asks what the selection is to be called as a pattern. */
  readonly savePattern: () => void
  /** Asks what the selection is to be called as a shared section. */
  readonly makeShared: () => void
}

type Run = (store: EditorStore, acts: ScreenActs) => unknown

const turningActs = later(() => import('./turning-acts.ts'))
const sharedActs = later(() => import('./shared-acts.ts'))
const gridActs = later(() => import('./grid-acts.ts'))

/** The code of acts that comes later. */
export const LATER_ACTS = [turningActs, sharedActs, gridActs]

const NOT_DONE =
  'Another block was selected before that part of the editor was there, so nothing was done. Do it again'

/** An act whose code comes later: it is done once that is there, to what was selected when it was asked for or not at all. */
function laterAct<T>(code: Later<T>, actIn: (code: T) => (store: EditorStore, size: SizeKey) => void): Run {
  return (store, acts) => {
    const refuse = (words: string) => store.dispatch({ type: 'tell', words, tone: 'refused' })
    const { selection, also, around } = store.state
    const size = acts.sizeShown()
    return code.load().then(
      (there) => {
        const now = store.state
        const isSame = now.selection === selection && now.also === also && now.around === around
        if (isSame) actIn(there)(store, size)
        else refuse(NOT_DONE)
      },
      (error: unknown) => refuse(messageOf(error)),
    )
  }
}

const RUNS: Readonly<Record<CommandId, Run>> = {
  undo: (store) => store.dispatch({ type: 'undo' }),
  redo: (store) => store.dispatch({ type: 'redo' }),
  type: withSelection((store, id) =>
    isInstance(store, id) && !isOfComponent(store, id) ? openInstance(store, id) : startTyping(store, id),
  ),
  out: stepOut,
  next: (store) => selectSibling(store, 1),
  previous: (store) => selectSibling(store, -1),
  in: stepIn,
  first: (store) => selectEnd(store, 0),
  last: (store) => selectEnd(store, -1),
  'select-next': (store) => stretchSelection(store, 1),
  'select-previous': (store) => stretchSelection(store, -1),
  'select-all': selectAll,
  'move-up': (store) => stepMove(store, 'up'),
  'move-down': (store) => stepMove(store, 'down'),
  duplicate: duplicate,
  'wrap-row': (store) => wrap(store, 'row'),
  'wrap-stack': (store) => wrap(store, 'stack'),
  unwrap: withSelection(unwrap),
  'wrap-group': (store) => wrap(store, 'group', (blocks) => `Grouped ${blocks}`),
  'wrap-columns': wrapInColumns,
  'in-before': withSelection(moveIn),
  'out-after': withSelection(moveOut),
  'copy-look': withSelection(copyLook),
  'paste-look': pasteLook,
  hold: (store) => setLock(store, 'all'),
  'hold-words': (store) => setLock(store, 'text'),
  'let-go': (store) => setLock(store, undefined),
  'to-heading': laterAct(turningActs, ({ toHeading }) => toHeading),
  'to-quote': laterAct(turningActs, ({ toQuote }) => toQuote),
  'to-text': laterAct(turningActs, ({ toText }) => toText),
  'save-pattern': (_store, acts) => acts.savePattern(),
  'make-shared': (_store, acts) => acts.makeShared(),
  'own-copy': laterAct(sharedActs, ({ makeOwnCopy }) => withSelection(makeOwnCopy)),
  settings: (_store, acts) => acts.openSetting(),
  delete: remove,
  add: (_store, acts) => acts.openShelf(),
  copy: (store) => document.execCommand('copy') || copy(store),
  cut: (store) => document.execCommand('cut') || cut(store),
  paste: (store) => paste(store),
  narrower: (_store, acts) => acts.stepSize(-1),
  wider: (_store, acts) => acts.stepSize(1),
  'line-up': (_store, acts) => acts.toggleLineUp(),
  'grid-left': laterAct(
    gridActs,
    (code) => (store, size) => code.moveOnGrid(store, size, { across: -1, down: 0 }),
  ),
  'grid-right': laterAct(
    gridActs,
    (code) => (store, size) => code.moveOnGrid(store, size, { across: 1, down: 0 }),
  ),
  'grid-up': laterAct(
    gridActs,
    (code) => (store, size) => code.moveOnGrid(store, size, { across: 0, down: -1 }),
  ),
  'grid-down': laterAct(
    gridActs,
    (code) => (store, size) => code.moveOnGrid(store, size, { across: 0, down: 1 }),
  ),
  forward: laterAct(gridActs, (code) => (store, size) => code.relayer(store, size, 'forward')),
  backward: laterAct(gridActs, (code) => (store, size) => code.relayer(store, size, 'backward')),
  'to-front': laterAct(gridActs, (code) => (store, size) => code.relayer(store, size, 'front')),
  'to-back': laterAct(gridActs, (code) => (store, size) => code.relayer(store, size, 'back')),
  'align-left': laterAct(gridActs, (code) => (store, size) => code.align(store, size, 'left')),
  'align-centre': laterAct(gridActs, (code) => (store, size) => code.align(store, size, 'centre')),
  'align-right': laterAct(gridActs, (code) => (store, size) => code.align(store, size, 'right')),
  'align-top': laterAct(gridActs, (code) => (store, size) => code.align(store, size, 'top')),
  'align-middle': laterAct(gridActs, (code) => (store, size) => code.align(store, size, 'middle')),
  'align-bottom': laterAct(gridActs, (code) => (store, size) => code.align(store, size, 'bottom')),
  'distribute-across': laterAct(gridActs, (code) => (store, size) => code.distribute(store, size, 'column')),
  'distribute-down': laterAct(gridActs, (code) => (store, size) => code.distribute(store, size, 'row')),
  'make-room': laterAct(gridActs, (code) => code.openRow),
  'close-up': laterAct(gridActs, (code) => code.closeRows),
  'agree-order': laterAct(gridActs, (code) => code.agreeOrder),
  'reading-path': (_store, acts) => acts.toggleReadingPath(),
  'convert-section': laterAct(gridActs, (code) => code.convertSection),
  'derive-place': laterAct(gridActs, (code) => code.derivePlaces),
  'copy-arrangement': (_store, acts) => acts.copyArrangement(),
  'open-device': (_store, acts) => acts.openDevice(),
  'next-gully': (_store, acts) => acts.stepGully(1),
  'previous-gully': (_store, acts) => acts.stepGully(-1),
  save: (_store, acts) => acts.save(),
  publish: (_store, acts) => acts.publish(),
  commands: (_store, acts) => acts.openCommands(),
}

function runCommand(id: CommandId, store: EditorStore, acts: ScreenActs): void {
  RUNS[id](store, acts)
}

const ActsContext = createContext<ScreenActs | undefined>(undefined)
export const ScreenActsProvider = ActsContext.Provider

/** Runs commands from a button. */
export function useRunCommand(): (id: CommandId) => void {
  const store = useStore()
  const acts = useContext(ActsContext)
  if (!acts) throw new Error('useRunCommand is used outside of the editor')
  return (id) => runCommand(id, store, acts)
}

/** Runs the command of a key; in the line-up only those that it has a use for. True when there was one, so that nobody else acts on the key. */
export function runKey(
  event: KeyboardEvent,
  { store, acts, shown }: { store: EditorStore; acts: ScreenActs; shown: 'page' | 'line-up' },
): boolean {
  const name = keyName(event)
  const isTyping = store.state.typing !== undefined
  const id = COMMAND_IDS.find((one) => {
    const { keys, plainKeys = [], whileTyping, inLineUp } = COMMANDS[one]
    const isKey =
      (keys.includes(name) && (whileTyping || !isTyping)) || (!isTyping && plainKeys.includes(name))
    return isKey && (shown === 'page' || inLineUp)
  })
  if (id === undefined || COMMANDS[id].byBrowser) return false
  event.preventDefault()
  event.stopPropagation()
  runCommand(id, store, acts)
  return true
}

/** A key with its modifiers, such as "Ctrl+Shift+Z". The command key of a Mac counts as Ctrl. */
export function keyName(
  event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>,
): string {
  const modifiers = [
    event.ctrlKey || event.metaKey ? 'Ctrl+' : '',
    event.altKey ? 'Alt+' : '',
    event.shiftKey ? 'Shift+' : '',
  ]
  return modifiers.join('') + (event.key.length === 1 ? event.key.toUpperCase() : event.key)
}
