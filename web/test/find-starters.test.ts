/** Finding things on the shelf: by everyday names, names before descriptions, what was used before first. */
import { describe, expect, test } from '@jest/globals'
import { createStarters, defaultRegistry } from '@gullyline/core'
import { findStarters } from '../src/editor/shelf/find-starters.ts'

const starters = createStarters(defaultRegistry)
const find = (search: string, recent: readonly string[] = []) =>
  findStarters(starters, search, recent).map(({ title }) => title)

describe('the shelf', () => {
  test.each([
    ['accordion', 'Accordion and tabs'],
    ['FAQ', 'Accordion and tabs'],
    ['image', 'Picture'],
    ['photo', 'Picture'],
    ['carousel', 'Slides'],
    ['slider', 'Slides'],
    ['banner', 'Hero'],
    ['CTA', 'Call to action'],
    ['call to action', 'Call to action'],
    ['columns', 'Columns'],
    ['two columns', 'Columns'],
    ['review', 'Testimonials'],
    ['bullet', 'List'],
    ['toc', 'Table of contents'],
    ['about us', 'About page'],
    ['event', 'Event page'],
  ])('searching %s finds %s among the first three', (search, title) => {
    expect(find(search).slice(0, 3)).toContain(title)
  })

  test('a name comes before a synonym, and a synonym before a description', () => {
    expect(find('heading')[0]).toBe('Heading')
    expect(find('picture')[0]).toBe('Picture')
    const [first] = find('table')
    expect(first).toBe('Table')
    const text = find('text')
    expect(text.indexOf('Text')).toBeLessThan(text.indexOf('Table'))
  })

  test('with nothing typed everything is there once, what was used last before the rest', () => {
    const all = find('', ['table', 'gone', 'picture'])
    expect(all.slice(0, 2)).toEqual(['Table', 'Picture'])
    expect([...all].sort()).toEqual(starters.map(({ title }) => title).sort())
  })

  test('what nothing is called finds nothing', () => {
    expect(find('zzzz')).toEqual([])
  })
})
