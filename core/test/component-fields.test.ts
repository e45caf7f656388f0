/** Components: what each instance says for itself, and what stays the same in all of them. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { fieldsOf, filledIn } from '../src/blocks/component-fields.ts'
import { canHave } from '../src/blocks/converted-value.ts'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { partSchema } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { mergePages } from '../src/compare/merge-pages.ts'
import { applyEdit } from '../src/edits/edit.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import type { Json } from '../src/page/json.ts'
import { getNode, type Page, type PageNode } from '../src/page/page.ts'
import { renderPage } from '../src/render/render-page.ts'
import { Expander } from '../src/resolve/expand.ts'
import { textOf } from '../src/resolve/page-text.ts'
import {
  componentField,
  fieldAt,
  instanceFields,
  isComponent,
  valueProblems,
} from '../src/reuse/component-values.ts'
import { fillable, newField, withFieldsForAll } from '../src/reuse/make-component.ts'
import { otherPartEdits } from '../src/reuse/other-part.ts'
import { ownCopyEdits, withCopies } from '../src/reuse/own-copies.ts'
import { joinPart, joinSession } from '../src/site/session-page.ts'
import { partOf } from '../src/site/session-parts.ts'
import { countingIds } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'
import { valuesFor } from './arbitraries/value.ts'
import { card, document, fieldIds, node, pageWith, shown, together } from './fixtures/event-card.ts'

const say = (page: Page): string[] => textOf(shown(page), registry).split('\n')

describe('a component that is made of blocks', () => {
  test('has a field for everything they say, each called after its block, and is valid', () => {
    expect(fieldsOf(getNode(card, 'card')).map(({ name }) => name)).toEqual([
      'Heading',
      'Text',
      'Button',
      'Button: link',
    ])
    expect(validatePage(card, registry, 'shared-blocks')).toEqual([])
    expect(isComponent(card)).toBe(true)
    const again = newField(
      fieldsOf(getNode(card, 'card')),
      { node: 'title', key: 'text' },
      getKind(registry, 'heading'),
      () => 'x',
    )
    expect(again.name).toBe('Heading 2')
  })

  test('says what each instance says for itself, and its own words where that says nothing', () => {
    const page = pageWith({ [fieldIds.Heading!]: 'Saturn' }, undefined, { [fieldIds.Button!]: 'Book' })
    expect(validatePage(page, registry)).toEqual([])
    expect(say(page)).toEqual([
      'Saturn',
      'Come up',
      'Ask',
      'An open night',
      'Come up',
      'Ask',
      'An open night',
      'Come up',
      'Book',
    ])
  })

  test('a value that its block can’t have is not shown, is a problem, and the other values stand', () => {
    const page = pageWith({ [fieldIds.Heading!]: true, [fieldIds.Button!]: 'Book', gone: 'Set aside' })
    expect(say(page)).toEqual(['An open night', 'Come up', 'Book'])
    expect(valueProblems(page, { card }, registry)).toMatchObject([
      { pointer: `/nodes/i0/values/${fieldIds.Heading}`, message: '“Heading” can’t be that' },
    ])
  })

  test('a script in a link leads nowhere', () => {
    const linkTo = (href: string): string => {
      const page = pageWith({ [fieldIds['Button: link']!]: { href } })
      const given = { page, title: 'T', description: 'D' }
      return renderPage(given, registry, { ...testSite(), parts: { card } }, 'inline').html
    }
    expect(linkTo('https://example.org/book')).toContain('https://example.org/book')
    expect(linkTo('javascript:alert(1)')).not.toContain('javascript:')
  })

  test('only instances have values, by ids, and not without end', () => {
    const bad = (values: unknown, kind = 'linked-blocks'): number => {
      const page = pageWith()
      const own = {
        ...node(kind, kind === 'heading' ? {} : { content: { part: 'card' } }),
        values,
      } as PageNode
      const nodes = { ...page.nodes, i: own, one: node('section', { slots: { blocks: ['i'] } }) }
      return validatePage({ ...page, nodes }, registry).length
    }
    expect(bad({ a: 1 })).toBe(0)
    expect(bad({ a: 1 }, 'heading')).toBe(1)
    for (const values of [{}, [], 'x', { 'a b': 1 }, { __proto__x: 1 }, { a: 'x'.repeat(200_001) }])
      expect(bad(values)).toBe(1)
  })
})

test('any value that a block can have is shown by its instance as the block would show it', () => {
  const checked = new Set<string>()
  const kinds = ['heading', 'text', 'button', 'picture', 'list'].map((kind) => getKind(registry, kind))
  fc.assert(
    fc.property(
      fc
        .constantFrom(...kinds)
        .chain((kind) =>
          fc.tuple(
            fc.constant(kind),
            valuesFor(kind.content),
            valuesFor(kind.content),
            valuesFor(partSchema(kind, 'look')),
          ),
        ),
      ([kind, first, said, styled]) => {
        const source = node(kind.kind, { content: first })
        for (const { key, of } of fillable(kind)) {
          const value = (of === 'look' ? styled : said)[key]
          const field = of ? { key, of } : { key }
          if (value === undefined || !canHave(source, field.of ?? 'content', field.key, value, registry))
            continue
          const part = document('card', {
            card: node('shared-blocks', {
              content: { fields: [{ id: 'f', name: 'F', node: 'x', ...field }] as unknown as Json },
              slots: { blocks: ['x'] },
            }),
            x: source,
          })
          const page = pageWith({ f: value })
          const expanded = getNode(shown(page, { card: part }), 'i0/x')
          const where = of ?? 'content'
          expect(expanded[where]).toEqual({ ...source[where], [key]: value })
          expect(filledIn(source, { [where]: { [key]: value } }, registry)).toEqual(expanded)
          checked.add(where)
          const copied = withCopies(page, 'card', part, registry, countingIds('c'))
          const [copy] = getNode(copied, 'one').slots.blocks!
          expect(getNode(copied, copy!)[where]).toEqual(expanded[where])
        }
      },
    ),
    { numRuns: 200 },
  )
  expect([...checked].sort()).toEqual(['content', 'look'])
})

describe('a session with a component', () => {
  const header = document('top', { top: node('site-header', { content: { brand: 'T' } }) })
  const footer = document('bottom', { bottom: node('site-footer') })
  const session = (): Page =>
    joinSession({ page: pageWith(undefined, undefined), header, footer, parts: { card } }, countingIds('j'))

  test('a field is found from the instance and from what is shown, and reset gives the component’s own', () => {
    const before = session()
    expect(instanceFields(before, 'i0', together).map(({ field, value }) => [field.name, value])).toEqual([
      ['Heading', 'An open night'],
      ['Text', [{ type: 'paragraph', runs: [{ text: 'Come up' }] }]],
      ['Button', 'Ask'],
      ['Button: link', { href: 'https://example.org/' }],
    ])
    expect(fieldAt(before, 'i0', { node: 'title', key: 'text' }, together)?.name).toBe('Heading')
    expect(fieldAt(before, 'i0', { node: 'title', key: 'level' }, together)).toBeUndefined()
    const at = ['values', fieldIds.Heading!] as const
    const set = applyEdit(before, { edit: 'set', nodeId: 'i0', at, value: 'Saturn' }, together)
    if (!set.ok) throw new Error(set.message)
    expect(componentField(set.page, 'i0', fieldIds.Heading!, together)).toMatchObject({
      own: 'Saturn',
      value: 'Saturn',
    })
    const reset = applyEdit(set.page, { edit: 'set', nodeId: 'i0', at }, together)
    expect(reset.ok && getNode(reset.page, 'i0')).toEqual(getNode(before, 'i0'))
    const undone = applyEdit(set.page, set.inverse, together)
    expect(undone.ok && getNode(undone.page, 'i0')).toEqual(getNode(before, 'i0'))
  })

  test('a letter in a field changes what that instance shows, and no other; one in the component, all that say nothing', () => {
    const expander = new Expander(together)
    const first = session()
    const before = expander.update(first)
    const at = ['values', fieldIds.Heading!] as const
    const one = applyEdit(first, { edit: 'set', nodeId: 'i0', at, value: 'Saturn' }, together)
    if (!one.ok) throw new Error(one.message)
    const now = expander.update(one.page)
    expect([now.nodes['i0/title']!.content.text, now.nodes['i1/title']]).toEqual([
      'Saturn',
      before.nodes['i1/title'],
    ])
    const all = applyEdit(
      one.page,
      { edit: 'set', nodeId: 'title', at: ['content', 'text'], value: 'A night' },
      together,
    )
    if (!all.ok) throw new Error(all.message)
    const last = expander.update(all.page)
    expect([last.nodes['i0/title']!.content.text, last.nodes['i1/title']!.content.text]).toEqual([
      'Saturn',
      'A night',
    ])
    expect(new Expander(together).update(all.page).nodes['i0/title']).toEqual(last.nodes['i0/title'])
  })

  test('the instance that is worked in shows what the component says, the others what they fill in', () => {
    const expander = new Expander(together)
    const at = ['values', fieldIds.Heading!] as const
    const said = applyEdit(session(), { edit: 'set', nodeId: 'i0', at, value: 'Saturn' }, together)
    if (!said.ok) throw new Error(said.message)
    const both = applyEdit(said.page, { edit: 'set', nodeId: 'i1', at, value: 'Mars' }, together)
    if (!both.ok) throw new Error(both.message)
    const headings = (page: Page) => ['i0', 'i1'].map((id) => page.nodes[`${id}/title`]!.content.text)
    expect(headings(expander.update(both.page))).toEqual(['Saturn', 'Mars'])
    expect(headings(expander.update(both.page, 'i0'))).toEqual(['An open night', 'Mars'])
    expect(headings(expander.update(both.page, 'i1'))).toEqual(['Saturn', 'An open night'])
    expect(headings(expander.update(both.page))).toEqual(['Saturn', 'Mars'])
  })

  test('a field that is taken away sets its values aside, and they are there again when it comes back', () => {
    const before = session()
    const set = (value: Json) => ({ edit: 'set', nodeId: 'card', at: ['content', 'fields'], value }) as const
    const at = ['values', fieldIds.Heading!] as const
    const said = applyEdit(before, { edit: 'set', nodeId: 'i0', at, value: 'Saturn' }, together)
    if (!said.ok) throw new Error(said.message)
    const without = applyEdit(said.page, set([]), together)
    if (!without.ok) throw new Error(without.message)
    expect(new Expander(together).update(without.page).nodes['i0/title']!.content.text).toBe('An open night')
    const back = applyEdits(without.page, without.inverse ? [without.inverse] : [], together)
    expect(back.ok && new Expander(together).update(back.page).nodes['i0/title']!.content.text).toBe('Saturn')
  })

  test('two people who fill in different fields both have theirs; one field is asked about', () => {
    const base = session()
    const filled = (field: string, value: string): Page => {
      const at = ['values', fieldIds[field]!] as const
      const applied = applyEdit(base, { edit: 'set', nodeId: 'i0', at, value }, together)
      if (!applied.ok) throw new Error(applied.message)
      return applied.page
    }
    const both = mergePages(
      { base, ours: filled('Heading', 'Saturn'), theirs: filled('Button', 'Book') },
      together,
    )
    expect(both.conflicts).toEqual([])
    expect(getNode(both.page, 'i0').values).toEqual({
      [fieldIds.Heading!]: 'Saturn',
      [fieldIds.Button!]: 'Book',
    })
    const one = mergePages(
      { base, ours: filled('Heading', 'Saturn'), theirs: filled('Heading', 'Mars') },
      together,
    )
    expect(one.conflicts).toHaveLength(1)
  })

  test('its fields go on pointing at its blocks where those get other ids', () => {
    const taken = document('home', {
      ...pageWith().nodes,
      title: node('heading', { content: { text: 'Mine', level: 2 } }),
    })
    const page = {
      ...taken,
      nodes: { ...taken.nodes, one: node('section', { slots: { blocks: ['title'] } }) },
    }
    const joined = joinPart(
      joinSession({ page, header, footer }, countingIds('j')),
      'card',
      card,
      countingIds('n'),
    )
    const fields = fieldsOf(getNode(joined, 'card'))
    expect(fields.map((field) => getNode(joined, field.node).kind)).toEqual([
      'heading',
      'text',
      'button',
      'button',
    ])
    expect(validatePage(partOf(joined, 'card'), registry, 'shared-blocks')).toEqual([])
  })

  test('an own copy says what the instance said', () => {
    const at = ['values', fieldIds.Heading!] as const
    const said = applyEdit(session(), { edit: 'set', nodeId: 'i0', at, value: 'Saturn' }, together)
    if (!said.ok) throw new Error(said.message)
    const { edits, copies } = ownCopyEdits(said.page, 'i0', together, countingIds('o'))
    const applied = applyEdits(said.page, edits, together)
    if (!applied.ok) throw new Error(applied.message)
    const [box] = copies
    const [title] = getNode(applied.page, box!).slots.blocks!
    expect(getNode(applied.page, title!).content.text).toBe('Saturn')
  })

  test('another component in its place says what was filled in, in the fields of the same names', () => {
    const other = withFieldsForAll(
      document('other', {
        other: node('shared-blocks', { slots: { blocks: ['name', 'seen'] } }),
        name: node('heading', { content: { text: 'A talk', level: 2 } }),
        seen: node('picture', { content: { media: { id: 'pica' }, alt: 'Something' } }),
      }),
      registry,
      countingIds('g'),
    )
    const joined = joinPart(session(), 'other', other, countingIds('x'))
    const fill = (field: string, value: Json) =>
      ({ edit: 'set', nodeId: 'i0', at: ['values', fieldIds[field]!], value }) as const
    const said = applyEdits(joined, [fill('Heading', 'Saturn'), fill('Button', 'Book')], together)
    if (!said.ok) throw new Error(said.message)
    const replaced = applyEdits(
      said.page,
      otherPartEdits(said.page, 'i0', 'other', together, countingIds('o')),
      together,
    )
    if (!replaced.ok) throw new Error(replaced.message)
    const own = instanceFields(replaced.page, 'i0', together).map(({ field, own: value }) => [
      field.name,
      value,
    ])
    expect(own).toEqual([
      ['Heading', 'Saturn'],
      ['Picture', undefined],
      ['Picture: alternative text', undefined],
    ])
    const back = applyEdits(
      replaced.page,
      otherPartEdits(replaced.page, 'i0', 'card', together, countingIds('q')),
      together,
    )
    expect(back.ok && componentField(back.page, 'i0', fieldIds.Button!, together)?.own).toBe('Book')
  })
})
