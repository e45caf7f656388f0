/** Slots of components: what each instance puts there, and that none of it is lost when the component changes. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { slotsOf, type ComponentSlot } from '../src/blocks/component-slots.ts'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { placeEdits } from '../src/edits/compose.ts'
import { applyEdit } from '../src/edits/edit.ts'
import type { Edit } from '../src/edits/edit-shapes.ts'
import { lockRefusal } from '../src/edits/lock.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { migratePage } from '../src/page/migrate.ts'
import type { Json } from '../src/page/json.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../src/page/page.ts'
import { subtreeIds } from '../src/page/walk.ts'
import { renderPage } from '../src/render/render-page.ts'
import { Expander, expandParts } from '../src/resolve/expand.ts'
import { textOf } from '../src/resolve/page-text.ts'
import { instanceFindings } from '../src/reuse/component-rules.ts'
import { fillAt, instanceSlots, slotOfFill } from '../src/resolve/instance-slots.ts'
import { declareSlotEdits } from '../src/reuse/slot-edits.ts'
import { otherPartEdits, withOtherPart } from '../src/reuse/other-part.ts'
import { instanceFragment } from '../src/reuse/shared-parts.ts'
import { ownCopyEdits, withCopies } from '../src/reuse/own-copies.ts'
import { seenIdOf, shownIdOf } from '../src/reuse/shown-parts.ts'
import { joinSession } from '../src/site/session-page.ts'
import { partOf } from '../src/site/session-parts.ts'
import { countingIds } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'
import { document, node, together } from './fixtures/event-card.ts'

const heading = (text: string): PageNode => node('heading', { content: { text, level: 3 } })
const slot: ComponentSlot = { id: 'acts', name: 'Actions', node: 'foot', slot: 'blocks' }

/** A card with a title, and a stack at its foot that is a slot, with a button in it. */
const cardWith = (slots: readonly ComponentSlot[], root = 'card'): Page =>
  document(root, {
    [root]: node('shared-blocks', {
      content: { slots: slots as unknown as Json },
      slots: { blocks: ['title', 'foot'] },
    }),
    title: heading('An open night'),
    foot: node('stack', { slots: { blocks: ['more'] } }),
    more: node('button', { content: { text: 'Ask', link: { href: 'https://example.org/' } } }),
  })
const card = cardWith([slot])

/** A page with an instance of the card for each of these lists of headings. */
function pageWith(...inSlots: readonly (readonly string[])[]): Page {
  const nodes: Record<NodeId, PageNode> = {}
  const instances = inSlots.map((texts, i) => {
    const blocks = texts.map((text, n) => {
      nodes[`h${i}x${n}`] = heading(text)
      return `h${i}x${n}`
    })
    nodes[`s${i}`] = node('slot-fill', { content: { slot: 'acts' }, slots: { blocks } })
    nodes[`i${i}`] = node('linked-blocks', { content: { part: 'card' }, slots: { fills: [`s${i}`] } })
    return `i${i}`
  })
  return document('home', {
    home: node('page', { content: { title: 'Nights' }, slots: { sections: ['one'] } }),
    one: node('section', { slots: { blocks: instances } }),
    ...nodes,
  })
}

const header = document('top', { top: node('site-header', { content: { brand: 'T' } }) })
const footer = document('bottom', { bottom: node('site-footer') })
const sessionOf = (page: Page, parts: Record<string, Page> = { card }): Page =>
  joinSession({ page, header, footer, parts }, countingIds('j'))
const say = (page: Page, parts: Record<string, Page> = { card }): string[] =>
  textOf(expandParts(page, registry, parts), registry).split('\n')
const applied = (page: Page, edits: readonly Edit[]): Page => {
  const done = applyEdits(page, edits, together)
  if (!done.ok) throw new Error(done.message)
  return done.page
}
const htmlOf = (page: Page): string =>
  renderPage({ page, title: 'T', description: 'D' }, registry, { ...testSite(), parts: { card } }, 'inline')
    .html

describe('a slot of a component', () => {
  test('shows what each instance has there, and what the component has where an instance has nothing', () => {
    const page = pageWith(['Book', 'Call'], [])
    expect(validatePage(page, registry)).toEqual([])
    expect(validatePage(card, registry, 'shared-blocks')).toEqual([])
    expect(say(page)).toEqual(['An open night', 'Book', 'Call', 'An open night', 'Ask'])
    // What an instance has there keeps the ids that it has on its page.
    expect(expandParts(page, registry, { card }).nodes['i0/foot']!.slots.blocks).toEqual(['h0x0', 'h0x1'])
  })

  test('takes what its block takes, or only the kinds that the component names', () => {
    const narrow = sessionOf(pageWith(['Book']), { card: cardWith([{ ...slot, takes: ['button'] }]) })
    const place = (kind: string): Edit[] => [
      ...placeEdits(
        narrow,
        { parentId: 's0', slot: 'blocks', index: 0 },
        [{ rootId: 'new', nodes: { new: node(kind) } }],
        together,
        countingIds('p'),
      ),
    ]
    expect(applyEdits(narrow, place('button'), together).ok).toBe(true)
    expect(applyEdits(narrow, place('text'), together)).toMatchObject({
      ok: false,
      message: 'The slot “Actions” takes only buttons',
    })
    // What stands there already is set aside, and told.
    expect(say(partOf(narrow, 'page'), { card: partOf(narrow, 'card') })).toEqual(['An open night', 'Ask'])
    const found = instanceFindings(narrow, ['i0'], (id) => ({ nodes: narrow.nodes, root: id }), together)
    expect(found.map(({ rule, nodeId }) => [rule, nodeId])).toEqual([['slot-takes', 'h0x0']])
  })

  test('stays in its instance: it can’t be deleted or moved by itself', () => {
    const session = sessionOf(pageWith(['Book']))
    const remove: Edit = { edit: 'remove', nodeId: 's0' }
    expect(lockRefusal(session, remove, together)).toContain('part of the component')
    expect(lockRefusal(session, { edit: 'remove', nodeId: 'h0x0' }, together)).toBeUndefined()
    expect(lockRefusal(session, { edit: 'remove', nodeId: 'i0' }, together)).toBeUndefined()
  })

  test('is found from what is shown, and what fills it is where the slot is', () => {
    const session = sessionOf(pageWith(['Book']))
    expect(fillAt(session, 'i0', 'foot', together)).toBe('s0')
    expect(fillAt(session, 'i0', 'title', together)).toBeUndefined()
    expect(seenIdOf(session, 's0', '', together)).toBe('i0/foot')
    expect(shownIdOf(session, 's0', '', together)).toBe('s0')
    expect(seenIdOf(session, 'h0x0', '', together)).toBe('h0x0')
    expect(slotOfFill(session, 's0', together)).toMatchObject({ slot, fill: 's0', count: 1 })
  })

  test('is made of a block in the part: instances on the page get a place for it, and undo takes all of it back', () => {
    const plain = cardWith([])
    const page = document('home', {
      ...pageWith().nodes,
      one: node('section', { slots: { blocks: ['i'] } }),
      i: node('linked-blocks', { content: { part: 'card' } }),
    })
    const before = sessionOf(page, { card: plain })
    const edits = declareSlotEdits(
      before,
      'card',
      { node: 'foot', slot: 'blocks' },
      together,
      countingIds('d'),
    )
    const done = applyEdits(before, edits, together)
    if (!done.ok) throw new Error(done.message)
    expect(slotsOf(getNode(done.page, 'card'))).toMatchObject([{ name: 'Stack', node: 'foot' }])
    expect(instanceSlots(done.page, 'i', together)).toMatchObject([{ count: 0, fill: expect.any(String) }])
    expect(applied(done.page, done.inverse)).toEqual(before)
  })

  test('of a component that is placed comes with it', () => {
    const { rootId, nodes } = instanceFragment('card', card, registry, countingIds('n'))
    expect(
      Object.values(nodes)
        .map(({ kind }) => kind)
        .sort(),
    ).toEqual(['linked-blocks', 'slot-fill'])
    expect(nodes[rootId]!.slots.fills).toHaveLength(1)
  })
})

describe('own copies, other components, and slots that go', () => {
  test('an own copy, of one instance or of all, shows visitors the same bytes', () => {
    const page = pageWith(['Book', 'Call'], [])
    const session = sessionOf(page)
    const copied = ['i0', 'i1'].reduce(
      (now, id) => applied(now, ownCopyEdits(now, id, together, countingIds(`o${id}`)).edits),
      session,
    )
    const html = htmlOf(page).replaceAll(/ id="[^"]*"/g, '')
    expect(htmlOf(partOf(copied, 'page')).replaceAll(/ id="[^"]*"/g, '')).toBe(html)
    const all = withCopies(page, 'card', card, registry, countingIds('c'))
    expect(validatePage(all, registry)).toEqual([])
    expect(htmlOf(all).replaceAll(/ id="[^"]*"/g, '')).toBe(html)
  })

  test('copies are made of instances in slots of the same component, too', () => {
    const inner = { s9: node('slot-fill', { content: { slot: 'acts' } }) }
    const page = pageWith(['Book'])
    const nested: Page = {
      ...page,
      nodes: {
        ...page.nodes,
        ...inner,
        i9: node('linked-blocks', { content: { part: 'card' }, slots: { fills: ['s9'] } }),
        s0: { ...page.nodes.s0!, slots: { blocks: ['h0x0', 'i9'] } },
      },
    }
    expect(validatePage(nested, registry)).toEqual([])
    const words = ['An open night', 'Book', 'An open night', 'Ask']
    expect(say(nested)).toEqual(words)
    const copied = withCopies(nested, 'card', card, registry, countingIds('c'))
    expect(validatePage(copied, registry)).toEqual([])
    expect(say(copied, {})).toEqual(words)
  })

  test('another component in its place has what was put in slots of the same name, and has it again on the way back', () => {
    const other = cardWith([{ ...slot, id: 'theirs' }], 'other')
    const session = sessionOf(pageWith(['Book']), { card, other })
    const replaced = applied(session, otherPartEdits(session, 'i0', 'other', together, countingIds('o')))
    expect(say(partOf(replaced, 'page'), { card, other: partOf(replaced, 'other') })).toEqual([
      'An open night',
      'Book',
    ])
    const back = applied(replaced, otherPartEdits(replaced, 'i0', 'card', together, countingIds('q')))
    expect(partOf(back, 'page')).toEqual(partOf(session, 'page'))
    const everywhere = withOtherPart(pageWith(['Book'], []), card, other, registry)
    expect(say(everywhere, { other })).toEqual(['An open night', 'Book', 'An open night', 'Ask'])
  })

  test('a slot that goes sets aside what instances have there, tells of it, and gives it back when it returns', () => {
    const page = pageWith(['Book'])
    const without = cardWith([])
    expect(say(page, { card: without })).toEqual(['An open night', 'Ask'])
    const found = instanceFindings(page, Object.keys(page.nodes), () => without, registry)
    expect(found).toMatchObject([{ rule: 'slot-takes', nodeId: 'h0x0', severity: 'warning' }])
    expect(say(page, { card })).toEqual(['An open night', 'Book'])
  })

  test('two people who each open a slot of one instance lose nothing: all of it is shown, and one place is worked in', () => {
    const page = pageWith(['Book'])
    const second = node('slot-fill', { content: { slot: 'acts' }, slots: { blocks: ['late'] } })
    const nodes = {
      ...page.nodes,
      i0: { ...page.nodes.i0!, slots: { fills: ['s0', 's1'] } },
      s1: second,
      late: heading('Call'),
    }
    const both = { ...page, nodes }
    expect(say(both)).toEqual(['An open night', 'Book', 'Call'])
    expect(say(withCopies(both, 'card', card, registry, countingIds('c')), {})).toEqual(say(both))
    const session = sessionOf(both)
    expect(instanceSlots(session, 'i0', together)).toMatchObject([{ fill: 's0', count: 2 }])
    expect(slotOfFill(session, 's1', together)).toMatchObject({ slot })
  })

  test('an instance of a part that is not there has no findings of its own, and does not keep others from theirs', () => {
    const page = pageWith(['Book'], ['Call'])
    const gone = { ...page.nodes.i1!, content: { part: 'gone' } }
    const session = sessionOf({ ...page, nodes: { ...page.nodes, i1: gone } }, { card: cardWith([]) })
    // As the editor asks: for a part by its id, whether or not it is joined to the page.
    const partIn = (id: string) => ({ nodes: session.nodes, root: id })
    const found = instanceFindings(session, Object.keys(session.nodes), partIn, together)
    expect(found.map(({ nodeId }) => nodeId)).toEqual(['h0x0'])
  })

  test('a slot that an instance’s blocks are for by now is shown at once', () => {
    const two = cardWith([slot, { ...slot, id: 'other', name: 'Other', node: 'lid' }])
    const part = document('card', {
      ...two.nodes,
      card: { ...two.nodes.card!, slots: { blocks: ['lid', 'title', 'foot'] } },
      lid: node('stack'),
    })
    const session = sessionOf(pageWith(['Book']), { card: part })
    const expander = new Expander(together)
    expander.update(session)
    const moved = applied(session, [{ edit: 'set', nodeId: 's0', at: ['content', 'slot'], value: 'other' }])
    const now = expander.update(moved)
    expect(now.nodes['i0/lid']!.slots.blocks).toEqual(['h0x0'])
    expect(now.nodes['i0/foot']!.slots.blocks).toEqual(['i0/more'])
  })

  test('instances that were saved before there were slots are read', () => {
    const old = document('home', { ...pageWith([]).nodes })
    const { s0: _fill, ...nodes } = old.nodes
    const { fills: _fills, ...slots } = nodes.i0!.slots
    const stored = { ...old, format: 3, nodes: { ...nodes, i0: { ...nodes.i0!, slots } } }
    const read = migratePage(stored) as Page
    expect(validatePage(read, registry)).toEqual([])
    expect(say(read)).toEqual(['An open night', 'Ask'])
  })
})

/** Headings for instances, and instances in slots of instances, as deep as the numbers say. */
const texts = fc.array(fc.constantFrom('A', 'B', 'C', 'D'), { maxLength: 3 })

test('whatever is put in, taken out and moved, expanding step by step gives what expanding from nothing gives', () => {
  let shownOnce = 0
  const act = fc.record({
    what: fc.constantFrom('add', 'remove', 'move', 'unslot', 'slot'),
    at: fc.nat(20),
    into: fc.nat(20),
  })
  fc.assert(
    fc.property(
      fc.array(texts, { minLength: 1, maxLength: 4 }),
      fc.array(act, { maxLength: 12 }),
      (lists, acts) => {
        let page = sessionOf(pageWith(...lists))
        const expander = new Expander(together)
        expander.update(page)
        const newId = countingIds('e')
        for (const { what, at, into } of acts) {
          const fills = Object.keys(page.nodes).filter((id) => page.nodes[id]!.kind === 'slot-fill')
          const own = fills.flatMap((id) => page.nodes[id]!.slots.blocks!)
          const target = { slot: 'blocks', index: 0, parentId: fills[into % fills.length]! }
          const moved = own[at % Math.max(1, own.length)]
          const id = newId()
          const fragment =
            at % 3 === 0
              ? instanceFragment('card', partOf(page, 'card'), together, newId)
              : { rootId: id, nodes: { [id]: heading('E') } }
          const edit: Edit | undefined =
            what === 'add'
              ? { edit: 'insert', ...target, ...fragment }
              : what === 'slot' || what === 'unslot'
                ? {
                    edit: 'set',
                    nodeId: 'card',
                    at: ['content', 'slots'],
                    value: (what === 'slot' ? [slot] : []) as unknown as Json,
                  }
                : moved === undefined
                  ? undefined
                  : what === 'remove'
                    ? { edit: 'remove', nodeId: moved }
                    : {
                        edit: 'move',
                        nodeId: moved,
                        toParentId: target.parentId,
                        toSlot: 'blocks',
                        toIndex: 0,
                      }
          const done = edit && applyEdit(page, edit, together)
          if (!done?.ok) continue
          page = done.page
          const now = expander.update(page)
          const fresh = new Expander(together).update(page)
          const ids = subtreeIds(fresh, fresh.root)
          expect(subtreeIds(now, now.root)).toEqual(ids)
          expect(ids.map((one) => now.nodes[one])).toEqual(ids.map((one) => fresh.nodes[one]))
          // Nothing is shown twice, and what a slot takes is shown.
          expect(new Set(ids).size).toBe(ids.length)
          if (slotsOf(getNode(page, 'card')).length > 0)
            for (const one of own.filter(
              (id2) => Object.hasOwn(page.nodes, id2) && page.nodes[id2]!.kind === 'heading',
            )) {
              expect(ids).toContain(one)
              shownOnce++
            }
        }
      },
    ),
    { numRuns: 150 },
  )
  expect(shownOnce).toBeGreaterThan(300)
})
