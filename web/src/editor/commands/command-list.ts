/** Every command on a page with its name and its keys: one table for keys, tooltips, menus, the search, and the help. */

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
  | 'save-pattern'
  | 'make-shared'
  | 'own-copy'
  | 'settings'
  | 'delete'
  | 'add'
  | 'copy'
  | 'cut'
  | 'paste'
  | 'narrower'
  | 'wider'
  | 'copy-arrangement'
  | 'grid-left'
  | 'grid-right'
  | 'grid-up'
  | 'grid-down'
  | 'forward'
  | 'backward'
  | 'to-front'
  | 'to-back'
  | 'align-left'
  | 'align-centre'
  | 'align-right'
  | 'align-top'
  | 'align-middle'
  | 'align-bottom'
  | 'distribute-across'
  | 'distribute-down'
  | 'make-room'
  | 'close-up'
  | 'derive-place'
  | 'convert-section'
  | 'agree-order'
  | 'reading-path'
  | 'line-up'
  | 'open-device'
  | 'next-gully'
  | 'previous-gully'
  | 'save'
  | 'publish'
  | 'commands'

export interface CommandWords {
  readonly title: string
  /** Keys as `keyName` writes them; the first is shown. */
  readonly keys: readonly string[]
  /** More keys for it, which mean something else while text is being typed. */
  readonly plainKeys?: readonly string[]
  /** Whether it works while text is being typed. */
  readonly whileTyping: boolean
  readonly inLineUp?: boolean
  /** The browser does it when its keys are pressed, and tells the page; see canvas/use-clipboard.ts. */
  readonly byBrowser?: boolean
  /** Other everyday names that people search for. */
  readonly synonyms?: readonly string[]
}

export const COMMANDS: Readonly<Record<CommandId, CommandWords>> = {
  undo: { title: 'Undo', keys: ['Ctrl+Z'], whileTyping: true, inLineUp: true, synonyms: ['back'] },
  redo: { title: 'Redo', keys: ['Ctrl+Shift+Z', 'Ctrl+Y'], whileTyping: true, inLineUp: true },
  type: { title: 'Edit text', keys: ['Enter'], whileTyping: false, inLineUp: true },
  out: {
    title: 'Select parent',
    keys: ['Escape'],
    plainKeys: ['ArrowLeft'],
    whileTyping: true,
    inLineUp: true,
  },
  next: { title: 'Next block', keys: ['ArrowDown'], whileTyping: false, inLineUp: true },
  previous: { title: 'Previous block', keys: ['ArrowUp'], whileTyping: false, inLineUp: true },
  in: { title: 'Select first child', keys: ['ArrowRight'], whileTyping: false, inLineUp: true },
  first: { title: 'First block in parent', keys: ['Home'], whileTyping: false },
  last: { title: 'Last block in parent', keys: ['End'], whileTyping: false },
  'select-next': { title: 'Add next block to selection', keys: ['Shift+ArrowDown'], whileTyping: false },
  'select-previous': {
    title: 'Add previous block to selection',
    keys: ['Shift+ArrowUp'],
    whileTyping: false,
  },
  'select-all': { title: 'Select all in parent', keys: ['Ctrl+A'], whileTyping: false },
  'move-up': { title: 'Move up', keys: ['Alt+ArrowUp'], whileTyping: false },
  'move-down': { title: 'Move down', keys: ['Alt+ArrowDown'], whileTyping: false },
  duplicate: {
    title: 'Duplicate',
    keys: ['Alt+Shift+ArrowDown'],
    whileTyping: false,
    synonyms: ['copy block', 'clone'],
  },
  'wrap-row': {
    title: 'Wrap in row',
    keys: ['Alt+Shift+W'],
    whileTyping: false,
    synonyms: ['side by side', 'horizontal'],
  },
  'wrap-stack': {
    title: 'Wrap in stack',
    keys: ['Alt+W'],
    whileTyping: false,
    synonyms: ['vertical', 'container'],
  },
  unwrap: { title: 'Ungroup', keys: ['Alt+U'], whileTyping: false, synonyms: ['remove group', 'take apart'] },
  'wrap-group': { title: 'Group', keys: ['Alt+G'], whileTyping: false, synonyms: ['container', 'combine'] },
  'wrap-columns': {
    title: 'Wrap in columns',
    keys: ['Alt+Shift+G'],
    whileTyping: false,
    synonyms: ['two columns', 'side by side', 'layout'],
  },
  'in-before': { title: 'Move into previous block', keys: ['Alt+Shift+ArrowRight'], whileTyping: false },
  'out-after': { title: 'Move out of parent', keys: ['Alt+Shift+ArrowLeft'], whileTyping: false },
  'copy-look': {
    title: 'Copy look',
    keys: ['Alt+C'],
    whileTyping: false,
    synonyms: ['copy style', 'format painter'],
  },
  'paste-look': { title: 'Paste look', keys: ['Alt+V'], whileTyping: false, synonyms: ['apply style'] },
  hold: { title: 'Lock', keys: ['Alt+H'], whileTyping: false, synonyms: ['protect', 'freeze'] },
  'hold-words': { title: 'Lock all but text', keys: ['Alt+Shift+H'], whileTyping: false },
  'let-go': { title: 'Unlock', keys: ['Alt+L'], whileTyping: false },
  'to-heading': { title: 'Turn into heading', keys: ['Alt+1'], whileTyping: true, synonyms: ['title'] },
  'to-quote': { title: 'Turn into quote', keys: ['Alt+9'], whileTyping: true },
  'to-text': { title: 'Turn into text', keys: ['Alt+0'], whileTyping: true },
  'save-pattern': {
    title: 'Save as pattern…',
    keys: ['Alt+Shift+P'],
    whileTyping: false,
    synonyms: ['reuse', 'library', 'template', 'keep for later'],
  },
  'make-shared': {
    title: 'Make shared section…',
    keys: ['Alt+Shift+M'],
    whileTyping: false,
    synonyms: ['reuse', 'same on several pages', 'library', 'global', 'linked'],
  },
  'own-copy': {
    title: 'Make own copy',
    keys: ['Alt+Shift+U'],
    whileTyping: false,
    synonyms: ['detach', 'unlink', 'independent'],
  },
  settings: {
    title: 'Change block or page settings',
    keys: ['Alt+Enter'],
    whileTyping: false,
    synonyms: ['choose picture', 'image', 'photo', 'link', 'URL', 'replace picture', 'details'],
  },
  delete: {
    title: 'Delete',
    keys: ['Delete', 'Backspace'],
    whileTyping: false,
    synonyms: ['remove', 'erase'],
  },
  add: {
    title: 'Add block',
    keys: ['Ctrl+Enter'],
    whileTyping: true,
    synonyms: ['insert', 'new block', 'section'],
  },
  copy: { title: 'Copy', keys: ['Ctrl+C'], whileTyping: false, byBrowser: true },
  cut: { title: 'Cut', keys: ['Ctrl+X'], whileTyping: false, byBrowser: true },
  paste: { title: 'Paste', keys: ['Ctrl+V'], whileTyping: false, byBrowser: true },
  narrower: {
    title: 'Next narrower size',
    keys: ['Alt+PageUp'],
    whileTyping: true,
    synonyms: ['phone', 'mobile'],
  },
  wider: { title: 'Next wider size', keys: ['Alt+PageDown'], whileTyping: true, synonyms: ['desktop'] },
  'grid-left': { title: 'Move left on grid', keys: ['Ctrl+ArrowLeft'], whileTyping: false },
  'grid-right': { title: 'Move right on grid', keys: ['Ctrl+ArrowRight'], whileTyping: false },
  'grid-up': { title: 'Move up on grid', keys: ['Ctrl+ArrowUp'], whileTyping: false },
  'grid-down': { title: 'Move down on grid', keys: ['Ctrl+ArrowDown'], whileTyping: false },
  forward: {
    title: 'Bring forward',
    keys: ['Alt+.'],
    whileTyping: false,
    synonyms: ['layer', 'z-index'],
  },
  backward: {
    title: 'Send backward',
    keys: ['Alt+,'],
    whileTyping: false,
    synonyms: ['layer', 'z-index'],
  },
  'to-front': { title: 'Bring to front', keys: [], whileTyping: false, synonyms: ['layer', 'top'] },
  'to-back': { title: 'Send to back', keys: [], whileTyping: false, synonyms: ['layer', 'behind'] },
  'align-left': { title: 'Align left edges', keys: [], whileTyping: false },
  'align-centre': { title: 'Align centres', keys: [], whileTyping: false },
  'align-right': { title: 'Align right edges', keys: [], whileTyping: false },
  'align-top': { title: 'Align top edges', keys: [], whileTyping: false },
  'align-middle': { title: 'Align middles', keys: [], whileTyping: false },
  'align-bottom': { title: 'Align bottom edges', keys: [], whileTyping: false },
  'distribute-across': {
    title: 'Distribute horizontally',
    keys: [],
    whileTyping: false,
  },
  'distribute-down': {
    title: 'Distribute vertically',
    keys: [],
    whileTyping: false,
  },
  'make-room': {
    title: 'Make room',
    keys: ['Alt+R'],
    whileTyping: false,
    synonyms: ['row', 'insert', 'push down'],
  },
  'close-up': {
    title: 'Close up',
    keys: ['Alt+Shift+R'],
    whileTyping: false,
    synonyms: ['row', 'empty', 'pull up'],
  },
  'agree-order': {
    title: 'Match reading order',
    keys: [],
    whileTyping: false,
    synonyms: ['tab order', 'focus order', 'screen reader'],
  },
  'reading-path': {
    title: 'Show reading path',
    keys: ['Alt+N'],
    whileTyping: false,
    synonyms: ['tab order', 'screen reader'],
  },
  'convert-section': {
    title: 'Turn into grid section or section',
    keys: [],
    whileTyping: false,
    synonyms: ['convert', 'grid', 'flow', 'free placing'],
  },
  'derive-place': {
    title: 'Reset place',
    keys: [],
    whileTyping: false,
    synonyms: ['reading order', 'derived'],
  },
  'copy-arrangement': {
    title: 'Copy or reset arrangement…',
    keys: ['Alt+Shift+A'],
    whileTyping: false,
    synonyms: ['breakpoint', 'responsive', 'phone', 'tablet', 'mobile', 'inherit'],
  },
  'open-device': {
    title: 'Open on another device…',
    keys: [],
    whileTyping: false,
    inLineUp: true,
    synonyms: ['phone', 'tablet', 'mobile', 'QR code', 'preview'],
  },
  'next-gully': {
    title: 'Next gully',
    keys: ['F8'],
    whileTyping: false,
    inLineUp: true,
    synonyms: ['breakpoint', 'overflow', 'responsive', 'problem'],
  },
  'previous-gully': { title: 'Previous gully', keys: ['Shift+F8'], whileTyping: false, inLineUp: true },
  'line-up': {
    title: 'Line-up',
    keys: ['Ctrl+Shift+L'],
    whileTyping: true,
    inLineUp: true,
    synonyms: ['preview', 'phone', 'tablet', 'mobile', 'responsive', 'screen sizes'],
  },
  save: { title: 'Save', keys: ['Ctrl+S'], whileTyping: true, inLineUp: true },
  publish: {
    title: 'Publish',
    keys: ['Alt+P'],
    whileTyping: true,
    inLineUp: true,
    synonyms: ['go live', 'release'],
  },
  commands: { title: 'All commands', keys: ['Ctrl+Shift+Enter'], whileTyping: true, inLineUp: true },
}

/** Every command, for the list of them all. */
export const COMMAND_IDS = Object.keys(COMMANDS) as readonly CommandId[]

/** Commands that change nothing on the page: all that reviewers are offered. */
const LOOKING: ReadonlySet<CommandId> = new Set([
  'out',
  'next',
  'previous',
  'in',
  'first',
  'last',
  'select-next',
  'select-previous',
  'select-all',
  'copy',
  'narrower',
  'wider',
  'open-device',
  'next-gully',
  'previous-gully',
  'reading-path',
  'line-up',
  'publish',
  'commands',
])

/** Those of these commands that are offered to a person who may change pages, or who may not. */
export function offered(ids: readonly CommandId[], mayChange: boolean): readonly CommandId[] {
  return mayChange ? ids : ids.filter((id) => LOOKING.has(id))
}

/** A command's title, and its first key as people read it. */
export function keysOf(id: CommandId): { readonly title: string; readonly keys: string } {
  const { title, keys } = COMMANDS[id]
  return { title, keys: (keys[0] ?? '').replace('Arrow', '').replace('Escape', 'Esc').replaceAll('+', ' ') }
}
