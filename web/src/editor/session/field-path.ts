/** Words inside a field, such as a cell of a table: "rows.2.1" is the second cell of the third row. */
import type { Json, JsonObject } from '@gullyline/core'

/** The field that the path begins with. */
export function topOf(path: string): string {
  return path.split('.')[0]!
}

/** The value at a path; undefined where there is none. */
export function readField(content: JsonObject, path: string): Json | undefined {
  return path.split('.').reduce<Json | undefined>(stepInto, content)
}

function stepInto(value: Json | undefined, key: string): Json | undefined {
  if (typeof value !== 'object' || value === null || !Object.hasOwn(value, key)) return undefined
  return (value as JsonObject)[key]
}

/** The content with a value at a path, which its lists are made long enough for. */
export function withField(content: JsonObject, path: string, value: Json): JsonObject {
  const [key, ...rest] = path.split('.') as [string, ...string[]]
  return { ...content, [key]: withInside(content[key], rest, value) }
}

function withInside(now: Json | undefined, path: readonly string[], value: Json): Json {
  const [key, ...rest] = path
  if (key === undefined) return value
  const at = Number(key)
  const list = Array.isArray(now) ? [...(now as readonly Json[])] : []
  while (list.length <= at) list.push(rest.length > 0 ? [] : '')
  list[at] = withInside(list[at], rest, value)
  return list
}
