/** A picture behind words: how high it stands, what lies over it, and which point of it stays in view. */
import { choice, type FieldSchema } from '../blocks/fields.ts'
import type { Declarations } from './css-rules.ts'

export type Shade = 'none' | 'side' | 'even' | 'deep'

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

/** Shares of the screen's height, but never so much that nothing else is seen on a very tall one. */
export const HEIGHTS = { content: undefined, half: 'min(50vh,460px)', tall: 'min(78vh,700px)' } as const

/** What lies over a backdrop picture, so that words on it can be read: the surface's own colour, more or less of it. */
export const SHADES: Readonly<Record<Shade, string>> = {
  none: 'none',
  side: 'linear-gradient(90deg,color-mix(in srgb,var(--paper) 82%,transparent),color-mix(in srgb,var(--paper) 8%,transparent) 75%)',
  even: 'linear-gradient(color-mix(in srgb,var(--paper) 55%,transparent),color-mix(in srgb,var(--paper) 55%,transparent))',
  deep: 'linear-gradient(color-mix(in srgb,var(--paper) 78%,transparent),color-mix(in srgb,var(--paper) 78%,transparent))',
}

export function shadeField(): FieldSchema {
  return choice('Shade over picture', 'side', {
    none: 'None',
    side: 'From the side',
    even: 'Even',
    deep: 'Deep',
  })
}

/** Keeps the point in view when the picture is cropped (CSS Images 3, "object-position"). */
export function focusStyle({ focus, crop }: Focused): Declarations {
  // A frame of another shape than the crop shows what is around the crop's middle.
  const point = focus ?? (crop && { x: middle(crop.x, crop.width), y: middle(crop.y, crop.height) })
  return point ? { 'object-position': `${point.x}% ${point.y}%` } : {}
}

/** Where `object-position` has to be for the middle of a part to come to the middle of the frame, as far as it can. */
function middle(start: number, length: number): number {
  return Math.round(Math.min(100, Math.max(0, start + length / 2)) * 100) / 100
}

/**
 * Shows one part of a picture in its own proportions: the picture is made so large that the part fills its box, and is
 * moved until the part is in it. Margins in % are of the box's width
 * (CSS Box 4, "margin"), so heights are written in widths.
 */
export function cropStyles(crop: Crop): { readonly box: Declarations; readonly picture: Declarations } {
  const { shape } = crop
  const scale = 100 / crop.width
  return {
    box: {
      display: 'block',
      overflow: 'hidden',
      'aspect-ratio': `${round(crop.width * shape)}/${round(crop.height)}`,
    },
    picture: {
      width: `${round(scale * 100)}%`,
      'max-width': 'none',
      'margin-left': `${round(-crop.x * scale)}%`,
      'margin-top': `${round((-crop.y * scale) / shape)}%`,
    },
  }
}

function round(value: number): number {
  return Math.round(value * 1000) / 1000
}
