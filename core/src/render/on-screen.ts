/**
 * Pages that stand within another document as on a screen of their own. What a stylesheet and a picture ask of the window
 * is answered for that screen beforehand, so that no document of its own has to be made for it.
 */

/** A screen's size in px. */
export interface FixedScreen {
  readonly width: number
  readonly height: number
}

/**
 * Gives a stylesheet of ours as it is on this screen, for a page in a shadow tree: conditions on the width are settled
 * (Media Queries 4, "width"), `vw`, `vh` and their small, large and dynamic kin are px (CSS Values 4, "viewport-percentage
 * lengths"), and what holds for the root of a document holds for the host (CSS Scoping 1, ":host").
 */
export function stylesheetOnScreen(css: string, screen: FixedScreen): string {
  const settled = css
    .replace(CONDITION, (_, below: string) => (holds(below, screen) ? '@media all' : '@media not all'))
    .replaceAll(':root{', ':host{')
  return lengthsOnScreen(settled, screen)
}

/** Gives a source size list (HTML standard, "Images") as it is on this screen: the one length that is in force. */
export function sizesOnScreen(sizes: string, screen: FixedScreen): string {
  const inForce = sizes
    .split(', ')
    .map((entry) => /^(?:\(width<(\d+)px\) )?(.*)$/.exec(entry)!)
    .find(([, below]) => below === undefined || holds(below, screen))
  return lengthsOnScreen(inForce?.[2] ?? sizes, screen)
}

const CONDITION = /@media \(width<(\d+)px\)/g

/** A length by the window, which is not part of a name; strings and addresses, which may hold what looks like one. */
const LENGTH = /"[^"]*"|url\([^)]*\)|(?<![\w#.-])(-?\d*\.?\d+)[sld]?v([wh])\b/g

function holds(below: string, { width }: FixedScreen): boolean {
  return width < Number(below)
}

function lengthsOnScreen(css: string, { width, height }: FixedScreen): string {
  return css.replace(LENGTH, (found, share: string | undefined, side: string) => {
    if (share === undefined) return found
    const px = (Number(share) / 100) * (side === 'w' ? width : height)
    return `${Math.round(px * 1e4) / 1e4}px`
  })
}
