const KEPT_MS = 60_000

/** Has the browser save a text as a file. */
export function saveText(name: string, type: string, text: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type }))
  link.download = name
  link.click()
  // The browser reads it after this turn.
  setTimeout(() => URL.revokeObjectURL(link.href), KEPT_MS)
}
