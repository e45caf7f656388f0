/** What of a look comes nearest to something that it does not have. */
import { differenceCiede2000, modeLab65, modeRgb, useMode as withMode, type Rgb } from 'culori/fn'
import type { Look, Surface } from './look.ts'
import type { ScaleName } from './scales.ts'

withMode(modeRgb)
withMode(modeLab65)
const difference = differenceCiede2000()

/** The difference of two colours `#rrggbb` as people see it: CIEDE2000 (CIE 142-2001), with all its weights 1. */
export function colourDifference(a: string, b: string): number {
  return difference(rgbOf(a), rgbOf(b))
}

function rgbOf(hex: string): Rgb {
  const [r, g, b] = [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255) as [
    number,
    number,
    number,
  ]
  return { mode: 'rgb', r, g, b }
}

/** The name of the surface of a look whose background, and then whose text, comes nearest to another one's. */
export function nearestSurface(look: Look, wanted: Pick<Surface, 'background'> & Partial<Surface>): string {
  const far = (surface: Surface): number =>
    colourDifference(surface.background, wanted.background) +
    (wanted.ink === undefined ? 0 : colourDifference(surface.ink, wanted.ink) / 10)
  const [first, ...rest] = Object.keys(look.surfaces)
  if (first === undefined) throw new RangeError('The look has no surfaces')
  return rest.reduce(
    (best, one) => (far(look.surfaces[one]!) < far(look.surfaces[best]!) ? one : best),
    first,
  )
}

/** The step of a scale whose measure on a wide screen comes nearest to one in px. */
export function nearestStep(look: Look, scale: ScaleName, px: number): string {
  const measures: Readonly<Record<ScaleName, Readonly<Record<string, number>>>> = {
    space: Object.fromEntries(Object.entries(look.space).map(([step, { to }]) => [step, to])),
    type: Object.fromEntries(Object.entries(look.type).map(([step, { size }]) => [step, size.to])),
    radius: look.radius,
  }
  const steps = Object.entries(measures[scale])
  const [first, ...rest] = steps
  if (!first) throw new RangeError(`The look has no steps of ${scale}`)
  const far = ([, measure]: readonly [string, number]): number => Math.abs(measure - px)
  return rest.reduce((best, one) => (far(one) < far(best) ? one : best), first)[0]
}
