import { describe, expect, test } from '@jest/globals'
import { applyEdits, defaultRegistry, getKind, newNode, type Page } from '@gullyline/core'
import type { Box } from '../src/editor/canvas/boxes.ts'
import { findLanding, type LandingQuery } from '../src/editor/drag/landing.ts'
import { landingOnRow } from '../src/editor/spine/spine-landing.ts'

const kind = (name: string) => getKind(defaultRegistry, name)
const heading = (text: string) => newNode(kind('heading'), { content: { text, level: 2 } })
/** Two sections; the first holds a row of two stacks, one of them empty, and a heading under it. */
const page: Page = {
  format: 4,
  root: 'root',
  nodes: {
    root: newNode(kind('page'), { slots: { sections: ['one', 'two'] } }),
    one: newNode(kind('section'), { slots: { blocks: ['row', 'foot'] } }),
    two: newNode(kind('section'), { slots: { blocks: ['last'] } }),
    row: newNode(kind('row'), { slots: { blocks: ['left', 'right'] } }),
    left: newNode(kind('stack'), { slots: { blocks: ['a', 'b'] } }),
    right: newNode(kind('stack')),
    a: heading('A'),
    b: heading('B'),
    foot: heading('Foot'),
    last: heading('Last'),
  },
}
const box = (left: number, top: number, width: number, height: number): Box => ({ left, top, width, height })
const boxes: Readonly<Record<string, Box>> = {
  root: box(0, 0, 1000, 800),
  one: box(0, 0, 1000, 500),
  two: box(0, 500, 1000, 300),
  row: box(100, 50, 800, 300),
  left: box(100, 50, 390, 300),
  right: box(510, 50, 390, 300),
  a: box(100, 50, 390, 100),
  b: box(100, 170, 390, 100),
  foot: box(100, 370, 800, 60),
  last: box(100, 550, 800, 60),
}
const query = (hitId: string, x: number, y: number, more: Partial<LandingQuery> = {}): LandingQuery => ({
  page,
  registry: defaultRegistry,
  kind: 'heading',
  movingId: undefined,
  hitId,
  point: { x, y },
  boxOf: (id) => boxes[id],
  axisOf: (id) => (id === 'row' ? 'x' : 'y'),
  ...more,
})
const target = (hitId: string, x: number, y: number, more?: Partial<LandingQuery>) =>
  findLanding(query(hitId, x, y, more))?.target

describe('landing on the canvas', () => {
  test.each([
    ['before the first', 'a', 250, 60 + 15, { parentId: 'left', slot: 'blocks', index: 0 }],
    ['between two, in the gap', 'left', 250, 160, { parentId: 'left', slot: 'blocks', index: 1 }],
    ['after the last', 'b', 250, 255, { parentId: 'left', slot: 'blocks', index: 2 }],
    ['inside an empty stack', 'right', 700, 200, { parentId: 'right', slot: 'blocks', index: 0 }],
    ['beside a stack, at its edge', 'right', 514, 200, { parentId: 'row', slot: 'blocks', index: 1 }],
    ['in the section, below the row', 'one', 500, 362, { parentId: 'one', slot: 'blocks', index: 1 }],
  ] as const)('%s', (_where, hitId, x, y, expected) => {
    expect(target(hitId, x, y)).toEqual(expected)
  })

  test('a section lands between sections, wherever inside one the pointer is', () => {
    const section = { kind: 'section' }
    expect(target('a', 250, 100, section)).toEqual({ parentId: 'root', slot: 'sections', index: 0 })
    expect(target('foot', 250, 400, section)).toEqual({ parentId: 'root', slot: 'sections', index: 1 })
    expect(target('last', 250, 780, section)).toEqual({ parentId: 'root', slot: 'sections', index: 2 })
  })

  test('a block inside itself is refused with the reason, and the refused place is drawn', () => {
    const landing = findLanding(query('a', 250, 100, { kind: 'row', movingId: 'row' }))
    expect(landing).toMatchObject({ refusal: 'A block can’t be placed inside itself', mark: boxes.row })
  })

  test('every landing that is not refused is one the page takes', () => {
    for (const movingId of ['a', 'foot', 'left', 'two']) {
      for (let x = 5; x < 1000; x += 97) {
        for (let y = 5; y < 800; y += 53) {
          const inside = (one: Box) =>
            x >= one.left && x < one.left + one.width && y >= one.top && y < one.top + one.height
          const hitId = Object.keys(boxes)
            .filter((id) => inside(boxes[id]!))
            .at(-1)!
          const landing = findLanding(query(hitId, x, y, { kind: page.nodes[movingId]!.kind, movingId }))
          if (!landing || landing.refusal !== undefined) continue
          const { parentId, slot, index } = landing.target
          const moved = applyEdits(
            page,
            [{ edit: 'move', nodeId: movingId, toParentId: parentId, toSlot: slot, toIndex: index }],
            defaultRegistry,
          )
          expect({ movingId, x, y, ok: moved.ok }).toEqual({ movingId, x, y, ok: true })
        }
      }
    }
  })
})

describe('landing in the spine', () => {
  const row = (id: string) => ({ id, box: box(0, 100, 180, 24) })
  const item = (id: string) => ({ type: 'node', id, kind: page.nodes[id]!.kind, title: id }) as const
  const land = (moving: string, over: string, y: number) =>
    landingOnRow(page, defaultRegistry, item(moving), row(over), { x: 50, y })

  test('the upper part of a row means before it, the lower after it, the middle inside it', () => {
    expect(land('foot', 'a', 103)?.landing?.target).toEqual({ parentId: 'left', slot: 'blocks', index: 0 })
    expect(land('foot', 'a', 121)?.landing?.target).toEqual({ parentId: 'left', slot: 'blocks', index: 1 })
    expect(land('foot', 'right', 112)?.landing?.target).toEqual({
      parentId: 'right',
      slot: 'blocks',
      index: 0,
    })
  })

  test('a refused place says why', () => {
    expect(land('foot', 'two', 103)?.refusal).toBe(
      'A heading can’t stand directly on a page: it takes sections, which hold the blocks'.replace('’', "'"),
    )
    expect(land('two', 'row', 112)?.refusal).toMatch(/section can't stand in a row/)
  })
})

test('over a neighbour the outer thirds change the order, and the middle is inside it', () => {
  const moving = { kind: 'stack', movingId: 'left' }
  expect(target('right', 550, 200, moving)).toEqual({ parentId: 'row', slot: 'blocks', index: 0 })
  expect(target('right', 860, 200, moving)).toEqual({ parentId: 'row', slot: 'blocks', index: 1 })
  expect(target('right', 705, 200, moving)).toEqual({ parentId: 'right', slot: 'blocks', index: 0 })
})
