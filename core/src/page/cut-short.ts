/**
 * Texts that are cut where they are too long. A character beyond the first 65,536 is two units of a string, and half of one
 * is refused by encodings and by databases (Unicode 16, 3.9, D71 to D75; RFC 8259, 8.2).
 */

/** The beginning of a text: so many UTF-16 units at most, and only whole characters. */
export function cutShort(text: string, most: number): string {
  return text.slice(0, isInsideLetter(text, most) ? most - 1 : most)
}

/** The end of a text, in the same way. */
export function cutToEnd(text: string, most: number): string {
  const at = Math.max(0, text.length - most)
  return text.slice(isInsideLetter(text, at) ? at + 1 : at)
}

/** Whether a place in a text is between the halves of a surrogate pair. */
export function isInsideLetter(text: string, at: number): boolean {
  return (text.codePointAt(at - 1) ?? 0) > 0xffff
}
