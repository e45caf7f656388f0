/** The step, weight and colour of words, as headings and texts can be given them. */
import { choice, type FieldSchema } from '../blocks/fields.ts'
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

export function typeLookFields(): Readonly<Record<string, FieldSchema>> {
  return {
    weight: choice('Weight', 'usual', {
      usual: 'As its type',
      light: 'Light',
      normal: 'Normal',
      strong: 'Strong',
      heavy: 'Heavy',
    }),
    // Colours of the surface that the words stand on, so that they can always be read.
    colour: choice('Colour', 'usual', {
      usual: 'As its kind',
      ink: 'Plain words',
      title: 'Headings',
      accent: 'Accent',
      quiet: 'Quiet',
    }),
  }
}

/** What a step of type sets, or a size of its own with all else from the step it would have. */
export function typeAt(step: string, otherwise: string): Declarations {
  return isOwnMeasure(step) ? { ...typeStyle(otherwise), 'font-size': ownMeasureCss(step) } : typeStyle(step)
}

export function typeLook({ weight = 'usual', colour = 'usual' }: TypeLook): Declarations {
  return {
    ...(WEIGHTS[weight] ? { 'font-weight': WEIGHTS[weight] } : {}),
    ...(COLOURS[colour] ? { color: COLOURS[colour] } : {}),
  }
}
