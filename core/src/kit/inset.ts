/** Padding of a box, all around or by its sides. */
import { stepOr, type FieldSchema } from './fields.ts'
import { space } from './token-css.ts'

export interface Inset {
  readonly inset: string
  readonly insetAbove: string
  readonly insetRight: string
  readonly insetBelow: string
  readonly insetLeft: string
}

const USUAL = 'usual'
const FOLLOWS = 'all'
/** What stands on a background of its own does not touch its edge. */
const ON_SURFACE = 'm'

interface Surfaced {
  readonly surface?: unknown
}

const SIDES = ['insetAbove', 'insetRight', 'insetBelow', 'insetLeft'] as const

export function insetFields(): Readonly<Record<keyof Inset, FieldSchema>> {
  const side = (title: string) => stepOr(title, 'space', [FOLLOWS, 'Same as padding'], { key: 'inset' })
  return {
    inset: stepOr('Padding', 'space', [USUAL, 'Default'], { key: 'surface', gives: { '*': ON_SURFACE } }),
    insetAbove: side('Padding above'),
    insetRight: side('Padding right'),
    insetBelow: side('Padding below'),
    insetLeft: side('Padding left'),
  }
}

/** The padding that these values make, as short as it can be written. */
export function insetCss(values: Inset, look: Surfaced): string {
  const all = SIDES.map((side) => sideCss(values, look, side))
  return all.every((one) => one === all[0]) ? all[0]! : all.join(' ')
}

/** The width that is left of `width` between the sides; undefined where all of it is. */
export function widthInside(width: string, values: Inset, look: Surfaced): string | undefined {
  const [left, right] = [sideCss(values, look, 'insetLeft'), sideCss(values, look, 'insetRight')]
  if (left === NOTHING && right === NOTHING) return undefined
  return left === right ? `(${width} - 2*${left})` : `(${width} - ${left} - ${right})`
}

const NOTHING = space('none')

function sideCss(values: Inset, look: Surfaced, side: (typeof SIDES)[number]): string {
  const usual = look.surface === undefined ? 'none' : ON_SURFACE
  const inset = values.inset === USUAL ? usual : values.inset
  return space(values[side] === FOLLOWS ? inset : values[side])
}
