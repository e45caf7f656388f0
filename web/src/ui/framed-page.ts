/**
 * For the page in a frame: a scrollbar that takes room would lay it out narrower than the ruler says, and than its gullies
 * are measured at. On phones none does.
 */
export const NO_SCROLLBAR_CSS = 'html{scrollbar-width:none}'

/** A page as the source of a frame that is as wide as a screen, and that jumps where it is scrolled to. */
export function framedPage(css: string, body: string): string {
  return `<!DOCTYPE html><meta charset="utf-8"><title>Page</title><style>${css}html{scroll-behavior:auto}${NO_SCROLLBAR_CSS}</style>${body}`
}
