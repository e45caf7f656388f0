/** A map that shares with its copies: a Map is its judge. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { SharedMap } from '../src/publish/shared-map.ts'

const id = fc.oneof(fc.constantFrom('', 'a', 'ab', 'ba', 'xab'), fc.string({ maxLength: 4 }))
const change = fc.tuple(id, fc.option(fc.nat(9), { nil: undefined }))

test('after any changes it is as a Map after the same, and what it was copied from stays as it was', () => {
  fc.assert(
    fc.property(fc.array(fc.array(change, { maxLength: 6 }), { maxLength: 6 }), (steps) => {
      let map = SharedMap.of<number>([])
      const known = new Map<string, number>()
      for (const changes of steps) {
        const before = { map, entries: new Map(map) }
        map = map.with(changes)
        for (const [key, value] of changes)
          if (value === undefined) known.delete(key)
          else known.set(key, value)
        expect(new Map(map)).toEqual(known)
        expect(new Map(before.map)).toEqual(before.entries)
        expect(map.size).toBe(known.size)
        expect([...map.keys()].toSorted()).toEqual([...known.keys()].toSorted())
        expect([...map.values()].toSorted()).toEqual([...known.values()].toSorted())
        for (const [key] of changes)
          expect([map.has(key), map.get(key)]).toEqual([known.has(key), known.get(key)])
      }
    }),
  )
})
