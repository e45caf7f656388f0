import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { freeSlug, pagePaths, slugOf } from '../src/pages/tree.ts'

describe('addresses from titles', () => {
  test.each([
    ['Opening hours', 'opening-hours'],
    ['  Über uns — Café & Tee ', 'ueber-uns-cafe-tee'],
    ['10% off!', '10-off'],
    ['日本語', '日本語'],
    ['Ночное небо', 'nochnoe-nebo'],
    ['हिन्दी में', 'हिन्दी-में'],
    ['Σελήνη', 'selini'],
    ['🔭 …', 'page'],
    ['../../etc/passwd', 'etc-passwd'],
    ['a'.repeat(300), 'a'.repeat(80)],
  ])('%p becomes %p', (title, slug) => expect(slugOf(title)).toBe(slug))

  test('are always a safe part of an address, and free among siblings', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.array(fc.string()), (title, others) => {
        const taken = [...others.map(slugOf), slugOf(title)]
        const slug = freeSlug(slugOf(title), taken)
        expect(slug).toMatch(/^[\p{L}\p{N}\p{M}]+(-[\p{L}\p{N}\p{M}]+)*$/u)
        // The URL Standard sends it encoded, and what comes back is what was sent.
        const { pathname } = new URL(`/${slug}/`, 'http://localhost')
        expect(decodeURIComponent(pathname)).toBe(`/${slug}/`)
        expect(taken).not.toContain(slug)
      }),
    )
  })
})

test('the address of a sub-page starts with its parent’s, and home adds nothing', () => {
  const pages = [
    { id: 'home', parentId: null, slug: '' },
    { id: 'visit', parentId: null, slug: 'visit' },
    { id: 'bus', parentId: 'visit', slug: 'by-bus' },
    { id: 'deep', parentId: 'bus', slug: 'stop' },
  ]
  expect(pagePaths(pages)).toEqual({
    home: '/',
    visit: '/visit/',
    bus: '/visit/by-bus/',
    deep: '/visit/by-bus/stop/',
  })
})
