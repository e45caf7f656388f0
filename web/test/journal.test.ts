import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry, type Edit, type Page } from '@gullyline/core'
import { openEditor, unsavedCount, type EditorAction } from '../src/editor/session/editor-state.ts'
import { EditorStore } from '../src/editor/session/editor-store.ts'
import { joinEntries, Journal, journaledFrom } from '../src/editor/session/journal.ts'
import { goOnFrom } from '../src/editor/session/resume.ts'
import { someStorage as storage } from './support/storage.ts'
import { anyPage, editFor } from '../../core/test/arbitraries/page.ts'

const owner = { personId: 'ines', pageId: 'page', tab: 'tab' }

const steps = fc.array(
  fc.record({ act: fc.constantFrom('do', 'do', 'do', 'undo', 'redo'), seed: fc.integer() }),
  { maxLength: 10 },
)

/** What a person does: edits that fit or do not, undo and redo. */
function work(store: EditorStore, acts: readonly { act: string; seed: number }[]): void {
  for (const { act, seed } of acts) {
    if (act !== 'do') store.dispatch({ type: act } as EditorAction)
    else store.do('Did it', fc.sample(editFor(store.state.page), { numRuns: 1, seed }))
  }
}

/** A page on which nothing is locked, so that every edit is the person's to make. */
function somePage(): Page {
  const [page] = fc.sample(anyPage, { numRuns: 1, seed: 4 }) as [Page]
  const free = Object.entries(page.nodes).map(([id, { lock: _lock, ...node }]) => [id, node] as const)
  return { ...page, nodes: Object.fromEntries(free) }
}

describe('the journal', () => {
  test('a tab that dies at any moment leaves the very page that was on the screen', () => {
    fc.assert(
      fc.property(anyPage, steps, (page, acts) => {
        const journaled = storage()
        const store = new EditorStore(openEditor(page, 3), defaultRegistry, new Journal(journaled, owner))
        work(store, acts)
        const found = new Journal(journaled, owner).read()
        const state = found ? goOnFrom(page, found, defaultRegistry).state : openEditor(page, 3)
        expect(state.page).toEqual(store.state.page)
        expect(found?.base ?? 3).toBe(3)
      }),
      { numRuns: 1000 },
    )
  })

  test('a save drops what it saved, and keeps what was done while it was under way', () => {
    fc.assert(
      fc.property(anyPage, steps, steps, (page, before, during) => {
        const journaled = storage()
        const journal = new Journal(journaled, owner)
        const store = new EditorStore(openEditor(page, 1), defaultRegistry, journal)
        work(store, before)
        const [saved, step, mark] = [store.state.page, store.state.history.done.at(-1), journal.mark()]
        work(store, during)
        store.dispatch({ type: 'saved', saved: { version: 2, shared: {}, step, page: saved } })
        journal.dropUntil(mark, 2)
        const found = new Journal(journaled, owner).read()
        const page2 = found ? goOnFrom(saved, found, defaultRegistry).state.page : saved
        expect(page2).toEqual(store.state.page)
        if (found) expect(found.base).toBe(2)
      }),
      { numRuns: 300 },
    )
  })

  test('two pages do not see each other’s', () => {
    const journaled = storage()
    new Journal(journaled, { ...owner, pageId: 'a' }).keep(1, 0, [])
    expect(new Journal(journaled, { ...owner, pageId: 'b' }).read()).toBeUndefined()
    expect(new Journal(journaled, { ...owner, pageId: 'a' }).read()?.acts).toBe(1)
  })

  test('no room left is told to the person, and the edit is still made', () => {
    const page = somePage()
    const store = new EditorStore(
      openEditor(page, 1),
      defaultRegistry,
      new Journal(storage(0), { ...owner, pageId: 'page' }),
    )
    const named: Edit = { edit: 'set', nodeId: page.root, at: ['name'], value: 'Named' }
    store.do('Named it', [named])
    expect(unsavedCount(store.state)).toBe(1)
    expect(store.state.notice.tone).toBe('refused')
    expect(store.state.notice.words).toMatch(/storage is full/)
  })

  test('5,000 letters typed by hand into a long paragraph leave one small entry', () => {
    const page = somePage()
    const journaled = storage()
    const journal = new Journal(journaled, owner)
    const store = new EditorStore(openEditor(page, 1), defaultRegistry, journal)
    let text = 'x'.repeat(2_000)
    for (let i = 0; i < 5_000; i++) {
      text += 'y'
      const name: Edit = {
        edit: 'set',
        nodeId: page.root,
        at: ['content', 'description'],
        value: text.slice(-400),
      }
      store.do('Typed', [name], { joinKey: 'typed' })
    }
    expect(journal.entries()).toHaveLength(1)
    expect(journaled.getItem(journaled.key(0)!)!.length).toBeLessThan(20_000)
    const again = goOnFrom(page, new Journal(journaled, owner).read()!, defaultRegistry).state
    expect(again.page).toEqual(store.state.page)
  })

  test('letters typed while a save is under way are never dropped with what it saved', () => {
    const page = somePage()
    const journaled = storage()
    const journal = new Journal(journaled, owner)
    const store = new EditorStore(openEditor(page, 1), defaultRegistry, journal)
    const type = (value: string) =>
      store.do('Typed', [{ edit: 'set', nodeId: page.root, at: ['name'], value }], { joinKey: 'name' })
    type('Before')
    const mark = journal.mark()
    type('Before and after')
    journal.dropUntil(mark, 2)
    expect(journal.entries().map(({ edits, base }) => [edits[0], base])).toEqual([
      [{ edit: 'set', nodeId: page.root, at: ['name'], value: 'Before and after' }, 2],
    ])
  })

  test('what the browser has no room for is still in the journal, goes to the server, and comes back from there', () => {
    const page = somePage()
    const journaled = storage(1)
    const journal = new Journal(journaled, owner)
    const store = new EditorStore(openEditor(page, 1), defaultRegistry, journal)
    store.do('Named it', [{ edit: 'set', nodeId: page.root, at: ['name'], value: 'One' }])
    expect(journal.isOverfull).toBe(false)
    store.do('Described it', [
      { edit: 'set', nodeId: page.root, at: ['content', 'description'], value: 'Two' },
    ])
    expect([journal.isOverfull, journal.entries().length, journaled.length]).toEqual([true, 2, 1])
    const joined = joinEntries(new Journal(journaled, owner).entries(), journal.entries())
    expect(goOnFrom(page, journaledFrom(joined)!, defaultRegistry).state.page).toEqual(store.state.page)
    journal.dropUntil(journal.mark(), 2)
    expect([journal.isOverfull, journaled.length]).toEqual([false, 0])
  })

  test('entries that cannot be read or do not fit are set aside and said; all others are done', () => {
    const page = somePage()
    const journaled = storage()
    journaled.setItem('gullyline.journal.page.00000000', 'nonsense')
    const journal = new Journal(journaled, owner)
    expect(journal.read()).toBeUndefined()
    journal.keep(1, 0, [{ edit: 'remove', nodeId: 'nosuch' }])
    journal.keep(1, 0, [{ edit: 'set', nodeId: page.root, at: ['name'], value: 'Named' }])
    journal.keep(1, 0, [{ edit: 'explode' } as never, null as never])
    const { state, setAside } = goOnFrom(page, journal.read()!, defaultRegistry)
    expect(state.page.nodes[page.root]!.name).toBe('Named')
    expect(setAside.map(({ number }) => number)).toEqual([0, 2])
    expect(state.notice.words).toMatch(/^2 of 3 unsaved edits could not be restored/)
  })

  test('whatever stands in the storage, opening never throws', () => {
    fc.assert(
      fc.property(fc.array(fc.jsonValue(), { maxLength: 5 }), (edits) => {
        const page = somePage()
        const entry = { number: 0, base: 1, at: 0, edits: edits as unknown as Edit[] }
        expect(goOnFrom(page, journaledFrom([entry])!, defaultRegistry).setAside.length).toBeLessThan(2)
      }),
      { numRuns: 300 },
    )
  })
})
