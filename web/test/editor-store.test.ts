/** The store of one page being edited: who is told of what, what is journaled, and what is not let through. */
import { beforeEach, describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  defaultRegistry,
  getKind,
  newNode,
  type Edit,
  type Page,
  type PageNode,
  type Registry,
} from '@gullyline/core'
import { openEditor } from '../src/editor/session/editor-state.ts'
import { EditorStore } from '../src/editor/session/editor-store.ts'
import { Journal } from '../src/editor/session/journal.ts'
import { newId } from '../src/editor/session/new-id.ts'
import { someStorage } from './support/storage.ts'

const kind = (name: string) => getKind(defaultRegistry, name)
const heading = (text: string, more: Partial<PageNode> = {}): PageNode => ({
  ...newNode(kind('heading'), { content: { text, level: 2 } }),
  ...more,
})
const page: Page = {
  format: 4,
  root: 'root',
  nodes: {
    root: newNode(kind('page'), { slots: { sections: ['sec'] } }),
    sec: newNode(kind('section'), { slots: { blocks: ['one', 'two', 'kept'] } }),
    one: heading('One'),
    two: heading('Two'),
    kept: heading('Kept', { lock: 'all' }),
  },
}
const say = (nodeId: string, value: string): Edit => ({
  edit: 'set',
  nodeId,
  at: ['content', 'text'],
  value,
})

const owner = { personId: 'p', pageId: 'q', tab: 't' }
let keptCount = 0
beforeEach(() => {
  keptCount = 0
})
/** What waits until the screen was painted. */
let waiting: Set<() => void>
beforeEach(() => {
  waiting = new Set()
})
function paint(): void {
  const works = [...waiting]
  waiting.clear()
  for (const work of works) work()
}
const open = ({ mayChange = true, room = Infinity } = {}): EditorStore =>
  new EditorStore(openEditor(page, 1), defaultRegistry, new Journal(someStorage(room), owner), {
    mayChange,
    onKept: () => keptCount++,
    later: (work) => {
      waiting.add(work)
      return () => waiting.delete(work)
    },
  })

describe('who is told', () => {
  /** How often each kind of listener was called. */
  function counted(store: EditorStore) {
    const calls = { all: 0, page: 0, one: 0, two: 0 }
    store.subscribe(() => calls.all++)
    store.subscribePage(() => calls.page++)
    store.subscribeNode('one', () => calls.one++)
    store.subscribeNode('two', () => calls.two++)
    return calls
  }

  test('of a selection: those who listen to everything, and nobody on the page', () => {
    const store = open()
    const calls = counted(store)
    store.dispatch({ type: 'select', id: 'one' })
    expect(calls).toEqual({ all: 1, page: 0, one: 0, two: 0 })
  })

  test('of an edit: the page, and the one block of it that changed', () => {
    const store = open()
    const calls = counted(store)
    store.do('Changed it', [say('one', 'Uno')])
    expect(calls).toEqual({ all: 1, page: 1, one: 1, two: 0 })
    store.dispatch({ type: 'undo' })
    expect(calls).toEqual({ all: 2, page: 2, one: 2, two: 0 })
  })

  test('of typing that begins and ends: the block that is typed in', () => {
    const store = open()
    const calls = counted(store)
    store.dispatch({ type: 'start-typing', typing: { id: 'two', field: 'text' } })
    store.dispatch({ type: 'stop-typing' })
    expect(calls).toEqual({ all: 2, page: 0, one: 0, two: 2 })
  })

  test('of nothing: nobody; and those who have gone are told no more', () => {
    const store = open()
    const calls = counted(store)
    store.dispatch({ type: 'stop-typing' })
    expect(calls.all).toBe(0)
    let more = 0
    const leave = [
      store.subscribe(() => more++),
      store.subscribePage(() => more++),
      store.subscribeNode('one', () => more++),
    ]
    for (const go of leave) go()
    store.do('Changed it', [say('one', 'Uno')])
    expect(more).toBe(0)
  })
})

describe('what the screen shows already', () => {
  const letter = (store: EditorStore, text: string): boolean =>
    store.do('Typed', [say('one', text)], { joinKey: 'one/text', origin: 'typing', isDrawn: true })
  const textOf = (store: EditorStore) => store.state.page.nodes.one!.content.text

  test('is in the page and kept at once, and told of once it was painted', () => {
    const store = open()
    const told: unknown[] = []
    store.subscribe(() => told.push('all'))
    store.subscribePage(() => told.push('page'))
    store.subscribeNode('one', () => told.push(textOf(store)))
    letter(store, 'Onea')
    letter(store, 'Oneab')
    expect([textOf(store), keptCount, told]).toEqual(['Oneab', 2, []])
    paint()
    expect(told).toEqual(['all', 'page', 'Oneab'])
    paint()
    expect(told).toHaveLength(3)
  })

  test('is told of before its frame when something else happens, and not twice', () => {
    const store = open()
    const told: unknown[] = []
    store.subscribeNode('one', () => told.push(textOf(store)))
    letter(store, 'Onea')
    store.dispatch({ type: 'select', id: 'two' })
    expect(told).toEqual(['Onea'])
    letter(store, 'Oneb')
    store.dispatch({ type: 'undo' })
    paint()
    expect(told).toEqual(['Onea', 'One'])
  })

  test('what follows the page is told once for each frame, whatever happened before it', () => {
    const store = open()
    const seen: unknown[] = []
    const leave = store.subscribeAfterPaint(() => seen.push(store.state.selection))
    store.dispatch({ type: 'select', id: 'one' })
    store.dispatch({ type: 'select', id: 'two' })
    expect(seen).toEqual([])
    paint()
    paint()
    expect(seen).toEqual(['two'])
    leave()
    store.dispatch({ type: 'select', id: 'one' })
    paint()
    expect(seen).toEqual(['two'])
  })

  test('law: once all was painted, everyone has been told of the state as it is', () => {
    const step = fc.oneof(
      fc.string().map((text) => (store: EditorStore) => letter(store, text)),
      fc
        .constantFrom('one', 'two')
        .map((id) => (store: EditorStore) => store.dispatch({ type: 'select', id })),
      fc.constantFrom('undo', 'redo').map((type) => (store: EditorStore) => store.dispatch({ type })),
      fc.constant(paint),
    )
    fc.assert(
      fc.property(fc.array(step), (steps) => {
        const store = open()
        const known = { all: store.state, page: store.state.page, one: store.state.page.nodes.one }
        let followed = store.state
        store.subscribe(() => (known.all = store.state))
        store.subscribePage(() => (known.page = store.state.page))
        store.subscribeNode('one', () => (known.one = store.state.page.nodes.one))
        store.subscribeAfterPaint(() => (followed = store.state))
        for (const act of steps) act(store)
        // What follows is asked for when the others are told, so a letter's own comes a frame after them.
        paint()
        paint()
        const { state } = store
        expect({ ...known, followed }).toEqual({
          all: state,
          page: state.page,
          one: state.page.nodes.one,
          followed: state,
        })
      }),
    )
  })
})

describe('what is kept', () => {
  test('every change of the page, undo included, in the same turn', () => {
    const store = open()
    store.do('Changed it', [say('one', 'Uno')])
    store.dispatch({ type: 'undo' })
    store.dispatch({ type: 'select', id: 'one' })
    expect(store.journal.entries().map(({ edits }) => edits)).toEqual([
      // Two sets of one value in a row are the last of them.
      [say('one', 'One')],
    ])
    expect(keptCount).toBe(2)
  })

  test('a browser without room is told of, and the edit is there all the same', () => {
    const store = open({ room: 0 })
    store.do('Changed it', [say('one', 'Uno')])
    expect(store.state.page.nodes.one!.content.text).toBe('Uno')
    expect(store.state.notice).toMatchObject({
      tone: 'refused',
      words: expect.stringMatching(/storage is full: .* Save soon/),
    })
    // The server's copy is the only one then: it is told of the act as of any other.
    expect([keptCount, store.journal.isOverfull]).toEqual([1, true])
  })
})

describe('what is not let through', () => {
  test('edits of somebody who may only look, with the reason', () => {
    const store = open({ mayChange: false })
    store.do('Changed it', [say('one', 'Uno')])
    store.dispatch({ type: 'start-typing', typing: { id: 'one', field: 'text' } })
    expect(store.state.page).toBe(page)
    expect(store.state.typing).toBeUndefined()
    expect(store.state.notice.words).toMatch(/needs the role of editor/)
    store.dispatch({ type: 'select', id: 'one' })
    expect(store.state.selection).toBe('one')
  })

  test('edits of what is locked, all of a step or none of it; merging goes by what was done', () => {
    const store = open()
    store.do('Changed both', [say('one', 'Uno'), say('kept', 'Gone')])
    expect(store.state.page).toBe(page)
    expect(store.state.notice.words).toMatch(/^Heading “Kept” is locked/)
    // The name of who does it gives no leave; the mode does.
    expect(store.do('Pretended', [say('kept', 'Of another')], { origin: 'merge' })).toBe(false)
    expect(store.do('Merged', [say('kept', 'Of another')], { locks: 'passed' })).toBe(true)
    expect(store.state.page.nodes.kept!.content.text).toBe('Of another')
  })

  test('an edit that changes nothing is no refusal, whatever was refused before it', () => {
    const store = open()
    expect(store.do('Changed it', [say('kept', 'Gone')])).toBe(false)
    const same = store.do('Typed', [], { joinKey: 'one/text' })
    expect([same, store.do('Changed it', [say('kept', 'Gone')])]).toEqual([true, false])
  })

  test('deleting what holds a locked block leaves all as it was, the selection too', () => {
    const store = open()
    store.dispatch({ type: 'select', id: 'sec' })
    store.do('Deleted it', [{ edit: 'remove', nodeId: 'sec' }], { select: 'root' })
    expect(store.state.page).toBe(page)
    expect(store.state.selection).toBe('sec')
  })
})

describe('edits made before the checks are there', () => {
  const late = () => {
    let isThere = false
    const registry: Registry = {
      ...defaultRegistry,
      check: (...given) => (isThere ? defaultRegistry.check(...given) : []),
    }
    const store = new EditorStore(openEditor(page, 1), registry, new Journal(someStorage(), owner))
    const arrive = (): void => {
      isThere = true
      store.recheck()
    }
    return { store, arrive }
  }
  const tooLong = 'x'.repeat(100_001)

  test('stay when the page passes them', () => {
    const { store, arrive } = late()
    store.do('Typed', [say('one', 'Uno')])
    const { notice } = store.state
    arrive()
    expect(store.state.page.nodes.one!.content.text).toBe('Uno')
    expect(store.state.notice).toBe(notice)
  })

  test('are undone as far as it does not, and the person is told', () => {
    const { store, arrive } = late()
    store.do('Typed', [say('one', 'Uno')])
    store.do('Pasted', [say('two', tooLong)])
    arrive()
    expect(store.state.page.nodes.one!.content.text).toBe('Uno')
    expect(store.state.page.nodes.two).toEqual(page.nodes.two)
    expect(store.state.notice).toMatchObject({ tone: 'refused', words: expect.stringMatching(/undone/) })
  })
})

test('ids are new each time, and ids that a page takes', () => {
  const ids = Array.from({ length: 200 }, newId)
  expect(new Set(ids).size).toBe(ids.length)
  const nodes = { ...page.nodes, [ids[0]!]: heading('New') }
  const holder = { ...page.nodes.sec!, slots: { blocks: ['one', 'two', 'kept', ids[0]!] } }
  const store = new EditorStore(
    openEditor({ ...page, nodes: { ...nodes, sec: holder } }, 1),
    defaultRegistry,
    new Journal(someStorage(), owner),
  )
  store.do('Changed it', [say(ids[0]!, 'Newer')])
  expect(store.state.page.nodes[ids[0]!]!.content.text).toBe('Newer')
})
