import { choice, type FieldSchema } from './fields.ts'
import type { Declarations } from './css-rules.ts'

/** CSS basic shapes (CSS Shapes 1, "Basic Shapes") by the names that blocks have for them. Percentages are of the picture's own box. */
const CLIP_SHAPES = {
  circle: 'circle(closest-side)',
  ellipse: 'ellipse(50% 50%)',
  arch: 'inset(0 round 50% 50% 0 0 / 40% 40% 0 0)',
  slant: 'polygon(0 0,100% 0,100% 88%,0 100%)',
  hexagon: 'polygon(25% 0,75% 0,100% 50%,75% 100%,25% 100%,0 50%)',
  diamond: 'polygon(50% 0,100% 50%,50% 100%,0 50%)',
} as const

/** The shape that a picture is cut to. */
export const clipShape: FieldSchema = choice('Shape', 'none', {
  none: 'Rectangle',
  circle: 'Circle',
  ellipse: 'Ellipse',
  arch: 'Arch',
  slant: 'Slanted edge',
  hexagon: 'Hexagon',
  diamond: 'Diamond',
})

export function clipTo(shape = 'none'): Declarations {
  return Object.hasOwn(CLIP_SHAPES, shape)
    ? { 'clip-path': CLIP_SHAPES[shape as keyof typeof CLIP_SHAPES] }
    : {}
}
