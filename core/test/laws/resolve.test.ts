/** What is shown of a document, resolved again and again as it is edited. */
import fc from 'fast-check'
import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '../../src/edits/edit.ts'
import { defaultRegistry } from '../../src/blocks/default-registry.ts'
import { getKind } from '../../src/blocks/registry.ts'
import type { Page } from '../../src/page/page.ts'
import { Resolver, type Resolved, type ShownNode } from '../../src/resolve/resolve.ts'
import { anyPage, editFor } from '../arbitraries/page.ts'
import { testLook } from '../arbitraries/site.ts'
import { Counts } from '../arbitraries/counts.ts'

const registry = defaultRegistry
const AUDIENCES = ['editor', 'visitor'] as const
type Audience = (typeof AUDIENCES)[number]

function resolverFor(audience: Audience): Resolver {
  return new Resolver({ registry, look: testLook, audience })
}

function shownBy(resolver: Resolver): Record<string, ShownNode> {
  return Object.fromEntries([...resolver.nodes()].map((one) => [one.id, one]))
}

function fresh(given: Resolved, audience: Audience): Record<string, ShownNode> {
  const resolver = resolverFor(audience)
  resolver.update(given)
  return shownBy(resolver)
}

const edited = anyPage.chain((page) =>
  fc.array(editFor(page), { minLength: 1, maxLength: 5 }).map((edits) => ({ page, edits })),
)

describe.each(AUDIENCES)('for the %s', (audience) => {
  test('after any edits the same as from scratch, and what did not change is the same object', () => {
    const counts = new Counts()
    fc.assert(
      fc.property(edited, fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }), ({ page, edits }, bare) => {
        const resolver = resolverFor(audience)
        resolver.update({ page })
        let now: Page = page
        for (const [i, edit] of edits.entries()) {
          const applied = applyEdit(now, edit, registry)
          if (!applied.ok) {
            counts.skip()
            continue
          }
          counts.look()
          now = applied.page
          const before = shownBy(resolver)
          const given = { page: now, isBare: bare[i]! }
          const { changed, gone } = resolver.update(given)
          const after = shownBy(resolver)
          expect(after).toEqual(fresh(given, audience))
          for (const id of Object.keys(after)) {
            const isSame = before[id] === after[id]
            expect([id, changed.includes(id)]).toEqual([id, !isSame])
            // Not merely another object: its node is another, or its place.
            if (!isSame && before[id]?.node === after[id]!.node)
              expect(after[id]!.spot).not.toEqual(before[id].spot)
          }
          expect([...gone].sort()).toEqual(
            Object.keys(before)
              .filter((id) => !(id in after))
              .sort(),
          )
        }
      }),
      { numRuns: 150 },
    )
    counts.expectLooked(0.3)
  })

  test('told of nothing new, it changes nothing', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const resolver = resolverFor(audience)
        resolver.update({ page })
        expect(resolver.update({ page })).toEqual({ changed: [], gone: [] })
        expect(resolver.update({ page: { ...page } })).toEqual({ changed: [], gone: [] })
      }),
    )
  })
})

test('a document in which all is shown costs nothing: its nodes and their lists are its own', () => {
  fc.assert(
    fc.property(anyPage, (page) => {
      for (const { id, node, slots } of Object.values(fresh({ page }, 'editor'))) {
        expect(node).toBe(page.nodes[id])
        if (!getKind(registry, node.kind).shows) expect(slots).toBe(node.slots)
      }
    }),
  )
})

test('visitors get a part of what those who edit see, in the same order', () => {
  fc.assert(
    fc.property(anyPage, (page) => {
      const [all, some] = [fresh({ page }, 'editor'), fresh({ page }, 'visitor')]
      for (const { id, slots } of Object.values(some)) {
        expect(all[id]).toBeDefined()
        for (const [slot, children] of Object.entries(slots))
          expect(all[id]!.slots[slot]!.filter((child) => children.includes(child))).toEqual(children)
      }
    }),
  )
})
