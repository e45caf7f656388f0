/** The step, weight and colour of words, as headings and texts can be given them. */
import { choice, type FieldSchema, type Inherits } from './fields.ts'
import { isOwnMeasure, ownMeasureCss } from '../look/own-values.ts'
import type { Declarations } from './css-rules.ts'
import { typeStyle } from './token-css.ts'

const WEIGHTS = { usual: undefined, light: '350', normal: '450', strong: '600', heavy: '750' } as const
const COLOURS = {
  usual: undefined,
  ink: 'var(--ink)',
  title: 'var(--title)',
  accent: 'var(--accent)',
  quiet: 'var(--quiet)',
} as const

export interface TypeLook {
  readonly weight?: keyof typeof WEIGHTS
  readonly colour?: keyof typeof COLOURS
}

/** `inherits` says which other field gives the weight and the colour where none is set. */
export function typeLookFields(
  inherits: Readonly<Partial<Record<keyof TypeLook, Inherits>>> = {},
): Readonly<Record<keyof TypeLook, FieldSchema>> {
  const weight = choice('Weight', 'usual', {
    usual: 'Default',
    light: 'Light',
    normal: 'Normal',
    strong: 'Strong',
    heavy: 'Heavy',
  })
  // Colours of the surface that the words stand on, so that they can always be read.
  const colour = choice('Colour', 'usual', {
    usual: 'Default',
    ink: 'Text',
    title: 'Headings',
    accent: 'Accent',
    quiet: 'Quiet',
  })
  return {
    weight: inherits.weight ? { ...weight, inherits: inherits.weight } : weight,
    colour: inherits.colour ? { ...colour, inherits: inherits.colour } : colour,
  }
}

/** What a step of type sets, or a size of its own with all else from the step it would have. */
export function typeAt(step: string, otherwise: string): Declarations {
  return isOwnMeasure(step) ? { ...typeStyle(otherwise), 'font-size': ownMeasureCss(step) } : typeStyle(step)
}

/** The weight and colour that are set, or else those of `usual`. */
export function typeLook(
  { weight = 'usual', colour = 'usual' }: TypeLook,
  usual: TypeLook = {},
): Declarations {
  const inForce = {
    'font-weight': WEIGHTS[weight] ?? WEIGHTS[usual.weight ?? 'usual'],
    color: COLOURS[colour] ?? COLOURS[usual.colour ?? 'usual'],
  }
  return Object.fromEntries(
    Object.entries(inForce).flatMap(([name, value]) => (value ? [[name, value]] : [])),
  )
}
