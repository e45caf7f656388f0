/** Where a value comes from: what is told of a value that nobody set is what the page shows. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { BlockDefinition } from '../src/blocks/define-block.ts'
import { newNode, partSchema } from '../src/blocks/define-block.ts'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import type { FieldSchema } from '../src/kit/fields.ts'
import { themedLook } from '../src/look/theme.ts'
import type { Json } from '../src/page/json.ts'
import { getNode, PAGE_FORMAT, type PageNode, type SizeKey } from '../src/page/page.ts'
import { ancestry, subtreeIds } from '../src/page/walk.ts'
import { arrangeNode } from '../src/render/arranged-rules.ts'
import { USUAL_KEYS as SIZE_KEYS } from '../src/sizes/size-keys.ts'
import { surfaceAround, unsetOrigin } from '../src/sizes/unset-origin.ts'
import { Counts } from './arbitraries/counts.ts'
import { anyPage } from './arbitraries/page.ts'
import { testLook } from './arbitraries/site.ts'
import { valuesFor } from './arbitraries/value.ts'

interface Following {
  readonly definition: BlockDefinition
  readonly part: 'look' | 'sizes'
  readonly key: string
  readonly field: FieldSchema
}

const following: readonly Following[] = [...registry.kinds.values()].flatMap((definition) =>
  (['look', 'sizes'] as const).flatMap((part) =>
    Object.entries(partSchema(definition, part).properties).flatMap(([key, field]) =>
      field.inherits ? [{ definition, part, key, field }] : [],
    ),
  ),
)

/** Any node of the kind that does not set the field itself. */
function anyNode({ definition, part, key }: Following): fc.Arbitrary<PageNode> {
  return fc
    .record({
      content: valuesFor(definition.content),
      look: valuesFor(definition.look),
      base: valuesFor(definition.arrangement),
    })
    .map(({ content, look, base }) => {
      const without = (values: typeof look) =>
        Object.fromEntries(Object.entries(values).filter(([name]) => name !== key))
      return newNode(definition, {
        content,
        look: part === 'look' ? without(look) : look,
        sizes: { base: part === 'sizes' ? without(base) : base },
      })
    })
}

function withValue(node: PageNode, part: 'look' | 'sizes', key: string, value: Json): PageNode {
  return part === 'look'
    ? { ...node, look: { ...node.look, [key]: value } }
    : { ...node, sizes: { base: { ...node.sizes.base, [key]: value } } }
}

describe('a value that nobody set', () => {
  test('some kinds have values that follow others, or nothing below is tested', () => {
    const named = following.map(({ definition, key }) => `${definition.kind} ${key}`)
    expect(named).toEqual(expect.arrayContaining(['heading step', 'text step', 'text colour']))
  })

  test.each(following.map((one) => [`${one.definition.kind}: ${one.field.title}`, one] as const))(
    '%s: looks as if what it is said to get were set',
    (_name, one) => {
      const counts = new Counts()
      fc.assert(
        fc.property(anyNode(one), (node) => {
          const origin = unsetOrigin(node, one.field, 'base', registry)
          if (origin.from === 'kind') return counts.skip()
          counts.look()
          const set = withValue(node, one.part, one.key, origin.gives)
          expect(arrangeNode(registry, set)).toEqual(arrangeNode(registry, node))
          expect(registry.check(node.kind, one.part, { [one.key]: origin.gives })).toEqual([])
        }),
        { numRuns: 300 },
      )
      counts.expectLooked(0.08)
    },
  )

  test('is the value that the followed field has at the same size', () => {
    const group = registry.kinds.get('group')!
    const field = group.arrangement.properties.insetLeft!
    const node = newNode(group, { sizes: { base: { inset: 'xl' }, narrow: { inset: 's' } } })
    const givenAt = (size: SizeKey) => {
      const origin = unsetOrigin(node, field, size, registry)
      return origin.from === 'field' ? origin.gives : undefined
    }
    expect(SIZE_KEYS.map(givenAt)).toEqual(['xl', 'xl', 's'])
  })
})

describe('the surface around a block', () => {
  test('is that of the nearest block around it that has one, and never its own', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        for (const id of subtreeIds(page, page.root)) {
          const around = surfaceAround(page, id, testLook)
          const [, ...outer] = ancestry(page, id)
          const surfaces = outer.map((at) => getNode(page, at).look.surface)
          const nearest = surfaces.find((one) => one !== undefined)
          expect(around.surface).toBe(nearest ?? testLook.pageSurface)
          if (around.from === 'block') expect(outer).toContain(around.id)
        }
      }),
    )
  })

  test('is the theme’s where the page has a theme that begins with another', () => {
    const look = { ...testLook, themes: { dusk: { title: 'Dusk', surfaces: {}, pageSurface: 'night' } } }
    const page = {
      format: PAGE_FORMAT,
      root: 'page',
      nodes: { page: newNode(registry.kinds.get('page')!) },
    } as const
    expect(surfaceAround(page, 'page', themedLook(look, 'dusk'))).toEqual({ from: 'page', surface: 'night' })
    expect(surfaceAround(page, 'page', themedLook(look, null))).toEqual({ from: 'page', surface: 'plain' })
  })
})
