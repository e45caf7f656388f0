import type { Registry } from '../blocks/registry.ts'
import { ID_PATTERN } from '../page/id.ts'
import type { Page } from '../page/page.ts'
import type { WithSizes } from '../sizes/site-sizes.ts'
import type { Edit } from './edit-shapes.ts'
import type { Applied } from './result.ts'

/** The JSON Schema of one field of an edit. */
export const ID = { type: 'string', pattern: ID_PATTERN }
export const NAME = { type: 'string', minLength: 1, maxLength: 64 }
export const INDEX = { type: 'integer', minimum: 0, maximum: 100_000 }

/** All that there is to say of one kind of edit. */
export interface EditDefinition<E extends Edit> {
  /**
   * The JSON Schemas of its fields: the shape of an edit that is stored or sent. What is inside of nodes, `apply` judges.
   */
  readonly fields: Readonly<Record<Exclude<keyof E, 'edit'>, object>>
  /** Fields that may be absent. */
  readonly optional?: readonly Exclude<keyof E, 'edit'>[]
  /** The page after the edit and the edit that takes it back, or why it does not fit. */
  apply(page: Page, edit: E, registry: Registry): Applied
  /** What the edit does to `before`, for people: "Moved heading “Opening hours” up". `sizes` are those of the site, for their names. */
  sentence(before: Page, edit: E, registry: Registry, sizes?: WithSizes): string
  /** The two as one edit that does what they do in a row; undefined where that takes both, as it always does where this is left out. */
  merge?(first: E, next: E): E | undefined
}

export function defineEdit<E extends Edit>(definition: EditDefinition<E>): EditDefinition<E> {
  return definition
}
