/** Every act on the page that has a name and a key: one table for keys, tooltips, the list of all and the line at the foot. */
import { createContext, useContext } from 'react'
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
  selectAll,
  selectEnd,
  selectSibling,
  setHeld,
  stepIn,
  stepMove,
  stepOut,
  stretchSelection,
  toHeading,
  toQuote,
  toText,
  unwrap,
  withSelection,
  wrap,
  wrapInColumns,
} from './acts.ts'
import { startTyping } from './canvas/frame-input.ts'
import { useStore, type EditorStore } from './editor-store.ts'

export type CommandId =
  | 'undo'
  | 'redo'
  | 'type'
  | 'out'
  | 'next'
  | 'previous'
  | 'in'
  | 'first'
  | 'last'
  | 'select-next'
  | 'select-previous'
  | 'select-all'
  | 'move-up'
  | 'move-down'
  | 'duplicate'
  | 'wrap-row'
  | 'wrap-stack'
  | 'unwrap'
  | 'wrap-group'
  | 'wrap-columns'
  | 'in-before'
  | 'out-after'
  | 'copy-look'
  | 'paste-look'
  | 'hold'
  | 'hold-words'
  | 'let-go'
  | 'to-heading'
  | 'to-quote'
  | 'to-text'
  | 'settings'
  | 'delete'
  | 'add'
  | 'copy'
  | 'cut'
  | 'paste'
  | 'narrower'
  | 'wider'
  | 'line-up'
  | 'save'
  | 'publish'
  | 'commands'

/** What commands do to the screen around the page. */
export interface ScreenActs {
  readonly openShelf: () => void
  /** Opens what the selected block is mostly set by: its picture, or where it leads. */
  readonly openSetting: () => void
  /** Steps the ruler to the next named size. */
  readonly stepSize: (direction: -1 | 1) => void
  readonly toggleLineUp: () => void
  readonly save: () => void
  readonly publish: () => void
  readonly openCommands: () => void
}

interface Command {
  readonly title: string
  /** Keys as `keyName` writes them; the first is shown. */
  readonly keys: readonly string[]
  /** Whether it works while words are being typed. */
  readonly whileTyping: boolean
  readonly inLineUp?: boolean
  /** The browser does it when its keys are pressed, and tells the page; see canvas/use-clipboard.ts. */
  readonly byBrowser?: boolean
  readonly run: (store: EditorStore, acts: ScreenActs) => unknown
}

const COMMANDS: Readonly<Record<CommandId, Command>> = {
  undo: {
    title: 'Undo',
    keys: ['Ctrl+Z'],
    whileTyping: true,
    inLineUp: true,
    run: (store) => store.dispatch({ type: 'undo' }),
  },
  redo: {
    title: 'Redo',
    keys: ['Ctrl+Shift+Z', 'Ctrl+Y'],
    whileTyping: true,
    inLineUp: true,
    run: (store) => store.dispatch({ type: 'redo' }),
  },
  type: {
    title: 'Type',
    keys: ['Enter'],
    whileTyping: false,
    run: withSelection((store, id) => startTyping(store, id)),
  },
  out: { title: 'Out', keys: ['Escape'], whileTyping: true, run: stepOut },
  next: {
    title: 'Next block',
    keys: ['ArrowDown'],
    whileTyping: false,
    run: (store) => selectSibling(store, 1),
  },
  previous: {
    title: 'Block before',
    keys: ['ArrowUp'],
    whileTyping: false,
    run: (store) => selectSibling(store, -1),
  },
  in: { title: 'Into the block', keys: ['ArrowRight'], whileTyping: false, run: stepIn },
  first: {
    title: 'First block here',
    keys: ['Home'],
    whileTyping: false,
    run: (store) => selectEnd(store, 0),
  },
  last: {
    title: 'Last block here',
    keys: ['End'],
    whileTyping: false,
    run: (store) => selectEnd(store, -1),
  },
  'select-next': {
    title: 'Select the next block, too',
    keys: ['Shift+ArrowDown'],
    whileTyping: false,
    run: (store) => stretchSelection(store, 1),
  },
  'select-previous': {
    title: 'Select the block before, too',
    keys: ['Shift+ArrowUp'],
    whileTyping: false,
    run: (store) => stretchSelection(store, -1),
  },
  'select-all': {
    title: 'Select all blocks here',
    keys: ['Ctrl+A'],
    whileTyping: false,
    run: selectAll,
  },
  'move-up': {
    title: 'Move up',
    keys: ['Alt+ArrowUp'],
    whileTyping: false,
    run: (store) => stepMove(store, 'up'),
  },
  'move-down': {
    title: 'Move down',
    keys: ['Alt+ArrowDown'],
    whileTyping: false,
    run: (store) => stepMove(store, 'down'),
  },
  duplicate: { title: 'Duplicate', keys: ['Alt+Shift+ArrowDown'], whileTyping: false, run: duplicate },
  'wrap-row': {
    title: 'Put in a row',
    keys: ['Alt+Shift+W'],
    whileTyping: false,
    run: (store) => wrap(store, 'row'),
  },
  'wrap-stack': {
    title: 'Put in a stack',
    keys: ['Alt+W'],
    whileTyping: false,
    run: (store) => wrap(store, 'stack'),
  },
  unwrap: { title: 'Take the box away', keys: ['Alt+U'], whileTyping: false, run: withSelection(unwrap) },
  'wrap-group': {
    title: 'Put in a group',
    keys: ['Alt+G'],
    whileTyping: false,
    run: (store) => wrap(store, 'group'),
  },
  'wrap-columns': {
    title: 'Put in columns',
    keys: ['Alt+Shift+G'],
    whileTyping: false,
    run: wrapInColumns,
  },
  'in-before': {
    title: 'Move into the block before',
    keys: ['Alt+Shift+ArrowRight'],
    whileTyping: false,
    run: withSelection(moveIn),
  },
  'out-after': {
    title: 'Move out of its box',
    keys: ['Alt+Shift+ArrowLeft'],
    whileTyping: false,
    run: withSelection(moveOut),
  },
  'copy-look': { title: 'Copy the look', keys: ['Alt+C'], whileTyping: false, run: withSelection(copyLook) },
  'paste-look': { title: 'Give it the copied look', keys: ['Alt+V'], whileTyping: false, run: pasteLook },
  hold: {
    title: 'Hold: nobody changes it',
    keys: ['Alt+H'],
    whileTyping: false,
    run: (store) => setHeld(store, 'all'),
  },
  'hold-words': {
    title: 'Hold all but its words',
    keys: ['Alt+Shift+H'],
    whileTyping: false,
    run: (store) => setHeld(store, 'words'),
  },
  'let-go': {
    title: 'Let it go',
    keys: ['Alt+L'],
    whileTyping: false,
    run: (store) => setHeld(store, undefined),
  },
  'to-heading': { title: 'Make it a heading', keys: ['Alt+1'], whileTyping: true, run: toHeading },
  'to-quote': { title: 'Make it a quote', keys: ['Alt+9'], whileTyping: true, run: toQuote },
  'to-text': { title: 'Make it text', keys: ['Alt+0'], whileTyping: true, run: withSelection(toText) },
  settings: {
    title: 'Choose its picture or where it leads',
    keys: ['Alt+Enter'],
    whileTyping: false,
    run: (store, acts) => withSelection(() => acts.openSetting())(store),
  },
  delete: { title: 'Delete', keys: ['Delete', 'Backspace'], whileTyping: false, run: remove },
  add: { title: 'Add', keys: ['Ctrl+Enter'], whileTyping: true, run: (_store, acts) => acts.openShelf() },
  copy: {
    title: 'Copy',
    keys: ['Ctrl+C'],
    whileTyping: false,
    byBrowser: true,
    // The newer interface has no types of one's own, so other sites would get no blocks.
    run: (store) => document.execCommand('copy') || copy(store),
  },
  cut: {
    title: 'Cut',
    keys: ['Ctrl+X'],
    whileTyping: false,
    byBrowser: true,
    run: (store) => document.execCommand('cut') || cut(store),
  },
  paste: {
    title: 'Paste',
    keys: ['Ctrl+V'],
    whileTyping: false,
    byBrowser: true,
    // From a menu, browsers give away nothing of the system's clipboard.
    run: (store) => paste(store),
  },
  narrower: {
    title: 'Next narrower size',
    keys: ['Alt+PageUp'],
    whileTyping: true,
    run: (_store, acts) => acts.stepSize(-1),
  },
  wider: {
    title: 'Next wider size',
    keys: ['Alt+PageDown'],
    whileTyping: true,
    run: (_store, acts) => acts.stepSize(1),
  },
  'line-up': {
    title: 'Line-up',
    keys: ['Ctrl+Shift+L'],
    whileTyping: true,
    inLineUp: true,
    run: (_store, acts) => acts.toggleLineUp(),
  },
  save: {
    title: 'Save',
    keys: ['Ctrl+S'],
    whileTyping: true,
    inLineUp: true,
    run: (_store, acts) => acts.save(),
  },
  publish: {
    title: 'Publish',
    keys: [],
    whileTyping: true,
    inLineUp: true,
    run: (_store, acts) => acts.publish(),
  },
  commands: {
    title: 'All commands',
    keys: ['Ctrl+Shift+Enter'],
    whileTyping: true,
    inLineUp: true,
    run: (_store, acts) => acts.openCommands(),
  },
}

/** A command's title, and its first key as people read it. */
export function keysOf(id: CommandId): { readonly title: string; readonly keys: string } {
  const { title, keys } = COMMANDS[id]
  return { title, keys: (keys[0] ?? '').replace('Arrow', '').replace('Escape', 'Esc').replaceAll('+', ' ') }
}

function runCommand(id: CommandId, store: EditorStore, acts: ScreenActs): void {
  COMMANDS[id].run(store, acts)
}

/** Every command, for the list of them all. */
export const COMMAND_IDS = Object.keys(COMMANDS) as readonly CommandId[]

const ActsContext = createContext<ScreenActs | undefined>(undefined)
export const ScreenActsProvider = ActsContext.Provider

/** Runs commands from a button. */
export function useRunCommand(): (id: CommandId) => void {
  const store = useStore()
  const acts = useContext(ActsContext)
  if (!acts) throw new Error('useRunCommand is used outside of the editor')
  return (id) => runCommand(id, store, acts)
}

/** Runs the command of a key; in the line-up, where nothing is selected, only undo and redo. True when there was one, so that nobody else acts on the key. */
export function runKey(
  event: KeyboardEvent,
  { store, acts, shown }: { store: EditorStore; acts: ScreenActs; shown: 'page' | 'line-up' },
): boolean {
  const name = keyName(event)
  const isTyping = store.state.typing !== undefined
  const command = Object.values(COMMANDS).find(
    (one) => one.keys.includes(name) && (one.whileTyping || !isTyping) && (shown === 'page' || one.inLineUp),
  )
  if (!command || command.byBrowser) return false
  event.preventDefault()
  event.stopPropagation()
  command.run(store, acts)
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
