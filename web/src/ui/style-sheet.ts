/** Stylesheets that documents and shadow trees adopt. */

export function styleSheet(css: string): CSSStyleSheet {
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(css)
  return sheet
}

const shared = new Map<string, CSSStyleSheet>()

/** One sheet for all who ask for this text, kept for good: for texts of which there are few. */
export function sharedSheet(css: string): CSSStyleSheet {
  const known = shared.get(css) ?? styleSheet(css)
  shared.set(css, known)
  return known
}

/**
 * Declares `@font-face` rules to the document, for good: each time its fonts change, the browser lays all of it out again.
 * Of two faces that are called alike, the one that was asked for last is used.
 */
export function declareFonts(faces: string): void {
  if (faces === '') return
  const sheet = sharedSheet(faces)
  const declared = document.adoptedStyleSheets
  if (declared.at(-1) === sheet) return
  document.adoptedStyleSheets = [...declared.filter((other) => other !== sheet), sheet]
}
