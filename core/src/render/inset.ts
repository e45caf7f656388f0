/** Padding of a box, all around or by its sides. */
import { step, stepOr, type FieldSchema } from '../blocks/fields.ts'
import { space } from './token-css.ts'

export interface Inset {
  readonly inset: string
  readonly insetAbove: string
  readonly insetRight: string
  readonly insetBelow: string
  readonly insetLeft: string
}

const FOLLOWS = 'all'
const SIDES = ['insetAbove', 'insetRight', 'insetBelow', 'insetLeft'] as const

export function insetFields(): Readonly<Record<keyof Inset, FieldSchema>> {
  const side = (title: string) => stepOr(title, 'space', [FOLLOWS, 'Same as padding'], { key: 'inset' })
  return {
    inset: step('Padding', 'space', 'none'),
    insetAbove: side('Padding above'),
    insetRight: side('Padding right'),
    insetBelow: side('Padding below'),
    insetLeft: side('Padding left'),
  }
}

/** The padding that these values make, as short as it can be written. */
export function insetCss(values: Inset): string {
  const all = SIDES.map((side) => sideCss(values, side))
  return all.every((one) => one === all[0]) ? all[0]! : all.join(' ')
}

/** The width that is left of `width` between the sides; undefined where all of it is. */
export function widthInside(width: string, values: Inset): string | undefined {
  const [left, right] = [sideCss(values, 'insetLeft'), sideCss(values, 'insetRight')]
  if (left === NOTHING && right === NOTHING) return undefined
  return left === right ? `(${width} - 2*${left})` : `(${width} - ${left} - ${right})`
}

const NOTHING = space('none')

function sideCss(values: Inset, side: (typeof SIDES)[number]): string {
  return space(values[side] === FOLLOWS ? values.inset : values[side])
}
