import { describe, expect, test } from '@jest/globals'
import { defaultRegistry, getKind, newNode, type Edit, type Page } from '@gullyline/core'
import {
  openEditor,
  reduceEditor,
  selectedIds,
  unsavedCount,
  type EditorAction,
  type EditorState,
} from '../src/editor/session/editor-state.ts'

const kind = (name: string) => getKind(defaultRegistry, name)
const page: Page = {
  format: 4,
  root: 'root',
  nodes: {
    root: newNode(kind('page'), { slots: { sections: ['sec'] } }),
    sec: newNode(kind('section'), { slots: { blocks: ['head'] } }),
    head: newNode(kind('heading'), { content: { text: 'Hello', level: 2 } }),
  },
}
const run = (state: EditorState, ...actions: EditorAction[]) =>
  actions.reduce((at, action) => reduceEditor(at, action, defaultRegistry), state)
let clock = 0
const act = (edit: Edit, joinKey?: string): EditorAction => ({
  type: 'do',
  transaction: {
    label: 'Changed it',
    origin: 'test',
    at: (clock += joinKey ? 1 : 5000),
    edits: [edit],
    ...(joinKey ? { joinKey } : {}),
  },
})
const say = (value: string, joinKey?: string) =>
  act({ edit: 'set', nodeId: 'head', at: ['content', 'text'], value }, joinKey)
const savedNow = (state: EditorState, version = 2): EditorAction => ({
  type: 'saved',
  saved: { version, shared: {}, step: state.history.done.at(-1), page: state.page },
})

describe('what is saved and what is not', () => {
  const opened = openEditor(page, 1)

  test('counts steps since the last save, down as well as up', () => {
    const two = run(opened, say('a'), say('b'))
    expect(unsavedCount(two)).toBe(2)
    expect(unsavedCount(run(two, { type: 'undo' }))).toBe(1)
    expect(unsavedCount(run(two, { type: 'undo' }, { type: 'undo' }))).toBe(0)
    const saved = run(two, savedNow(two))
    expect(unsavedCount(saved)).toBe(0)
    expect(unsavedCount(run(saved, { type: 'undo' }))).toBeGreaterThan(0)
    expect(unsavedCount(run(saved, { type: 'undo' }, { type: 'redo' }))).toBe(0)
  })

  test('edits made while a save was under way are not counted as saved', () => {
    const before = run(opened, say('a'))
    const during = run(before, say('b'))
    expect(unsavedCount(run(during, savedNow(before)))).toBe(1)
  })

  test('going on to type in the same step after a save counts as not saved', () => {
    const typed = run(opened, say('a', 'k'))
    const saved = run(typed, savedNow(typed))
    expect(unsavedCount(run(saved, say('ab', 'k')))).toBeGreaterThan(0)
  })
})

describe('acts', () => {
  test('one that does not fit changes nothing and says why', () => {
    const before = openEditor(page, 1)
    const after = run(
      before,
      act({ edit: 'move', nodeId: 'sec', toParentId: 'sec', toSlot: 'blocks', toIndex: 0 }),
    )
    expect(after.page).toBe(before.page)
    expect(after.history).toBe(before.history)
    expect(after.notice).toMatchObject({ tone: 'refused', words: 'A block can’t be placed inside itself' })
  })

  test('what is deleted is no longer selected or typed in', () => {
    const typing = run(openEditor(page, 1), { type: 'start-typing', typing: { id: 'head', field: 'text' } })
    const after = run(typing, act({ edit: 'remove', nodeId: 'sec' }))
    expect(after).toMatchObject({ selection: undefined, typing: undefined })
    expect(run(after, { type: 'undo' }).page).toEqual(page)
  })
})

describe('several selected', () => {
  const many: Page = {
    ...page,
    nodes: {
      ...page.nodes,
      sec: newNode(kind('section'), { slots: { blocks: ['head', 'two', 'three'] } }),
      two: newNode(kind('heading'), { content: { text: 'Two', level: 2 } }),
      three: newNode(kind('heading'), { content: { text: 'Three', level: 2 } }),
    },
  }
  const start = openEditor(many, 1)
  const selected = (state: EditorState) => selectedIds(state).join(' ')

  test('are siblings, given in the order they stand in, and let go one by one', () => {
    let state = run(start, { type: 'select', id: 'three' }, { type: 'toggle', id: 'head' })
    expect(selected(state)).toBe('head three')
    expect(state.selection).toBe('head')
    state = run(state, { type: 'toggle', id: 'two' })
    expect(selected(state)).toBe('head two three')
    state = run(state, { type: 'toggle', id: 'two' })
    expect(selected(state)).toBe('head three')
    state = run(state, { type: 'toggle', id: state.selection! }, { type: 'toggle', id: 'head' })
    expect(selected(run(state, { type: 'select', id: 'two' }))).toBe('two')
  })

  test('are all from one to another, whichever stands first, with what was selected before', () => {
    const from = (id: string) => run(start, { type: 'select', id })
    expect(selected(run(from('head'), { type: 'stretch', id: 'three' }))).toBe('head two three')
    expect(selected(run(from('three'), { type: 'stretch', id: 'head' }))).toBe('head two three')
    expect(selected(run(from('two'), { type: 'stretch', id: 'two' }))).toBe('two')
    expect(selected(run(start, { type: 'stretch', id: 'two' }))).toBe('two')
    const state = run(from('head'), { type: 'stretch', id: 'sec' })
    expect([selected(state), state.notice.tone]).toEqual(['head', 'refused'])
  })

  test('are never of two levels, and the reason is told', () => {
    const state = run(start, { type: 'select', id: 'head' }, { type: 'toggle', id: 'sec' })
    expect(selected(state)).toBe('head')
    expect(state.notice).toMatchObject({ tone: 'refused' })
  })

  test('what is no longer there, or stands elsewhere, is no longer selected', () => {
    const both = run(start, { type: 'select', id: 'head' }, { type: 'toggle', id: 'two' })
    expect(selected(run(both, act({ edit: 'remove', nodeId: 'head' })))).toBe('two')
    // The one that keys went by is gone, and what held it is selected.
    expect(selected(run(both, act({ edit: 'remove', nodeId: 'two' })))).toBe('sec')
    const typing = run(both, { type: 'start-typing', typing: { id: 'two', field: 'text' } })
    expect(selected(typing)).toBe('two')
  })
})
