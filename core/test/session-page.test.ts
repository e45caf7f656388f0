/** A page and what it shares with others, edited as one tree and saved as the documents they are. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { diffPages } from '../src/compare/diff-pages.ts'
import { mergePages } from '../src/compare/merge-pages.ts'
import { applyEdit } from '../src/edits/edit.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { outlineOf } from '../src/resolve/outline.ts'
import { shownIds } from '../src/resolve/shown.ts'
import { sameJson } from '../src/page/json.ts'
import { getNode, PAGE_FORMAT, type Page, type PageNode } from '../src/page/page.ts'
import {
  joinSession,
  pageChildIds,
  partAt,
  sessionRegistry,
  FRAME_NAMES,
  sharedRoot,
  type SessionPart,
} from '../src/site/session-page.ts'
import { changedParts, partOf } from '../src/site/session-parts.ts'
import { anyPage, editFor } from './arbitraries/page.ts'

const registry = sessionRegistry(defaultRegistry)
const node = (kind: string, more: Parameters<typeof newNode>[1] = {}): PageNode =>
  newNode(getKind(defaultRegistry, kind), more)
const header: Page = {
  format: PAGE_FORMAT,
  root: 'top',
  nodes: { top: node('site-header', { content: { brand: 'Tarrowmoor' } }) },
}
const footer: Page = {
  format: PAGE_FORMAT,
  root: 'bottom',
  nodes: {
    bottom: node('site-footer', { slots: { blocks: ['line', 'where'] } }),
    line: node('heading', { content: { text: 'Come and see', level: 2 } }),
    where: node('text'),
  },
}
const plain: Page = {
  format: PAGE_FORMAT,
  root: 'root',
  nodes: {
    root: node('page', { slots: { sections: ['first'] } }),
    first: node('section', { slots: { blocks: ['words'] } }),
    words: node('text'),
  },
}
let ids = 0
const newId = (): string => `n${ids++}`
const join = (page: Page, shared: { header?: Page; footer?: Page } = {}): Page =>
  joinSession({ page, header, footer, ...shared }, newId)

/** Any session after a few edits, made wherever they fit. */
function edited(session: Page, branch: string, count: number): fc.Arbitrary<Page> {
  if (count === 0) return fc.constant(session)
  return editFor(session, branch).chain((edit) => {
    const applied = applyEdit(session, edit, registry)
    return edited(applied.ok ? applied.page : session, branch, count - 1)
  })
}

const PARTS: readonly SessionPart[] = ['page', 'header', 'footer']

describe('a page joined with its header and footer', () => {
  test('is valid, comes apart as it was joined, and no layout or outline shows what was joined', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const session = join(page)
        expect(validatePage(session, registry)).toEqual([])
        expect(partOf(session, 'page')).toEqual(page)
        expect(partOf(session, 'header')).toEqual(header)
        expect(partOf(session, 'footer')).toEqual(footer)
        expect(shownIds(session, session.root, registry)).toEqual(shownIds(page, page.root, defaultRegistry))
        expect(outlineOf(session, registry)).toEqual(outlineOf(page, defaultRegistry))
        expect(changedParts(session, join(page))).toEqual([])
      }),
      { numRuns: 100 },
    )
  })

  test('comes apart into valid documents after any edits, and says which of them changed', () => {
    const seen = new Map<string, number>()
    fc.assert(
      fc.property(
        anyPage.chain((page) => fc.tuple(fc.constant(join(page)), edited(join(page), 'e', 5))),
        ([before, after]) => {
          const changed = changedParts(before, after)
          for (const part of PARTS) {
            const document = partOf(after, part)
            const rootKind = part === 'page' ? 'page' : `site-${part}`
            expect(validatePage(document, defaultRegistry, rootKind)).toEqual([])
            const { nodes } = partOf(before, part)
            expect(changed.includes(part)).toBe(
              !sameJson({ ...document.nodes } as never, { ...nodes } as never),
            )
            for (const id of Object.keys(document.nodes)) expect(partAt(after, id)).toBe(part)
            if (changed.includes(part)) seen.set(part, (seen.get(part) ?? 0) + 1)
          }
          const [top, page, bottom] = (['header', 'page', 'footer'] as const).map((part) =>
            partOf(after, part),
          )
          expect(partOf(joinSession({ page: page!, header: top!, footer: bottom! }, newId), 'page')).toEqual(
            page,
          )
        },
      ),
      { numRuns: 200 },
    )
    for (const part of PARTS) expect(seen.get(part)).toBeGreaterThan(0)
  })

  test('is compared and merged as one page: each side’s changes of header, page and footer come together', () => {
    const session = join(plain)
    const set = (page: Page, nodeId: string, key: string, value: string): Page => {
      const applied = applyEdit(page, { edit: 'set', nodeId, at: ['content', key], value }, registry)
      if (!applied.ok) throw new Error(applied.message)
      return applied.page
    }
    const top = sharedRoot(session, 'header')!
    const ours = set(session, top, 'brand', 'Ours')
    const theirs = set(session, session.root, 'description', 'Theirs')
    const merged = mergePages({ base: session, ours, theirs }, registry)
    expect(merged.conflicts).toEqual([])
    expect(getNode(merged.page, top).content.brand).toBe('Ours')
    expect(getNode(merged.page, session.root).content.description).toBe('Theirs')
    const both = mergePages({ base: session, ours, theirs: set(session, top, 'brand', 'Theirs') }, registry)
    expect(both.conflicts).toHaveLength(1)
    const edits = diffPages(session, ours, registry)
    expect(applyEdits(session, edits, registry)).toMatchObject({ ok: true, page: ours })
  })

  test('keeps its shared sections where they are, and gives ids that both have to one of them', () => {
    const page = plain
    const session = join(page)
    for (const name of FRAME_NAMES) {
      const nodeId = sharedRoot(session, name)!
      expect(pageChildIds(session)).not.toContain(nodeId)
      for (const edit of [
        { edit: 'remove', nodeId },
        { edit: 'move', nodeId, toParentId: session.root, toSlot: 'sections', toIndex: 0 },
      ] as const)
        expect(applyEdit(session, edit, registry)).toMatchObject({
          ok: false,
          message: `The ${name} stays where it is: it is on every page`,
        })
    }
    const [taken] = pageChildIds(session)
    const footerNodes = Object.fromEntries(
      Object.entries(footer.nodes).map(([id, node]) => [id === footer.root ? taken! : id, node]),
    )
    const clash = join(page, { footer: { ...footer, root: taken!, nodes: footerNodes } })
    expect(validatePage(clash, registry)).toEqual([])
    expect(partOf(clash, 'page')).toEqual(page)
    expect(sharedRoot(clash, 'footer')).not.toBe(taken)
  })
})
