/** The sample site is what a person sees first: valid, without a finding, and every link leads somewhere. */
import { describe, expect, test } from '@jest/globals'
import {
  anchorsOf,
  defaultRegistry,
  expandParts,
  runChecks,
  SHARED_ROOTS,
  validatePage,
  type CheckedSite,
  type Page,
} from '@gullyline/core'
import { demoSite } from '@gullyline/demo'

const parts = Object.fromEntries(demoSite.parts.map(({ id, document }) => [id, document]))
const shown = (page: Page): Page => expandParts(page, defaultRegistry, parts)

const site: Omit<CheckedSite, 'title' | 'description'> = {
  look: demoSite.look,
  pages: Object.fromEntries(
    demoSite.pages.map((page) => [page.id, anchorsOf(shown(page.document), defaultRegistry)]),
  ),
  pictures: Object.fromEntries(demoSite.pictures.map((picture) => [picture.id, picture])),
  files: Object.fromEntries(demoSite.files.map((file) => [file.id, file])),
}

const DOCUMENTS: readonly Page[] = [
  demoSite.header,
  demoSite.footer,
  ...[...demoSite.pages, ...demoSite.parts].map(({ document }) => document),
]

test('every kind of block that can be added stands on some page', () => {
  const used = new Set(DOCUMENTS.flatMap(({ nodes }) => Object.values(nodes).map(({ kind }) => kind)))
  const added = [...defaultRegistry.kinds.values()].filter(({ group }) => group !== 'root')
  expect(added.map(({ kind }) => kind).filter((kind) => !used.has(kind))).toEqual([])
})

describe.each(demoSite.pages.map((page) => [page.title, page] as const))('the page %s', (_title, page) => {
  test('is valid', () => expect(validatePage(page.document, defaultRegistry)).toEqual([]))

  test('has no finding of any check, places on other pages included', () => {
    expect(
      runChecks(
        shown(page.document),
        { ...site, title: page.title, description: page.description },
        defaultRegistry,
      ),
    ).toEqual([])
  })
})

test('shared sections and components are valid, and stand in several places', () => {
  for (const { id, document } of demoSite.parts) {
    expect(SHARED_ROOTS.some((root) => validatePage(document, defaultRegistry, root).length === 0)).toBe(true)
    const showing = demoSite.pages.filter((page) => JSON.stringify(page.document).includes(`"part":"${id}"`))
    const times = JSON.stringify(showing.map((page) => page.document)).split(`"part":"${id}"`).length - 1
    expect(times).toBeGreaterThan(1)
  }
})

test('header and footer are valid, and no two documents share an id', () => {
  expect(validatePage(demoSite.header, defaultRegistry, 'site-header')).toEqual([])
  expect(validatePage(demoSite.footer, defaultRegistry, 'site-footer')).toEqual([])
  const ids = DOCUMENTS.flatMap((one) => Object.keys(one.nodes))
  expect(new Set(ids).size).toBe(ids.length)
})
