/** Custom values: a measure or a colour of a block's own, where the site's keeper allows them. */
import { contrastRatio } from './contrast-ratio.ts'
import { remCss, type Look, type Surface } from './look.ts'

/** A measure in px at a text size of 16 px, from 0 to 999; and a colour, `#rrggbb`. */
export const OWN_MEASURE = '(?:0|[1-9][0-9]{0,2})px'
export const OWN_COLOUR = '#[0-9a-f]{6}'

const MEASURE = new RegExp(`^${OWN_MEASURE}$`)
const COLOUR = new RegExp(`^${OWN_COLOUR}$`)

export function isOwnMeasure(value: unknown): boolean {
  return typeof value === 'string' && MEASURE.test(value)
}

export function isOwnColour(value: unknown): boolean {
  return typeof value === 'string' && COLOUR.test(value)
}

/** In rem, so that it follows the reader's own text size as the look's steps do (WCAG 2.2, 1.4.4). */
export function ownMeasureCss(value: string): string {
  return remCss(Number.parseInt(value, 10))
}

/** What stands on a background, by the names a surface has for it; each must be told from it by eye. */
const ON_BACKGROUND = ['ink', 'quiet', 'titleInk', 'link', 'accent'] as const

/** The least contrast of anything that stands on a surface with its background. */
export function leastContrast(surface: Surface): number {
  return Math.min(...ON_BACKGROUND.map((ink) => contrastRatio(surface[ink], surface.background)))
}

/** A surface of a colour that the look does not have, with the colours of that surface of the look that can best be read on it. */
export function ownSurface(look: Look, colour: string): Surface {
  const all = Object.values(look.surfaces).map((surface) => ({
    ...surface,
    title: colour,
    background: colour,
  }))
  const [first, ...rest] = all
  if (!first) throw new RangeError('The look has no surfaces')
  return rest.reduce((best, one) => (leastContrast(one) > leastContrast(best) ? one : best), first)
}

/** The surface that a name of the look, or a colour, stands for; undefined where the look has none of that name. */
export function surfaceOf(look: Look, name: string): Surface | undefined {
  if (isOwnColour(name)) return ownSurface(look, name)
  return Object.hasOwn(look.surfaces, name) ? look.surfaces[name] : undefined
}

/** The class of what stands on a surface. */
export function surfaceClass(name: string): string {
  return isOwnColour(name) ? `own-${name.slice(1)}` : `on-${name}`
}
