/** Which part of a picture is shown where it is used, in its own ratio or another. */
import type { Declarations } from './css-rules.ts'

/** A picture of the library with the point of it that must stay in view, in % from the left and top. */
export interface Focused {
  readonly id: string
  readonly focus?: { readonly x: number; readonly y: number }
  readonly crop?: Crop
}

/** The part of a picture that is shown, in % of its width and height. */
export interface Crop {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  /** Width over height of the whole picture, so that the part's own proportions are known. */
  readonly shape: number
}

/** What is shown of a picture, whichever it is. */
type Shown = Pick<Focused, 'focus' | 'crop'>

interface PictureStyles {
  /** Of the `picture` element. */
  readonly box: Declarations
  readonly picture: Declarations
}

/** Width over height of a ratio written as `16/9`, as the plain number that `--ratio` has to be. */
export function ratioOf(ratio: string): number {
  const [width, height] = ratio.split('/').map(Number)
  return Math.round((width! / height!) * 10_000) / 10_000
}

/** Keeps the point in view when the picture fills a box (CSS Images 3, "object-position"). */
export function focusStyle({ focus, crop }: Shown): Declarations {
  // A box whose ratio is not known beforehand shows what is around the crop's middle.
  const point = focus ?? (crop && middleOf(crop))
  return point ? { 'object-position': `${round(point.x)}% ${round(point.y)}%` } : {}
}

function middleOf({ x, y, width, height }: Crop): { readonly x: number; readonly y: number } {
  return { x: x + width / 2, y: y + height / 2 }
}

function shapeOf({ width, height, shape }: Crop): number {
  return (width * shape) / height
}

/**
 * Shows one part of a picture: the picture is made so large that the part fills its box, and is moved until the part is
 * in it. Where `--ratio` is set, on the box or around it, that is the ratio of the box, and of the part is shown what
 * fills it and lies nearest to the focus; otherwise the box has the part's own shape. Margins in % are of the box's width
 * (CSS Box 4, "margin"), so heights are written in widths.
 */
export function cropStyles(crop: Crop, focus = middleOf(crop)): PictureStyles {
  const shape = round(crop.shape)
  const ratio = `var(--ratio,${round(shapeOf(crop))})`
  const from = (start: number, length: number, middle: number, seen: string): string =>
    `clamp(${round(start)},${round(middle)} - ${seen}/2,${round(start + length)} - ${seen})`
  const left = from(crop.x, crop.width, focus.x, 'var(--part)')
  const top = from(crop.y, crop.height, focus.y, 'var(--rows)')
  return {
    box: { display: 'block', overflow: 'hidden', 'aspect-ratio': ratio },
    picture: {
      // How much of the picture's width and height is seen, in %.
      '--part': `min(${round(crop.width)},${round(crop.height / crop.shape)}*${ratio})`,
      '--rows': `var(--part)*${shape}/${ratio}`,
      width: 'calc(10000%/var(--part))',
      'max-width': 'none',
      height: 'auto',
      // Until it has loaded, as if it had.
      'aspect-ratio': `auto ${shape}`,
      'margin-left': `calc(-100%*${left}/var(--part))`,
      'margin-top': `calc(-100%*${top}/var(--part)/${shape})`,
    },
  }
}

/** A picture that fills a box of this ratio, with the corners that the kind gives it. */
export function filledBox({ crop, focus }: Shown, ratio: number, corners?: string): PictureStyles {
  if (!crop) return { box: {}, picture: focusStyle({ focus }) }
  const { box, picture } = cropStyles(crop, focus)
  const rounded = (radius: string): Declarations => (corners === undefined ? {} : { 'border-radius': radius })
  return {
    box: { '--ratio': String(ratio), ...box, ...rounded(corners!) },
    picture: { ...picture, ...rounded('0') },
  }
}

/** The box of a crop that is shown whole in the middle of a box of that ratio: what `cropStyles` gives for it is completed by this. */
export function wholeInBox(crop: Crop, ratio: number): Declarations {
  const own = shapeOf(crop)
  const around = Math.max(0, (1 / ratio - 1 / own) / 2)
  return { width: `${round(100 * Math.min(1, own / ratio))}%`, margin: `${round(100 * around)}% auto` }
}

/** How wide a picture is laid out by `cropStyles`, as a multiple of its box; 1 for one that is shown whole. */
export function croppedShare({ crop }: Shown, ratio?: number): number {
  if (!crop) return 1
  return 100 / Math.min(crop.width, ratio === undefined ? Infinity : (crop.height * ratio) / crop.shape)
}

function round(value: number): number {
  return Math.round(value * 1000) / 1000
}
