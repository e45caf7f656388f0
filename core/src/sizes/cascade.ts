import type { Json, JsonObject } from '../page/json.ts'
import type { PageNode, SizeKey } from '../page/page.ts'
import type { ObjectSchema } from '../kit/fields.ts'
import { sizesSet } from './size-keys.ts'

/** Where the value in force comes from: set at the size itself, taken over from a wider one, or the kind's default. */
export type ValueOrigin =
  | { readonly from: 'own' }
  | { readonly from: 'wider'; readonly size: SizeKey }
  | { readonly from: 'default' }

export interface CascadedValue {
  readonly value: Json | undefined
  readonly origin: ValueOrigin
}

/** The value of one field at one size, and where it comes from. */
export function cascadeValue(
  node: PageNode,
  schema: ObjectSchema,
  size: SizeKey,
  key: string,
): CascadedValue {
  let from: SizeKey | undefined
  for (const at in node.sizes)
    if (at <= size && (from === undefined || at > from) && Object.hasOwn(node.sizes[at]!, key)) from = at
  if (from !== undefined) {
    const value = node.sizes[from]![key]
    return { value, origin: from === size ? { from: 'own' } : { from: 'wider', size: from } }
  }
  return { value: schema.properties[key]?.default, origin: { from: 'default' } }
}

/** All values in force at one size: the defaults of the schema, overlaid by each size from the widest down to this one. */
export function cascade(node: PageNode, schema: ObjectSchema, size: SizeKey): JsonObject {
  const values: Record<string, Json> = { ...defaultsOf(schema) }
  for (const at of sizesSet(node)) if (at <= size) Object.assign(values, node.sizes[at])
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
