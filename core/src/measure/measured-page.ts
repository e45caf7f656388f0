/**
 * A page as a browser laid it out at one width, as plain data. Lengths are CSS px, places are counted from the top left of
 * the page.
 */
import type { ShownId } from '../resolve/expand.ts'

export interface Box {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** Red, green and blue from 0 to 255, and how opaque it is, from 0 to 1. */
export type Rgba = readonly [number, number, number, number]

/** The words of one element, without those of elements in it that are laid out as boxes of their own. */
export interface MeasuredText {
  /** The first of them, to call the text by. */
  readonly words: string
  readonly role: 'heading' | 'button' | 'cell' | 'running'
  readonly lines: readonly Box[]
  readonly characters: number
  /** How many words are broken over two lines where nothing in them allows that; counted in headings and buttons only. */
  readonly brokenWords: number
  readonly fontSize: number
  readonly isBold: boolean
  readonly colour: Rgba
}

/** A picture; its box is that of its element. */
export interface MeasuredPicture {
  /** The address of its smallest file. */
  readonly source: string
  /** Of the file it was made from. */
  readonly natural: { readonly width: number; readonly height: number }
  readonly fit: 'fill' | 'cover' | 'contain'
  /** Which point of the picture stands at the same share of its box (CSS Images 3, "object-position"), from 0 to 1. */
  readonly position: { readonly x: number; readonly y: number }
  /** The widths of its files, from narrow to wide. */
  readonly files: readonly number[]
  /** Where they are, in the same order. */
  readonly addresses: readonly string[]
  /** How wide the page tells the browser that it is shown: the value of `sizes` at this width. */
  readonly told: number
  /** What is drawn over it, as computed values of CSS `background-image` and `background-color`. */
  readonly overlay?: { readonly image: string; readonly colour: string }
}

export interface MeasuredTarget {
  /** Whether it stands in a sentence, where its height follows the line's (WCAG 2.2, 2.5.8, "Inline"). */
  readonly isInline: boolean
  /** What it is called. */
  readonly name: string
}

export interface MeasuredElement {
  /** The shown node that it belongs to. */
  readonly id: ShownId
  /** Where its parent is in the list; -1 for the band itself. */
  readonly parent: number
  readonly box: Box
  /** Left and right edge of where its content stands. */
  readonly content: { readonly left: number; readonly right: number }
  /** Which way it cuts off what is larger than itself. */
  readonly clips: 'none' | 'x' | 'y' | 'both'
  /** Whether what is wider than itself is reached by scrolling in it. */
  readonly isScrolled: boolean
  /** Whether it stands out of what it is in on purpose: its margins at the sides are less than nothing. Absent for no. */
  readonly isOutdented?: boolean
  /** Whether it is taken out of the flow. */
  readonly isAbsolute: boolean
  /** Whether it is painted over what is in the flow (CSS 2.2, appendix E). */
  readonly isLifted: boolean
  /** CSS `z-index`, where it is a number. */
  readonly layer?: number
  /** Whether nothing behind its box can be seen. */
  readonly isOpaque: boolean
  /** Whether its children go into rows, as many in each as there is room for. */
  readonly wraps: boolean
  readonly text?: MeasuredText
  readonly picture?: MeasuredPicture
  readonly target?: MeasuredTarget
}

/** A band of a page, from edge to edge: its header, one of its sections, its footer. */
export interface MeasuredBand {
  /** Of the window. */
  readonly width: number
  readonly box: Box
  /** In document order, so that parents come before what is in them. */
  readonly elements: readonly MeasuredElement[]
}

/** The pixels of a picture, made small: four bytes each, in rows from the top left. */
export interface Pixels {
  readonly width: number
  readonly height: number
  readonly data: Uint8ClampedArray
}

/** Pixels by the `source` of pictures; absent for those that could not be read. */
export type PixelsOf = Readonly<Record<string, Pixels | undefined>>
