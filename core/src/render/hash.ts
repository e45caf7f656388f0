const OFFSET = 0x811c9dc5
const PRIME = 0x01000193

/**
 * A short name for a string: two 32-bit FNV-1a hashes (Fowler, Noll, Vo; offset and prime as in
 * draft-eastlake-fnv), the second over the string with its length in front. Equal strings have equal names;
 * different ones practically never, and `collectRules` refuses it when they do.
 */
export function shortHash(value: string): string {
  return (fnv1a(value).toString(36) + fnv1a(`${value.length}:${value}`).toString(36)).slice(0, 9)
}

function fnv1a(value: string): number {
  let hash = OFFSET
  for (let i = 0; i < value.length; i++) hash = Math.imul(hash ^ value.charCodeAt(i), PRIME)
  return hash >>> 0
}
