import type { Json, JsonObject } from '../page/json.ts'
import type { PageNode, SizeKey } from '../page/page.ts'
import type { ObjectSchema } from '../kit/fields.ts'
import type { SizeBounds } from '../look/look.ts'

/** Sizes from the widest to the narrowest: the order in which one takes over the values of the one before. */
export const SIZE_KEYS = ['base', 'medium', 'narrow'] as const satisfies readonly SizeKey[]

/** The word for a size in the interface. */
export const SIZE_WORDS: Readonly<Record<SizeKey, string>> = {
  base: 'wide',
  medium: 'medium',
  narrow: 'narrow',
}

/** The screen widths that stand for each size where one of each is shown, in px: all well inside their range. */
export const SAMPLE_WIDTHS: Readonly<Record<SizeKey, number>> = { base: 1440, medium: 820, narrow: 390 }

/** Where the value in force comes from: set at the size itself, taken over from a wider one, or the kind's default. */
export type ValueOrigin =
  { readonly from: 'own' } | { readonly from: 'wider'; readonly size: SizeKey } | { readonly from: 'default' }

export interface CascadedValue {
  readonly value: Json | undefined
  readonly origin: ValueOrigin
}

/** The size that a screen of this width in px shows. Every width has exactly one. */
export function sizeAt(width: number, bounds: SizeBounds): SizeKey {
  if (width >= bounds.wide) return 'base'
  return width >= bounds.medium ? 'medium' : 'narrow'
}

/** The value of one field at one size, and where it comes from. */
export function cascadeValue(
  node: PageNode,
  schema: ObjectSchema,
  size: SizeKey,
  key: string,
): CascadedValue {
  for (let at = SIZE_KEYS.indexOf(size); at >= 0; at--) {
    const own = node.sizes[SIZE_KEYS[at]!]
    if (own && Object.hasOwn(own, key)) {
      const from = SIZE_KEYS[at]!
      return { value: own[key], origin: from === size ? { from: 'own' } : { from: 'wider', size: from } }
    }
  }
  return { value: schema.properties[key]?.default, origin: { from: 'default' } }
}

/** All values in force at one size: the defaults of the schema, overlaid by each size from the widest down to this one. */
export function cascade(node: PageNode, schema: ObjectSchema, size: SizeKey): JsonObject {
  const values: Record<string, Json> = { ...defaultsOf(schema) }
  for (const at of SIZE_KEYS) {
    Object.assign(values, node.sizes[at])
    if (at === size) break
  }
  return values
}

const knownDefaults = new WeakMap<ObjectSchema, JsonObject>()

/** The default of every field that has one, read off the schema once. */
function defaultsOf(schema: ObjectSchema): JsonObject {
  let defaults = knownDefaults.get(schema)
  if (!defaults) {
    const entries = Object.entries(schema.properties).flatMap(([key, field]) =>
      field.default === undefined ? [] : [[key, field.default] as const],
    )
    defaults = Object.fromEntries(entries)
    knownDefaults.set(schema, defaults)
  }
  return defaults
}
