/** Schemas of fields that several block kinds have, such as their spacing, are compiled once and referred to. */
import { ANNOTATIONS, type ObjectSchema } from '../core/src/kit/fields.ts'

interface SharedFields {
  /** The parts in the order they were given, with references to the shared fields. */
  readonly parts: readonly object[]
  /** The shared fields, by the references to them. */
  readonly fields: Readonly<Record<string, object>>
}

/** Keywords that say nothing about which values are valid. */
const NOT_CHECKED = new Set<string>([...ANNOTATIONS, 'title', 'default'])

/** Returns parts that accept the same values and point at the same faults. */
export function shareFields(parts: readonly ObjectSchema[]): SharedFields {
  const fields: Record<string, object> = {}
  const refs = new Map<string, string>()
  const share = (field: object): { $ref: string } => {
    const checked = Object.fromEntries(Object.entries(field).filter(([keyword]) => !NOT_CHECKED.has(keyword)))
    const key = JSON.stringify(checked)
    const $ref = refs.get(key) ?? `gullyline:field${refs.size}`
    refs.set(key, $ref)
    fields[$ref] = checked
    return { $ref }
  }
  const withRefs = parts.map((part) => ({
    ...part,
    properties: Object.fromEntries(
      Object.entries(part.properties).map(([key, field]) => [key, share(field)] as const),
    ),
  }))
  return { parts: withRefs, fields }
}
