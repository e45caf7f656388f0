/** The reach map: everything that a change to a part reaches, and nothing else. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { MOST_REACH_NODES, reachGraph, type PartUse } from '../src/reuse/reach-map.ts'

const use = (part: string, by: string, type: PartUse['type'] = 'page'): PartUse => ({
  part,
  by,
  type,
  count: 1,
})
const ids = ({ nodes }: ReturnType<typeof reachGraph>): string[] => nodes.map(({ id }) => id).sort()

test('from a part it goes on to everything that shows it, also through other parts, and back to the parts that it shows', () => {
  const uses = [
    use('hours', 'visit'),
    use('hours', 'card', 'shared'),
    use('card', 'home'),
    use('button', 'hours', 'shared'),
    use('join', 'home'),
  ]
  expect(ids(reachGraph(uses, 'hours'))).toEqual(['button', 'card', 'home', 'hours', 'visit'])
  expect(ids(reachGraph(uses, 'home'))).toEqual(['button', 'card', 'home', 'hours', 'join'])
  expect(ids(reachGraph(uses))).toEqual(['button', 'card', 'home', 'hours', 'join', 'visit'])
  expect(reachGraph(uses).nodes.find(({ id }) => id === 'hours')?.type).toBe('shared')
})

/** Parts that show parts that come after them, so that none is a ring. */
const anyUses = fc
  .uniqueArray(fc.tuple(fc.nat(30), fc.integer({ min: 1, max: 30 }), fc.boolean()), {
    maxLength: 120,
    selector: ([part, step, isPage]) => `${part} ${step} ${isPage}`,
  })
  .map((drawn) =>
    drawn.map(([part, step, isPage]) =>
      isPage ? use(`p${part}`, `page${step}`) : use(`p${part}`, `p${part + step}`, 'shared'),
    ),
  )

test('what is around a part is what following lines one by one finds, and all lines between those', () => {
  fc.assert(
    fc.property(anyUses, fc.nat(30), (uses, n) => {
      const focus = `p${n}`
      const graph = reachGraph(uses, focus, 1000)
      const reached = (from: string, step: (id: string) => string[]): Set<string> => {
        const all = new Set<string>()
        const go = (id: string): void => {
          for (const next of step(id)) {
            if (all.has(next)) continue
            all.add(next)
            go(next)
          }
        }
        go(from)
        return all
      }
      const above = reached(focus, (id) => uses.filter(({ part }) => part === id).map(({ by }) => by))
      const below = reached(focus, (id) => uses.filter(({ by }) => by === id).map(({ part }) => part))
      const expected = new Set([...above, ...below])
      if (expected.size > 0) expected.add(focus)
      expect(new Set(ids(graph))).toEqual(expected)
      expect(graph.nodes.every(({ hidden }) => hidden === 0)).toBe(true)
    }),
    { numRuns: 300 },
  )
})

test('more than can be drawn is left out by how much hangs on it, is counted, and never what was asked for', () => {
  fc.assert(
    fc.property(anyUses, fc.integer({ min: 2, max: 12 }), (uses, most) => {
      const graph = reachGraph(uses, undefined, most)
      expect(graph.nodes.length).toBeLessThanOrEqual(most)
      const lines = graph.nodes.reduce((sum, { hidden }) => sum + hidden, 0)
      // Each line that is not drawn is missing at one end or two that are.
      const missing = uses.filter((one) => !graph.lines.includes(one))
      const ends = missing.flatMap(({ part, by }) => [part, by])
      const drawn = new Set(graph.nodes.map(({ id }) => id))
      expect(lines).toBe(ends.filter((id) => drawn.has(id)).length)
    }),
  )
  const many = Array.from({ length: 200 }, (_one, i) => use('hours', `page${i}`))
  const graph = reachGraph(many, 'hours')
  expect(graph.nodes).toHaveLength(MOST_REACH_NODES)
  expect(ids(graph)).toContain('hours')
  expect(graph.nodes.find(({ id }) => id === 'hours')?.hidden).toBe(200 - MOST_REACH_NODES + 1)
})
