/** The one shortcut that opens the search, on every screen. */
export const SEARCH_KEYS = 'Ctrl Shift Enter'

export function isSearchKey(event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey'>): boolean {
  return event.key === 'Enter' && event.shiftKey && (event.ctrlKey || event.metaKey)
}
