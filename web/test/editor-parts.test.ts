import { describe, expect, test } from '@jest/globals'
import { defaultRegistry, type PageSummary } from '@gullyline/core'
import { readClipboard, writeClipboard } from '../src/editor/commands/clipboard.ts'
import { COMMAND_IDS, keysOf } from '../src/editor/commands/command-list.ts'
import { keyName } from '../src/editor/commands/commands.ts'
import {
  clampWidth,
  nextSample,
  RULER_FROM,
  RULER_TO,
  rulerSizes,
  shareOf,
  widthAt,
} from '../src/editor/ruler/ruler-scale.ts'
import { inTreeOrder } from '../src/pages/page-order.ts'
import { when } from '../src/ui/when.ts'
import { tarrowmoorLook } from '../../demo/src/look.ts'

describe('the ruler', () => {
  test('a width and its place on the ruler are each other’s inverse, for every width', () => {
    for (let width = RULER_FROM; width <= RULER_TO; width++) expect(widthAt(shareOf(width))).toBe(width)
    expect([widthAt(-1), widthAt(2), clampWidth(99.6)]).toEqual([RULER_FROM, RULER_TO, RULER_FROM])
  })

  test('its sizes cover it without gap or overlap, each with a sample inside', () => {
    const sizes = rulerSizes(tarrowmoorLook)
    expect(sizes.map((size) => size.title)).toEqual(['narrow', 'medium', 'wide'])
    expect([sizes[0]!.from, ...sizes.map((size) => size.to)]).toEqual([
      RULER_FROM,
      sizes[1]!.from,
      sizes[2]!.from,
      RULER_TO,
    ])
    for (const { from, to, sample } of sizes) expect(sample >= from && sample < to).toBe(true)
  })

  test('steps from size to size and stops at the ends', () => {
    const sizes = rulerSizes(tarrowmoorLook)
    expect([nextSample(sizes, 1280, -1), nextSample(sizes, 820, -1), nextSample(sizes, 400, -1)]).toEqual([
      820, 390, 400,
    ])
    expect([nextSample(sizes, 390, 1), nextSample(sizes, 1920, 1)]).toEqual([820, 1920])
  })
})

describe('commands', () => {
  const key = (name: string, more: Partial<KeyboardEvent> = {}) =>
    keyName({ key: name, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...more })

  test('keys are named with their modifiers, and a Mac’s command key counts as Ctrl', () => {
    expect(key('z', { ctrlKey: true })).toBe('Ctrl+Z')
    expect(key('Z', { metaKey: true, shiftKey: true })).toBe('Ctrl+Shift+Z')
    expect(key('ArrowUp', { altKey: true })).toBe('Alt+ArrowUp')
  })

  test('no two share a title or a first key', () => {
    const all = COMMAND_IDS.map(keysOf)
    expect(new Set(all.map((one) => one.title)).size).toBe(all.length)
    const keys = all.map((one) => one.keys).filter((one) => one !== '')
    expect(new Set(keys).size).toBe(keys.length)
  })

  test('none takes keys that browsers keep for themselves', () => {
    const browsers = [
      'Ctrl T',
      'Ctrl N',
      'Ctrl W',
      'Ctrl L',
      'Ctrl R',
      'Ctrl D',
      'Ctrl J',
      'Ctrl K',
      'Ctrl P',
      'Ctrl F',
      'Ctrl Tab',
      'F1',
      'F5',
      'F11',
      'F12',
      'Alt Left',
      'Alt Right',
    ]
    expect(COMMAND_IDS.map((id) => keysOf(id).keys).filter((keys) => browsers.includes(keys))).toEqual([])
  })
})

describe('the clipboard', () => {
  const store = (value: string | null) => ({ getItem: () => value })

  test('gives back what was copied', () => {
    let journaled = ''
    const fragment = {
      rootId: 'a',
      nodes: {
        a: { kind: 'text', content: { words: [] }, look: {}, sizes: { base: {} }, slots: {} },
      },
    }
    writeClipboard({ setItem: (_key, value) => void (journaled = value) }, [fragment, fragment])
    expect(readClipboard(store(journaled), defaultRegistry)).toEqual([fragment, fragment])
  })

  test.each([
    null,
    '',
    'nonsense',
    '{}',
    '{"rootId":"a","nodes":{}}',
    '[]',
    'null',
    '[null, 1, {"rootId":"a","nodes":{}}]',
  ])('finds nothing in %p', (value) => {
    expect(readClipboard(store(value), defaultRegistry)).toEqual([])
  })
})

test('pages stand in the order of the tree: each followed by its sub-pages', () => {
  const page = (id: string, parentId: string | null, position: number) =>
    ({ id, parentId, position }) as PageSummary
  const pages = [
    page('b', null, 1),
    page('a2', 'a', 1),
    page('a', null, 0),
    page('a1', 'a', 0),
    page('deep', 'a1', 0),
  ]
  expect(inTreeOrder(pages).map((entry) => [entry.page.id, entry.depth])).toEqual([
    ['a', 0],
    ['a1', 1],
    ['deep', 2],
    ['a2', 1],
    ['b', 0],
  ])
})

test('a moment is told as people say it', () => {
  const now = new Date(2026, 10, 24, 15, 0)
  const iso = (...parts: [number, number, number, number, number]) => new Date(...parts).toISOString()
  expect(when(iso(2026, 10, 24, 9, 5), now)).toBe('09:05')
  expect(when(iso(2026, 10, 23, 23, 5), now)).toBe('23 Nov')
  expect(when(iso(2025, 10, 23, 23, 5), now)).toBe('23 Nov 2025')
})
