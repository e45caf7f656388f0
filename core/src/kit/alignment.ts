/**
 * Alignment that a container sets once for all that stands in it. Text takes it by `text-align`; what is narrower than its
 * place takes it by the properties `--before` and `--after`, its margins, and a row of things by `--justify`.
 */
import { choice, type FieldSchema } from './fields.ts'
import type { Declarations } from './css-rules.ts'

const ALIGNMENTS = { start: 'Left', center: 'Centre', end: 'Right' } as const
const INHERITED = 'inherit'

export type Alignment = typeof INHERITED | keyof typeof ALIGNMENTS

export function alignmentField(title = 'Alignment'): FieldSchema {
  return choice(title, INHERITED, { [INHERITED]: 'Inherited', ...ALIGNMENTS })
}

/** What a container declares so that all in it stands on one side or in the middle, unless it says otherwise itself. */
export function alignAll(alignment: Alignment): Declarations {
  if (alignment === INHERITED) return {}
  return {
    'text-align': alignment,
    '--justify': alignment,
    '--before': alignment === 'start' ? '0' : 'auto',
    '--after': alignment === 'center' ? 'auto' : '0',
  }
}

/** What a text declares that says itself where it stands. */
export function alignText(alignment: Alignment): Declarations {
  return alignment === INHERITED ? {} : { 'text-align': alignment }
}

/** What a box declares that says itself where it stands; see `ALIGNED_BOX`. */
export function alignBox(alignment: Alignment): Declarations {
  return alignment === INHERITED ? {} : { 'text-align': alignment, 'margin-inline': BOX_MARGINS[alignment] }
}

const BOX_MARGINS = { start: '0', center: 'auto', end: 'auto 0' } as const

/** For what may be narrower than its place. */
export const ALIGNED_BOX: Declarations = { 'margin-inline': 'var(--before,0) var(--after,0)' }

export function justified<T extends string>(justify: T): string {
  return justify === INHERITED ? 'var(--justify,start)' : justify
}
