import { keyName } from './commands.ts'

/**
 * Keys typed into a field of the editor's own screen belong to that field, and all keys of a dialog to the dialog; of
 * buttons, only those that buttons and lists mean something by. Saving works from everywhere but a dialog.
 */
export function isOfField(event: KeyboardEvent): boolean {
  const target = event.target as Element | null
  if (target?.ownerDocument !== document) return false
  if (target.closest('[role="dialog"], [role="alertdialog"]')) return true
  const isPlain = !event.ctrlKey && !event.metaKey && !event.altKey
  if (target.closest('input, textarea, select')) return !SCREEN_KEYS.has(keyName(event))
  if (isPlain && target.closest('[role="slider"], [aria-label="Shelf"]')) return true
  if (isPlain && PRESS_KEYS.has(event.key) && target.closest('button, summary, a[href]')) return true
  return isPlain && !DELETE_KEYS.has(event.key) && target.closest('header button, aside button') !== null
}

/** Keys that press what has the focus, wherever it is. */
const PRESS_KEYS = new Set(['Enter', ' '])

/** Keys that no button means anything by. */
const DELETE_KEYS = new Set(['Delete', 'Backspace'])

/** Keys that mean nothing inside a field, and so always mean the screen. */
const SCREEN_KEYS = new Set(['Ctrl+S', 'Ctrl+Shift+L', 'Ctrl+Shift+Enter', 'Alt+PageUp', 'Alt+PageDown'])
