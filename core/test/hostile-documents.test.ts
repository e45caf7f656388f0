/** Documents from strangers: refused with a pointer, never thrown over, never let through. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { createRegistry } from '../src/blocks/registry.ts'
import { BLOCK_KINDS } from '../src/blocks/kinds/index.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import type { Page } from '../src/page/page.ts'
import { anyPage } from './arbitraries/page.ts'

/** The slots of a page that these tests put nothing in. */
const NO_OTHERS = { main: [], side: [], aside: [] }

const root = {
  kind: 'page',
  content: {},
  look: {},
  sizes: { base: {} },
  slots: { ...NO_OTHERS, sections: [] as string[] },
}
const section = {
  kind: 'section',
  content: {},
  look: {},
  sizes: { base: {} },
  slots: { blocks: [] as string[] },
}
const page = (nodes: object, more: object = {}) => ({ format: 4, root: 'r', nodes, ...more })

describe('a page that is not one', () => {
  test.each<[string, unknown, string]>([
    ['nothing', undefined, ''],
    ['a string', '<html>', ''],
    ['a list', [], ''],
    ['a field too many', page({ r: root }, { script: 'x' }), '/script'],
    ['a newer format', page({ r: root }, { format: 5 }), '/format'],
    ['no nodes', { format: 4, root: 'r' }, '/nodes'],
    ['a root that is missing', page({}), '/nodes'],
    ['a root of another kind', page({ r: section }), '/root'],
    ['a node that is null', page({ r: null }), '/nodes/r'],
    [
      'an inherited name as an id',
      JSON.parse('{"format":4,"root":"__proto__","nodes":{"__proto__":{}}}'),
      '/nodes/__proto__',
    ],
    ['an inherited name as a kind', page({ r: { ...root, kind: 'constructor' } }), '/nodes/r/kind'],
    ['a node with a field too many', page({ r: { ...root, onclick: 'x' } }), '/nodes/r/onclick'],
    [
      'a slot too many',
      page({ r: { ...root, slots: { ...NO_OTHERS, sections: [], evil: [] } } }),
      '/nodes/r/slots',
    ],
    [
      'a slot that is not a list',
      page({ r: { ...root, slots: { ...NO_OTHERS, sections: 'x' } } }),
      '/nodes/r/slots/sections',
    ],
    [
      'a child that is a number',
      page({ r: { ...root, slots: { ...NO_OTHERS, sections: [1] } } }),
      '/nodes/r/slots/sections',
    ],
    [
      'a child twice',
      page({ r: { ...root, slots: { ...NO_OTHERS, sections: ['s', 's'] } }, s: section }),
      '/nodes',
    ],
    [
      'a ring',
      page({
        r: { ...root, slots: { ...NO_OTHERS, sections: ['s'] } },
        s: { ...section, slots: { blocks: ['r'] } },
      }),
      '/nodes',
    ],
    ['an orphan', page({ r: root, s: section }), '/nodes'],
    [
      'a section in a section',
      page({
        r: { ...root, slots: { ...NO_OTHERS, sections: ['s'] } },
        s: { ...section, slots: { blocks: ['t'] } },
        t: section,
      }),
      '/nodes/s/slots/blocks/0',
    ],
    ['an empty name', page({ r: { ...root, name: ' ' } }), '/nodes/r/name'],
    ['sizes without base', page({ r: { ...root, sizes: {} } }), '/nodes/r/sizes'],
    [
      'far too many nodes',
      page(Object.fromEntries(Array.from({ length: 20_001 }, (_unused, i) => [`n${i}`, section]))),
      '/nodes',
    ],
  ])('%s', (_what, value, pointer) => {
    const problems = validatePage(value, registry)
    expect(problems.map((problem) => problem.pointer)).toContain(pointer)
    for (const problem of problems) expect(problem.message.length).toBeGreaterThan(5)
  })

  test('no JSON at all makes the validator throw', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => void validatePage(value, registry)),
      { numRuns: 500 },
    )
  })

  test('a valid page with anything changed in it is judged, not thrown over, and a foreign value is never let through', () => {
    fc.assert(
      fc.property(
        anyPage,
        fc.constantFrom<unknown>(null, -1, 'x'.repeat(30), [], {}, { $ref: 'x' }),
        fc.nat(),
        (valid, foreign, seed) => {
          const copy = JSON.parse(JSON.stringify(valid)) as Page
          const ids = Object.keys(copy.nodes)
          const id = ids[seed % ids.length]!
          const keys = ['kind', 'content', 'look', 'sizes', 'slots'] as const
          const key = keys[seed % keys.length]!
          const before = (copy.nodes[id] as unknown as Record<string, unknown>)[key]
          ;(copy.nodes[id] as unknown as Record<string, unknown>)[key] = foreign
          const problems = validatePage(copy, registry)
          // An empty object may be a legal content or look; all else that is foreign is a fault.
          const mayPass =
            JSON.stringify(foreign) === '{}' || JSON.stringify(foreign) === JSON.stringify(before)
          if (!mayPass) expect(problems.length).toBeGreaterThan(0)
        },
      ),
      { numRuns: 500 },
    )
  })
})

describe('a registry that contradicts itself', () => {
  const checks = Object.fromEntries(
    ['page_content', 'page_look', 'page_sizes'].map((name) => [name, () => []]),
  )
  const pageKind = BLOCK_KINDS.find((kind) => kind.kind === 'page')!

  test('is refused with every fault at once', () => {
    const heading = BLOCK_KINDS.find((kind) => kind.kind === 'heading')!
    expect(() => createRegistry([pageKind, pageKind, heading], checks)).toThrow(
      /"page" is defined twice[^]*"heading" has no check for its content/,
    )
  })

  test('a default that breaks its own schema is named', () => {
    const strict = { ...checks, page_content: () => [{ pointer: '/x', message: 'is wrong' }] }
    expect(() => createRegistry([pageKind], strict)).toThrow(
      /defaults of "page" break its own schema at content\/x/,
    )
  })
})
