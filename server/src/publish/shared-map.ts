/** So many parts that each is small on a site of thousands of pages. */
const PARTS = 512

type Part<V> = ReadonlyMap<string, V>

/**
 * A map by ids of which a changed copy shares all that did not change: on a site of thousands of pages, copying all of a
 * map takes longer than everything else that a publish does there. Its order says nothing.
 */
export class SharedMap<V> implements ReadonlyMap<string, V> {
  readonly #parts: readonly (Part<V> | undefined)[]
  readonly size: number

  private constructor(parts: readonly (Part<V> | undefined)[], size: number) {
    this.#parts = parts
    this.size = size
  }

  static of<V>(entries: Iterable<readonly [string, V]>): SharedMap<V> {
    if (entries instanceof SharedMap) return entries as SharedMap<V>
    return new SharedMap<V>([], 0).with(entries)
  }

  /** Returns a copy with other values, without the ids whose value is undefined. */
  with(changes: Iterable<readonly [string, V | undefined]>): SharedMap<V> {
    const parts = this.#parts.slice()
    const own = new Map<number, Map<string, V>>()
    let { size } = this
    for (const [id, value] of changes) {
      const at = placeOf(id)
      let part = own.get(at)
      if (!part) {
        part = new Map(parts[at])
        own.set(at, part)
        parts[at] = part
      }
      size -= part.size
      if (value === undefined) part.delete(id)
      else part.set(id, value)
      size += part.size
    }
    return new SharedMap(parts, size)
  }

  get(id: string): V | undefined {
    return this.#parts[placeOf(id)]?.get(id)
  }

  has(id: string): boolean {
    return this.#parts[placeOf(id)]?.has(id) ?? false
  }

  *entries(): MapIterator<[string, V]> {
    for (const part of this.#parts) if (part) yield* part
  }

  *keys(): MapIterator<string> {
    for (const [id] of this.entries()) yield id
  }

  *values(): MapIterator<V> {
    for (const [, value] of this.entries()) yield value
  }

  [Symbol.iterator](): MapIterator<[string, V]> {
    return this.entries()
  }

  forEach(act: (value: V, id: string, map: ReadonlyMap<string, V>) => void): void {
    for (const [id, value] of this.entries()) act(value, id, this)
  }
}

/** The number of an id's part, told by its last two letters; shorter ids are in the first part. */
function placeOf(id: string): number {
  const { length } = id
  return (id.charCodeAt(length - 1) * 31 + id.charCodeAt(length - 2)) % PARTS || 0
}
