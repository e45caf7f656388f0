/** Packages: what documents refer to, other ids and other looks, and what comes of reading one again. */
import { describe, expect, test } from '@jest/globals'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { differenceCiede2000 } from 'culori/fn'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { ownValuesOf } from '../src/blocks/node-own-values.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { carriedSurfaces, inLook } from '../src/exchange/carry-look.ts'
import { checkSitePackageShape } from '../src/exchange/check-site-package.ts'
import { chosen, planImport, type HereSite } from '../src/exchange/import-plan.ts'
import { referencesOf, withRenamed, type Renamed } from '../src/exchange/references.ts'
import { fullSitePackageSchema } from '../src/exchange/site-package-schema.ts'
import { packageText, sitePackageProblems, type SitePackage } from '../src/exchange/site-package.ts'
import { ANNOTATIONS } from '../src/kit/fields.ts'
import type { Look } from '../src/look/look.ts'
import { colourDifference, nearestStep, nearestSurface } from '../src/look/nearest.ts'
import type { Page, PageNode } from '../src/page/page.ts'
import { documentUses } from '../src/render/document-uses.ts'
import { withSettings } from '../src/site/page-settings.ts'
import { anyPage } from './arbitraries/page.ts'
import { testLook } from './arbitraries/site.ts'

const node = (kind: string, more: Parameters<typeof newNode>[1] = {}): PageNode =>
  newNode(getKind(registry, kind), more)

describe('what a document refers to', () => {
  test('is found wherever rendering finds it, for any page', () => {
    let seen = 0
    fc.assert(
      fc.property(anyPage, (page) => {
        const found = referencesOf(page, registry)
        for (const { thing, id } of documentUses(page, registry, testLook)) {
          if (thing === 'inside' || thing === 'template' || id.length > 24) continue
          expect([thing, id, found[thing].has(id)]).toEqual([thing, id, true])
          seen++
        }
      }),
    )
    expect(seen).toBeGreaterThan(100)
  })

  test('is found in what instances fill in, and in settings', () => {
    const instance = node('linked-blocks', { content: { part: 'card' } })
    const link = { type: 'paragraph', runs: [{ text: 'There', link: { page: 'there', anchor: 'top' } }] }
    const page: Page = withSettings(
      {
        format: 4,
        root: 'r',
        nodes: {
          r: node('page', { content: { title: 'Page' }, slots: { sections: ['s'] } }),
          s: node('section', { slots: { blocks: ['i'] } }),
          i: {
            ...instance,
            values: { fa: { id: 'pic', focus: { x: 1, y: 2 } }, fb: [link], fc: { file: 'doc' } },
          },
        },
      },
      { sharePicture: 'shared' },
    )
    const { part, picture, file, page: pages } = referencesOf(page, registry)
    expect([part, picture, file, pages].map((ids) => [...ids].sort())).toEqual([
      ['card'],
      ['pic', 'shared'],
      ['doc'],
      ['there'],
    ])
  })

  test('can have other ids and its own again; what refers to nothing stays the very same', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const away = withRenamed(page, registry, (thing, id) => `${thing}0${id}`)
        const back = withRenamed(away, registry, (thing, id) => id.slice(thing.length + 1))
        expect(back).toEqual(page)
        expect(
          validatePage(
            withRenamed(page, registry, (_thing, id) => id),
            registry,
          ),
        ).toEqual(validatePage(page, registry))
        const same = withRenamed(page, registry, (_thing, id) => id)
        for (const id of Object.keys(page.nodes)) expect(same.nodes[id]).toBe(page.nodes[id])
      }),
    )
  })
})

/** Pairs of Sharma, Wu and Dalal (2005), "The CIEDE2000 color-difference formula", table 1; typed from memory. */
const PAIRS: readonly (readonly number[])[] = [
  [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
  [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
  [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
  [50, -1.3802, -84.2814, 50, 0, -82.7485, 1],
  [50, -1.1848, -84.8006, 50, 0, -82.7485, 1],
  [50, -0.9009, -85.5211, 50, 0, -82.7485, 1],
  [50, 0, 0, 50, -1, 2, 2.3669],
  [50, -1, 2, 50, 0, 0, 2.3669],
  [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
  [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
  [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
  [50, 2.5, 0, 50, 0, -2.5, 4.3065],
  [50, 2.5, 0, 73, 25, -18, 27.1492],
  [50, 2.5, 0, 61, -5, 29, 22.8977],
  [50, 2.5, 0, 56, -27, -3, 31.903],
  [50, 2.5, 0, 58, 24, 15, 19.4535],
  [50, 2.5, 0, 50, 3.1736, 0.5854, 1],
  [50, 2.5, 0, 50, 3.2972, 0, 1],
  [50, 2.5, 0, 50, 1.8634, 0.5757, 1],
  [50, 2.5, 0, 50, 3.2592, 0.335, 1],
  [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
  [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
  [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
  [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
  [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
  [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
  [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
  [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
  [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
  [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
]

describe('the nearest colour', () => {
  test.each(PAIRS)('by the published pair %p %p %p and %p %p %p', (...given) => {
    const [l, a, b, l2, a2, b2, wanted] = given as [number, number, number, number, number, number, number]
    const found = differenceCiede2000()({ mode: 'lab65', l, a, b }, { mode: 'lab65', l: l2, a: a2, b: b2 })
    expect(found).toBeCloseTo(wanted, 4)
  })

  const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)

  test('is as far there as back, and nothing is nearer than itself', () => {
    fc.assert(
      fc.property(hex, hex, (a, b) => {
        expect(colourDifference(a, b)).toBeCloseTo(colourDifference(b, a), 8)
        expect(colourDifference(a, a)).toBe(0)
      }),
    )
  })

  test('of a look is the one of its own background, and none is nearer', () => {
    for (const [name, surface] of Object.entries(testLook.surfaces)) {
      const found = testLook.surfaces[nearestSurface(testLook, surface)]!
      expect([name, found.background]).toEqual([name, surface.background])
    }
    fc.assert(
      fc.property(hex, (background) => {
        const found = nearestSurface(testLook, { background })
        const far = (name: string): number =>
          colourDifference(testLook.surfaces[name]!.background, background)
        for (const name of Object.keys(testLook.surfaces)) expect(far(found)).toBeLessThanOrEqual(far(name))
      }),
    )
  })

  test('and the nearest step is the one with that measure', () => {
    for (const [step, { to }] of Object.entries(testLook.space)) {
      const found = nearestStep(testLook, 'space', to)
      expect(testLook.space[found as keyof Look['space']].to).toBe(
        testLook.space[step as keyof Look['space']].to,
      )
    }
  })
})

describe('a document in another look', () => {
  /** The same surfaces under other names, and no custom values. */
  const other: Look = {
    ...testLook,
    ownValues: false,
    surfaces: Object.fromEntries(
      Object.entries(testLook.surfaces).map(([name, surface]) => [`other-${name}`, surface]),
    ),
    pageSurface: `other-${testLook.pageSurface}`,
  }

  test('names only what that look has, has no custom value where none is allowed, and is valid', () => {
    let changed = 0
    fc.assert(
      fc.property(anyPage, (page) => {
        const colours = carriedSurfaces([page], { ...testLook, ownValues: true }, other, registry)
        const surfaces = Object.fromEntries(colours.map(({ name, here }) => [name, here]))
        const there = inLook(page, other, surfaces, registry)
        expect(validatePage(there, registry)).toEqual(validatePage(page, registry))
        for (const one of Object.values(there.nodes)) expect(ownValuesOf(one, registry)).toEqual([])
        expect(carriedSurfaces([there], other, other, registry)).toEqual([])
        expect(inLook(there, other, {}, registry)).toEqual(there)
        if (there.nodes !== page.nodes && colours.length > 0) changed++
      }),
    )
    expect(changed).toBeGreaterThan(5)
  })

  test('stays as it is in its own', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const same = inLook(page, { ...testLook, ownValues: true }, {}, registry)
        for (const id of Object.keys(page.nodes)) expect(same.nodes[id]).toBe(page.nodes[id])
      }),
    )
  })
})

const anyPackage: fc.Arbitrary<SitePackage> = fc.tuple(anyPage, anyPage).map(([one, two]) => {
  const pages = [one, two].map((document, i) => ({
    id: `p${i}`,
    parentId: i === 0 ? null : 'p0',
    slug: `s${i}`,
    document,
  }))
  const medium = { name: 'A', digest: 'a'.repeat(64), bytes: 1 }
  const all = pages.map(({ document }) => referencesOf(document, registry))
  const media = (thing: 'picture' | 'file') => all.flatMap((found) => [...found[thing]])
  return {
    format: 'gullyline-site-package/1',
    look: testLook,
    parts: {},
    pages,
    pictures: Object.fromEntries(
      media('picture').map((id) => [id, { ...medium, alt: '', isDecoration: false }]),
    ),
    files: Object.fromEntries(media('file').map((id) => [id, medium])),
  }
})

function shuffled(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value
  if (Array.isArray(value)) return value.map(shuffled)
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, one]) => [key, shuffled(one)]),
  )
}

describe('a package', () => {
  test('has one text, whatever the order of its keys, and is read from it as it was', () => {
    fc.assert(
      fc.property(anyPackage, (given) => {
        const text = packageText(given)
        expect(packageText(shuffled(given) as SitePackage)).toBe(text)
        expect(JSON.parse(text)).toEqual(given)
      }),
      { numRuns: 30 },
    )
  })

  test('is judged alike by our check and by its published schema, which is one by its meta-schema', () => {
    const ajv = new Ajv2020({ allErrors: false, strict: false, discriminator: true })
    ajv.addVocabulary([...ANNOTATIONS])
    const schema = fullSitePackageSchema([...registry.kinds.values()]) as {
      readonly $defs: { readonly shared: object }
    }
    expect([ajv.validateSchema(schema), ajv.errors]).toEqual([true, null])
    ajv.addSchema(schema.$defs.shared)
    const validate = ajv.compile({
      ...schema,
      $defs: { page: (schema.$defs as never as { page: object }).page },
    })
    fc.assert(
      fc.property(anyPackage, (given) => {
        expect(sitePackageProblems(given, registry, checkSitePackageShape)).toEqual([])
        expect([validate(given), validate.errors]).toEqual([true, null])
        const broken = { ...given, pages: [{ ...given.pages[0], extra: 1 }] }
        expect(validate(broken)).toBe(false)
        expect(sitePackageProblems(broken, registry, checkSitePackageShape)).not.toEqual([])
      }),
      { numRuns: 20 },
    )
  })

  test('of anything at all is refused and never thrown at', () => {
    fc.assert(
      fc.property(fc.anything(), (value) => {
        expect(sitePackageProblems(value, registry, checkSitePackageShape)).not.toEqual([])
      }),
    )
  })
})

describe('what an import would do', () => {
  const empty = (document: Page, name: string) => ({ id: name, name, document })
  const site = (more: Partial<HereSite> = {}): HereSite => ({
    look: { ...testLook, ownValues: true },
    parts: [],
    pages: [],
    pictures: [],
    files: [],
    header: empty({ format: 4, root: 'r', nodes: { r: node('site-header') } }, 'h'),
    footer: empty({ format: 4, root: 'r', nodes: { r: node('site-footer') } }, 'f'),
    ...more,
  })

  test('into an empty site: everything is added', () => {
    fc.assert(
      fc.property(anyPackage, (given) => {
        const { items, surfaces } = planImport(given, site(), registry)
        expect(items.every(({ suggested, match }) => suggested === 'add' && !match)).toBe(true)
        expect(items).toHaveLength(2 + Object.keys(given.pictures).length + Object.keys(given.files).length)
        expect(surfaces).toEqual([])
      }),
      { numRuns: 30 },
    )
  })

  test('where it all is already: everything is the same, by the ids it came with, and nothing is changed', () => {
    fc.assert(
      fc.property(anyPackage, (given) => {
        const rename: Renamed = (thing, id) => (thing === 'part' ? id : `x${id}`)
        const here = site({
          pages: given.pages.map(({ id, document, slug }) => ({
            id: `x${id}`,
            origin: id,
            name: slug,
            path: `/${slug}/`,
            document: withRenamed(document, registry, rename),
          })),
          pictures: Object.entries(given.pictures).map(([id, { name, digest }]) => ({
            id: `x${id}`,
            origin: id,
            name,
            digest,
          })),
          files: Object.entries(given.files).map(([id, { name, digest }]) => ({
            id: `x${id}`,
            origin: id,
            name,
            digest,
          })),
        })
        const links = new Set(
          given.pages.flatMap(({ document }) => [...referencesOf(document, registry).page]),
        )
        // A link to a page that does not come along is known by no other id.
        fc.pre([...links].every((id) => id === 'p0' || id === 'p1'))
        for (const item of planImport(given, here, registry).items) {
          expect(item).toMatchObject({ match: { by: 'id', isSame: true }, suggested: 'mine' })
          expect(() => chosen(item, { [item.key]: 'add' })).toThrow(RangeError)
        }
      }),
      { numRuns: 30 },
    )
  })
})
