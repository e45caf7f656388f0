/** Colours as browsers compute them, and how they lie over each other. */
import { modeRgb, parse, useMode as withMode } from 'culori/fn'
import type { Box, Rgba } from './measured-page.ts'

withMode(modeRgb)

const BLACK: Rgba = [0, 0, 0, 1]
const TRANSPARENT: Rgba = [0, 0, 0, 0]

/** Reads a computed colour, such as `rgb(0, 0, 0)` or `color(srgb 0 0 0 / 0.5)`; black for one that is none. */
export function rgbaOf(css: string): Rgba {
  if (css === 'transparent' || css === '') return TRANSPARENT
  const found = parse(css)
  if (found?.mode !== 'rgb') return BLACK
  const { r, g, b, alpha = 1 } = found
  return [r * 255, g * 255, b * 255, alpha]
}

/** A colour painted over another one (Compositing and Blending 1, "source over"). */
export function over(top: Rgba, under: Rgba): Rgba {
  const alpha = top[3] + under[3] * (1 - top[3])
  if (alpha === 0) return TRANSPARENT
  const mix = (i: 0 | 1 | 2) => (top[i] * top[3] + under[i] * under[3] * (1 - top[3])) / alpha
  return [mix(0), mix(1), mix(2), alpha]
}

/** The contrast ratio of two colours, of which the first may let the second through (WCAG 2.2, "contrast ratio"). */
export function contrastOf(ink: Rgba, ground: Rgba): number {
  const [a, b] = [luminanceOf(ink[3] === 1 ? ink : over(ink, ground)), luminanceOf(ground)]
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05)
}

/** The linear share of each of the 256 steps of a channel (IEC 61966-2-1). */
const LINEAR = Float64Array.from({ length: 256 }, (_unused, step) => {
  const share = step / 255
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
})

function luminanceOf([r, g, b]: Rgba): number {
  const linear = (channel: number): number => LINEAR[Math.round(Math.min(255, Math.max(0, channel)))]!
  return 0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b)
}

interface Stop {
  readonly at: number
  readonly colour: Rgba
}

/** What is painted at a point of a box, from 0 to 1 each way. */
export type Paint = (x: number, y: number) => Rgba

/**
 * Reads the computed `background-image` of an overlay: a linear gradient (CSS Images 3, section 3.1), or nothing. What it
 * can't read is taken for nothing, so that no contrast is told better than it is.
 */
export function paintOf(image: string, { width, height }: Pick<Box, 'width' | 'height'>): Paint | undefined {
  const inside = /^linear-gradient\((.*)\)$/.exec(image)?.[1]
  if (inside === undefined) return undefined
  const parts = inside.split(/,(?![^(]*\))/).map((part) => part.trim())
  const turn = /^(-?[\d.]+)deg$/.exec(parts[0]!)
  const angle = ((turn ? Number(turn[1]) : 180) * Math.PI) / 180
  const [dx, dy] = [Math.sin(angle), -Math.cos(angle)]
  const length = Math.abs(width * dx) + Math.abs(height * dy)
  const stops = stopsOf(turn ? parts.slice(1) : parts, length)
  if (stops.length === 0 || length === 0) return undefined
  return (x, y) => colourAt(stops, ((x - 0.5) * width * dx + (y - 0.5) * height * dy) / length + 0.5)
}

/** Stops without a place stand evenly between those that have one. */
function stopsOf(parts: readonly string[], length: number): readonly Stop[] {
  const read = parts.map((part) => {
    const [, colour, place] = /^(.*?\)|\S+)(?:\s+(.+))?$/.exec(part)!
    return { colour: rgbaOf(colour!), at: place === undefined ? undefined : placeOf(place, length) }
  })
  const given = read.map(({ at }, i) => at ?? (i === 0 ? 0 : i === read.length - 1 ? 1 : undefined))
  return read.map(({ colour }, i) => {
    const known = given[i]
    if (known !== undefined) return { colour, at: known }
    const before = given.findLastIndex((one, j) => j < i && one !== undefined)
    const after = given.findIndex((one, j) => j > i && one !== undefined)
    const share = (i - before) / (after - before)
    return { colour, at: given[before]! + share * (given[after]! - given[before]!) }
  })
}

/** A place on the gradient's line, from 0 to 1: a percentage, px, or the least or greatest of such. */
function placeOf(place: string, length: number): number {
  const among = /^(min|max)\((.*)\)$/.exec(place)
  if (among)
    return Math[among[1] as 'min' | 'max'](...among[2]!.split(',').map((one) => placeOf(one.trim(), length)))
  const value = parseFloat(place)
  return place.endsWith('%') ? value / 100 : value / length
}

/** Between two stops, colours mix with their opacity in them (CSS Images 3, "premultiplied"). */
function colourAt(stops: readonly Stop[], at: number): Rgba {
  const next = stops.findIndex((stop) => stop.at >= at)
  if (next < 0) return stops.at(-1)!.colour
  if (next === 0) return stops[0]!.colour
  const [a, b] = [stops[next - 1]!, stops[next]!]
  const share = b.at === a.at ? 1 : (at - a.at) / (b.at - a.at)
  const alpha = a.colour[3] * (1 - share) + b.colour[3] * share
  if (alpha === 0) return TRANSPARENT
  const mix = (i: 0 | 1 | 2) =>
    (a.colour[i] * a.colour[3] * (1 - share) + b.colour[i] * b.colour[3] * share) / alpha
  return [mix(0), mix(1), mix(2), alpha]
}
