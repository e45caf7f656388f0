/** Documents, edits and packages that older versions wrote. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { applyEdit } from '../src/edits/edit.ts'
import type { Edit } from '../src/edits/edit-shapes.ts'
import { migrateEdit } from '../src/edits/migrate-edit.ts'
import { migratePackage } from '../src/exchange/page-package.ts'
import { migratePage } from '../src/page/migrate.ts'
import type { Page } from '../src/page/page.ts'
import { layoutOf } from '../src/site/layouts.ts'
import { anyPage } from './arbitraries/page.ts'

/** As format 2 wrote it: a page's layout was its frame, and what was locked was held. */
const heading = {
  kind: 'heading',
  content: { text: 'A', level: 2 },
  look: {},
  sizes: { base: {} },
  slots: {},
}
const slots = { sections: [], main: ['all', 'words'], side: ['free'], aside: [] }
const OLD = {
  format: 2,
  root: 'r',
  nodes: {
    r: { kind: 'page', content: { frame: 'side' }, look: {}, sizes: { base: {} }, slots },
    all: { ...heading, held: 'all' },
    words: { ...heading, held: 'words' },
    free: heading,
  },
}

describe('format 2', () => {
  test('keeps the layout and the locks of a page', () => {
    const page = migratePage(OLD) as Page
    expect(validatePage(page, registry)).toEqual([])
    expect(layoutOf(page.nodes.r!.content)).toBe(layoutOf({ layout: 'side' }))
    expect(Object.values(page.nodes).map((node) => node.lock)).toEqual([undefined, 'all', 'text', undefined])
    expect(validatePage(OLD, registry)).not.toEqual([])
  })

  test('has edits that do the same today', () => {
    const page = migratePage(OLD) as Page
    const edits: unknown[] = [
      { edit: 'set', nodeId: 'free', at: ['held'], value: 'words' },
      { edit: 'set', nodeId: 'all', at: ['held'] },
      { edit: 'set', nodeId: 'r', at: ['content', 'frame'], value: 'article' },
      {
        edit: 'insert',
        parentId: 'r',
        slot: 'main',
        index: 0,
        rootId: 'n',
        nodes: { n: { ...heading, held: 'words' } },
      },
    ]
    const after = edits.reduce<Page>((before, edit) => {
      const applied = applyEdit(before, migrateEdit(edit) as Edit, registry)
      if (!applied.ok) throw new Error(applied.message)
      return applied.page
    }, page)
    expect(after.nodes.free!.lock).toBe('text')
    expect(after.nodes.all!.lock).toBeUndefined()
    expect(after.nodes.n!.lock).toBe('text')
    expect(after.nodes.r!.content).toEqual({ layout: 'article' })
  })

  test('in a package is read as well', () => {
    expect(migratePackage({ page: OLD, header: OLD, title: 'T' })).toEqual({
      page: migratePage(OLD),
      header: migratePage(OLD),
      title: 'T',
    })
  })
})

test('documents of format 1 get the slots that came with format 2, and anything else is left to validation', () => {
  fc.assert(
    fc.property(anyPage, (page) => {
      const root = page.nodes[page.root]!
      const bare = { ...page, nodes: { [page.root]: { ...root, slots: { sections: [] as string[] } } } }
      expect(validatePage(bare, registry)).not.toEqual([])
      expect(validatePage(migratePage({ ...bare, format: 1 }), registry)).toEqual([])
      expect(migratePage(page)).toBe(page)
    }),
    { numRuns: 100 },
  )
  for (const value of [
    { format: 1 },
    { format: 2, root: 'x', nodes: null },
    { format: 1, root: 3, nodes: {} },
  ])
    expect(validatePage(migratePage(value), registry)).not.toEqual([])
})

test('nothing that is no document, edit or package makes it throw', () => {
  const oddNode = fc.record({ kind: fc.jsonValue(), content: fc.jsonValue(), held: fc.jsonValue() })
  const oddPage = fc.record({
    format: fc.constantFrom(1, 2),
    root: fc.jsonValue(),
    nodes: fc.oneof(fc.jsonValue(), fc.dictionary(fc.string(), fc.oneof(oddNode, fc.jsonValue()))),
  })
  const oddEdit = fc.record({
    edit: fc.constantFrom('set', 'insert'),
    at: fc.jsonValue(),
    nodes: fc.jsonValue(),
  })
  fc.assert(
    fc.property(fc.oneof(fc.jsonValue(), oddPage, oddEdit), (value) => {
      migratePage(value)
      migrateEdit(value)
      migratePackage(value)
    }),
  )
})
