import { contrastOf, over, paintOf, rgbaOf, type Paint } from '../colour.ts'
import { quoted, type GullyRule } from '../define-rule.ts'
import { isInside, paintsOver, seenOf, shared } from '../geometry.ts'
import type { Box, MeasuredBand, MeasuredText, Pixels, PixelsOf, Rgba } from '../measured-page.ts'
import { drawnWidth } from './picture-pixels.ts'

const LEAST = 4.5
/** Of text that is large: 18 point, or 14 point and bold. A point is 4/3 px. */
const LEAST_LARGE = 3
const LARGE = 24
const LARGE_BOLD = (14 * 4) / 3
/** So far apart are the points that are looked at, in px. */
const STEP = 6
/** A picture is never all of one brightness: so much of what lies behind a text may be nearer to its colour. */
const MAY_FAIL = 0.05
const WHITE: Rgba = [255, 255, 255, 1]

/** Words over a picture that can't be told from what is in it. */
export const pictureContrast: GullyRule = {
  rule: 'picture-contrast',
  title: 'Low contrast over a picture',
  severity: 'error',
  source: 'WCAG 2.2, 1.4.3 Contrast (Minimum)',
  find: ({ band, pixels }) => {
    const pictures = band.elements.flatMap(({ picture }, index) =>
      picture && pixels[picture.source] ? [index] : [],
    )
    return band.elements.flatMap(({ id, text }, index) => {
      if (!text) return []
      const under = pictures.filter((picture) => isBehind(band, picture, index))
      const ratio = worst(under.flatMap((picture) => ratiosOver(band, { text: index, picture, pixels })))
      const needed = isLarge(text) ? LEAST_LARGE : LEAST
      if (ratio === undefined || ratio >= needed) return []
      const why = `${quoted(text.words)} has a contrast of ${ratio.toFixed(1)} over the picture, and needs ${needed}`
      return [{ id, amount: needed - ratio, why }]
    })
  },
}

function isLarge({ fontSize, isBold }: MeasuredText): boolean {
  return fontSize >= LARGE || (isBold && fontSize >= LARGE_BOLD)
}

/** Whether a picture is seen behind a text: painted before it, with nothing that can't be seen through between them. */
function isBehind(band: MeasuredBand, picture: number, text: number): boolean {
  if (isInside(band, text, picture) || !paintsOver(band, text, picture)) return false
  for (let at = text; at >= 0 && !isInside(band, picture, at); at = band.elements[at]!.parent)
    if (band.elements[at]!.isOpaque) return false
  return true
}

/** The ratio that all but a small share reach. */
function worst(ratios: readonly number[]): number | undefined {
  if (ratios.length === 0) return undefined
  return ratios.toSorted((a, b) => a - b)[Math.floor(ratios.length * MAY_FAIL)]
}

interface Over {
  readonly text: number
  readonly picture: number
  readonly pixels: PixelsOf
}

/** The contrast at points of the lines that lie over a picture. */
function ratiosOver(band: MeasuredBand, { text, picture: at, pixels }: Over): readonly number[] {
  const { lines, colour } = band.elements[text]!.text!
  const { picture, box } = band.elements[at]!
  const seen = seenOf(band, at, box)
  if (!picture || !seen) return []
  const groundAt = groundOf(box, drawn(picture, box), pixels[picture.source]!, picture.overlay)
  return lines.flatMap((line) => {
    const both = shared(line, seen)
    const ratios: number[] = []
    if (!both) return ratios
    // From the middle of the outermost steps, so that a narrow line is looked at as well.
    for (let y = both.y + Math.min(STEP, both.height) / 2; y < both.y + both.height; y += STEP)
      for (let x = both.x + Math.min(STEP, both.width) / 2; x < both.x + both.width; x += STEP)
        ratios.push(contrastOf(colour, groundAt(x, y)))
    return ratios
  })
}

/** Where the whole picture would be, of which its box shows a part. */
function drawn(
  {
    fit,
    natural,
    position,
  }: Parameters<typeof drawnWidth>[0] & { readonly position: { x: number; y: number } },
  box: Box,
): Box {
  const width = drawnWidth({ fit, natural }, box)
  const height = fit === 'fill' ? box.height : (width * natural.height) / natural.width
  return {
    x: box.x + (box.width - width) * position.x,
    y: box.y + (box.height - height) * position.y,
    width,
    height,
  }
}

type Ground = (x: number, y: number) => Rgba

/** The colour at a point: of the picture, under what is laid over it. */
function groundOf(
  box: Box,
  whole: Box,
  { width, height, data }: Pixels,
  overlay: { readonly image: string; readonly colour: string } | undefined,
): Ground {
  const paint: Paint | undefined = overlay && paintOf(overlay.image, box)
  const veil = overlay && rgbaOf(overlay.colour)
  return (x, y) => {
    const column = Math.min(width - 1, Math.max(0, Math.floor(((x - whole.x) / whole.width) * width)))
    const row = Math.min(height - 1, Math.max(0, Math.floor(((y - whole.y) / whole.height) * height)))
    const from = 4 * (row * width + column)
    let ground: Rgba = over([data[from]!, data[from + 1]!, data[from + 2]!, data[from + 3]! / 255], WHITE)
    if (veil) ground = over(veil, ground)
    if (paint) ground = over(paint((x - box.x) / box.width, (y - box.y) / box.height), ground)
    return ground
  }
}
