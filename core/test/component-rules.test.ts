/** Components: their variants, and the rules of their fields. */
import { describe, expect, test } from '@jest/globals'
import { fieldsOf, type ComponentField } from '../src/blocks/component-fields.ts'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { applyEdit } from '../src/edits/edit.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { carriedSurfaces, inLook } from '../src/exchange/carry-look.ts'
import { referencesOf, withRenamed } from '../src/exchange/references.ts'
import type { Json } from '../src/page/json.ts'
import { getNode, type NodeId, type Page } from '../src/page/page.ts'
import { documentUses } from '../src/render/document-uses.ts'
import { Expander } from '../src/resolve/expand.ts'
import { textOf } from '../src/resolve/page-text.ts'
import { instanceFindings } from '../src/reuse/component-rules.ts'
import { otherPartEdits } from '../src/reuse/other-part.ts'
import { ownCopyEdits } from '../src/reuse/own-copies.ts'
import { joinPart, joinSession } from '../src/site/session-page.ts'
import { countingIds } from './arbitraries/page.ts'
import { testLook } from './arbitraries/site.ts'
import { card, document, fieldIds, node, pageWith, shown, together } from './fixtures/event-card.ts'

describe('variants', () => {
  const root = getNode(card, 'card')
  const heading = fieldIds.Heading!
  const button = fieldIds.Button!
  const variants = [{ id: 'va', name: 'Night', values: { [heading]: 'By night', [button]: 'Book a night' } }]
  const withVariants: Page = {
    ...card,
    nodes: { ...card.nodes, card: { ...root, content: { ...root.content, variants } } },
  }
  const of = (page: Page, id: string, variant: string): Page => {
    const instance = getNode(page, id)
    const content = { ...instance.content, variant }
    return { ...page, nodes: { ...page.nodes, [id]: { ...instance, content } } }
  }
  const words = (page: Page): string[] => textOf(shown(page, { card: withVariants }), registry).split('\n')

  test('say something where an instance of theirs says nothing itself', () => {
    const page = of(pageWith({ [heading]: 'Saturn' }, undefined), 'i0', 'va')
    expect(validatePage(withVariants, registry, 'shared-blocks')).toEqual([])
    expect(validatePage(page, registry)).toEqual([])
    expect(words(page)).toEqual(['Saturn', 'Come up', 'Book a night', 'An open night', 'Come up', 'Ask'])
  })

  test('that are not there any more say nothing, and nothing is lost', () => {
    const page = of(pageWith({ [heading]: 'Saturn' }), 'i0', 'vb')
    expect(words(page)).toEqual(['Saturn', 'Come up', 'Ask'])
    expect(getNode(page, 'i0').values).toEqual({ [heading]: 'Saturn' })
  })

  test('are followed while one edits, as they are from nothing; an own copy and another part say what they said', () => {
    const header = document('top', { top: node('site-header', { content: { brand: 'T' } }) })
    const footer = document('bottom', { bottom: node('site-footer') })
    const ids = countingIds('j')
    const first = joinSession(
      { page: pageWith(undefined, undefined), header, footer, parts: { card: withVariants } },
      ids,
    )
    const expander = new Expander(together)
    expander.update(first)
    const set = (page: Page, nodeId: string, key: string, value?: Json): Page => {
      const at = ['content', key] as const
      const edit = { edit: 'set', nodeId, at, ...(value === undefined ? {} : { value }) } as const
      const applied = applyEdit(page, edit, together)
      if (!applied.ok) throw new Error(applied.message)
      return applied.page
    }
    const chosen = set(first, 'i1', 'variant', 'va')
    expect(expander.update(chosen)).toEqual(new Expander(together).update(chosen))
    expect(expander.update(chosen).nodes['i1/title']!.content.text).toBe('By night')
    const renamed = variants.map((one) => ({ ...one, values: { [heading]: 'At night' } }))
    const changed = set(chosen, 'card', 'variants', renamed)
    expect(expander.update(changed)).toEqual(new Expander(together).update(changed))
    expect(expander.update(changed).nodes['i1/title']!.content.text).toBe('At night')
    const { edits } = ownCopyEdits(chosen, 'i1', together, countingIds('o'))
    const loose = applyEdits(chosen, edits, together)
    if (!loose.ok) throw new Error(loose.message)
    expect(textOf(new Expander(together).update(loose.page), registry)).toContain('By night')
    const joined = joinPart(chosen, 'other', withRootIdOf(card, 'other'), countingIds('x'))
    const replaced = applyEdits(
      joined,
      otherPartEdits(joined, 'i1', 'other', together, countingIds('o')),
      together,
    )
    if (!replaced.ok) throw new Error(replaced.message)
    expect(getNode(replaced.page, 'i1').content).toEqual({ part: 'other' })
    expect(Object.values(getNode(replaced.page, 'i1').values ?? {})).toEqual(['By night', 'Book a night'])
  })
})

const withRootIdOf = (page: Page, root: NodeId): Page => {
  const { [page.root]: own, ...nodes } = page.nodes
  return { ...page, root, nodes: { ...nodes, [root]: own! } }
}

describe('rules of fields', () => {
  const root = getNode(card, 'card')
  const ruled = (change: Readonly<Record<string, Partial<ComponentField>>>): Page => {
    const fields = fieldsOf(root).map((field) => ({ ...field, ...change[field.name] }))
    const content = { ...root.content, fields: fields as unknown as Json }
    return { ...card, nodes: { ...card.nodes, card: { ...root, content } } }
  }
  const found = (page: Page, part: Page): string[] =>
    instanceFindings(page, Object.keys(page.nodes), (id) => (id === 'card' ? part : undefined), registry).map(
      ({ rule, severity, nodeId, message }) => `${severity} ${rule} ${nodeId}: ${message}`,
    )

  test('ask for what must be filled in, of each instance that says nothing there itself', () => {
    const part = ruled({ Heading: { required: true }, Text: { required: true } })
    expect(validatePage(part, registry, 'shared-blocks')).toEqual([])
    const empty = [{ type: 'paragraph', runs: [] }]
    const page = pageWith({ [fieldIds.Heading!]: 'Saturn', [fieldIds.Text!]: empty }, undefined)
    expect(found(page, part)).toEqual([
      'error field-required i0: “Text” is not filled in',
      'error field-required i1: “Heading” is not filled in',
      'error field-required i1: “Text” is not filled in',
    ])
    expect(found(page, card)).toEqual([])
  })

  test('tell of what is longer than is good, by what a reader sees', () => {
    const part = ruled({ Heading: { longest: 6 }, Text: { longest: 6 } })
    const text = (words: string) => [{ type: 'paragraph', runs: [{ text: words, marks: ['bold'] }] }]
    const say = (heading: Json, words: string) =>
      pageWith({ [fieldIds.Heading!]: heading, [fieldIds.Text!]: text(words) })
    expect(found(say('Saturn', '123456'), part)).toEqual([])
    expect(found(say('Saturn!', '🌙🌙🌙🌙🌙🌙'), part)).toEqual([
      'warning field-length i0: “Heading” has 7 characters; at most 6 are asked for',
    ])
    expect(found(say('Moon', '1234567'), part)).toHaveLength(1)
  })

  test('are kept to what rules can be', () => {
    for (const wrong of [
      { longest: 0 },
      { longest: 1.5 },
      { required: false },
      { of: 'sizes' },
      { longest: 10_001 },
    ])
      expect(validatePage(ruled({ Heading: wrong as never }), registry, 'shared-blocks')).not.toEqual([])
  })
})

describe('carried to another site, a component', () => {
  /** A picture and a stack, of which the picture and the background are fields; one variant says both. */
  const framed = document('framed', {
    framed: node('shared-blocks', {
      content: {
        fields: [
          { id: 'fp', name: 'Picture', node: 'pic', key: 'media' },
          { id: 'fs', name: 'Background', node: 'box', key: 'surface', of: 'look' },
        ],
        variants: [{ id: 'va', name: 'Night', values: { fp: { id: 'picb' }, fs: 'night' } }],
      },
      slots: { blocks: ['box'] },
    }),
    box: node('stack', { slots: { blocks: ['pic'] } }),
    pic: node('picture', { content: { media: { id: 'pica' } } }),
  })
  const page = document('home', {
    home: node('page', { content: { title: 'T' }, slots: { sections: ['one'] } }),
    one: node('section', { slots: { blocks: ['i'] } }),
    i: { ...node('linked-blocks', { content: { part: 'framed' } }), values: { fs: 'tint' } },
  })

  test('refers to what its variants show, and their ids name nothing', () => {
    expect(validatePage(framed, registry, 'shared-blocks')).toEqual([])
    expect([...referencesOf(framed, registry).picture].sort()).toEqual(['pica', 'picb'])
    const away = withRenamed(framed, registry, (thing, id) => `${thing}0${id}`)
    expect(getNode(away, 'framed').content).toEqual({
      fields: getNode(framed, 'framed').content.fields,
      variants: [{ id: 'va', name: 'Night', values: { fp: { id: 'picture0picb' }, fs: 'night' } }],
    })
    // What only a variant shows is in use, so that nobody deletes it.
    const used = documentUses(framed, registry, testLook).map(({ thing, id }) => `${thing} ${id}`)
    expect(used).toEqual(expect.arrayContaining(['picture pica', 'picture picb']))
  })

  test('is styled there by what the look there has, also in what instances and variants fill in', () => {
    const { plain } = testLook.surfaces
    const there = { ...testLook, surfaces: { paper: plain! }, pageSurface: 'paper' }
    const partOf = (id: string): Page | undefined => (id === 'framed' ? framed : undefined)
    const colours = carriedSurfaces([page, framed], testLook, there, registry, partOf)
    expect(colours.map(({ name, here }) => [name, here])).toEqual([
      ['night', 'paper'],
      ['tint', 'paper'],
    ])
    const surfaces = Object.fromEntries(colours.map(({ name, here }) => [name, here]))
    expect(getNode(inLook(page, there, surfaces, registry, partOf), 'i').values).toEqual({ fs: 'paper' })
    const [variant] = getNode(inLook(framed, there, surfaces, registry, partOf), 'framed').content
      .variants as unknown as readonly [{ readonly values: object }]
    expect(variant.values).toEqual({ fp: { id: 'picb' }, fs: 'paper' })
  })
})
