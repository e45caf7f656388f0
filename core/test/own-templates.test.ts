/** Templates that a site makes of its own pages: what pages made from them may change, and how they take over what changed there. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { runChecks } from '../src/checks/run-checks.ts'
import type { Edit } from '../src/edits/edit-shapes.ts'
import { lockRefusal } from '../src/edits/lock.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { getNode, type Page, type PageNode } from '../src/page/page.ts'
import { withRenamed } from '../src/exchange/references.ts'
import {
  freeOfTemplateEdits,
  pageOfTemplate,
  takeOver,
  templateChanges,
  templateOfPage,
  type TemplateChoices,
} from '../src/reuse/own-templates.ts'
import { settingsOf, withSettings } from '../src/site/page-settings.ts'
import { madeFromOf, templateRules } from '../src/site/template-rules.ts'
import { anyPage, editFor } from './arbitraries/page.ts'
import { testLook } from './arbitraries/site.ts'

const FREE: TemplateChoices = { fixed: {}, asked: [], takes: [], isEmptied: false }
const SAID = { title: 'A new page', date: '2026-11-27' }
const from = (version: number) => ({ template: 'tpl', version })

const make = (kind: string, more: Parameters<typeof newNode>[1] = {}): PageNode =>
  newNode(getKind(registry, kind), more)

/** A page of two sections: a heading with a text, and a list. */
function event(): Page {
  return withSettings(
    {
      format: 4,
      root: 'root',
      nodes: {
        root: make('page', { slots: { sections: ['top', 'more'] } }),
        top: make('section', { slots: { blocks: ['title', 'words'] } }),
        title: make('heading', { content: { text: 'Comet night', level: 1 } }),
        words: make('text', {
          content: { words: [{ type: 'paragraph', runs: [{ text: 'Wrap up warm.' }] }] },
        }),
        more: make('section', { slots: { blocks: ['small'] } }),
        small: make('heading', { content: { text: 'Getting here', level: 2 } }),
      },
    },
    { title: 'Comet night', description: 'One evening', inNavigation: true },
  )
}

function done(page: Page, ...edits: Edit[]): Page {
  const result = applyEdits(page, edits, registry)
  if (!result.ok) throw new Error(result.message)
  return result.page
}

/** A page after a few random edits. */
function wandered(page: Page, seeds: readonly number[]): Page {
  return seeds.reduce((at, seed) => {
    const [edit] = fc.sample(editFor(at), { numRuns: 1, seed })
    const result = applyEdits(at, [edit!], registry)
    return result.ok ? result.page : at
  }, page)
}
const anySeeds = fc.array(fc.integer({ min: 0, max: 2 ** 31 - 1 }), { minLength: 1, maxLength: 6 })

const allKeys = (base: Page, newest: Page) => templateChanges(base, newest, registry).map(({ key }) => key)
const withoutMadeFrom = (page: Page): Page => withRenamed(page, registry, (_thing, id) => id)

describe('a template', () => {
  test('has the blocks of the page and nothing that belongs to that page alone', () => {
    const template = templateOfPage(event(), FREE, registry)
    expect(settingsOf(template)).toEqual(settingsOf({ ...template, nodes: { root: make('page') } }))
    expect(getNode(template, 'words')).toEqual(getNode(event(), 'words'))
    const page = pageOfTemplate(template, from(3), SAID, registry)
    expect(getNode(page, 'title').content.text).toBe('A new page')
    expect(madeFromOf(page)).toEqual({ template: 'tpl', version: 3 })
    expect(validatePage(page, registry)).toEqual([])
  })

  test('can ask for words in the place of those that may be changed, and keeps what is fixed', () => {
    const choices: TemplateChoices = { ...FREE, fixed: { small: 'all' }, isEmptied: true }
    const template = templateOfPage(event(), choices, registry)
    expect(getNode(template, 'words').content.words).not.toEqual(getNode(event(), 'words').content.words)
    expect(getNode(template, 'words').prompts).toEqual({ words: 'Wrap up warm.' })
    expect(getNode(template, 'small').content.text).toBe('Getting here')
    expect(getNode(template, 'small').lock).toBe('all')
  })

  test('of any page is valid, and so is any page made from it', () => {
    fc.assert(
      fc.property(anyPage, fc.boolean(), (page, isEmptied) => {
        const ids = Object.keys(page.nodes).filter((id) => id !== page.root)
        const fixed = Object.fromEntries(
          ids.filter((_id, i) => i % 3 === 0).map((id) => [id, 'text' as const]),
        )
        const template = templateOfPage(page, { ...FREE, fixed, isEmptied }, registry)
        expect(validatePage(template, registry)).toEqual([])
        const made = pageOfTemplate(template, from(1), SAID, registry)
        expect(validatePage(withSettings(made, { title: SAID.title }), registry)).toEqual([])
      }),
      { numRuns: 300 },
    )
  })
})

describe('a page made from a template', () => {
  const choices: TemplateChoices = {
    fixed: { small: 'text', top: 'all' },
    asked: [
      { node: 'root', key: 'description' },
      { node: 'small', key: 'text' },
    ],
    takes: [{ node: 'more', slot: 'blocks', kinds: ['heading', 'list'] }],
    isEmptied: true,
  }
  const page = pageOfTemplate(templateOfPage(event(), choices, registry), from(1), SAID, registry)
  const insert = (kind: string): Edit => ({
    edit: 'insert',
    parentId: 'more',
    slot: 'blocks',
    index: 0,
    rootId: 'new',
    nodes: { new: make(kind) },
  })

  test('keeps what is fixed, in words that say who fixed it', () => {
    expect(lockRefusal(page, { edit: 'set', nodeId: 'small', at: ['lock'] }, registry)).toMatch(
      /fixed by the page’s template: only its text/,
    )
    expect(lockRefusal(page, { edit: 'remove', nodeId: 'top' }, registry)).toMatch(
      /fixed by the page’s template/,
    )
    const words: Edit = { edit: 'set', nodeId: 'small', at: ['content', 'text'], value: 'By bus' }
    expect(lockRefusal(page, words, registry)).toBeUndefined()
  })

  test('takes in a slot only what the template takes there', () => {
    expect(lockRefusal(page, insert('quote'), registry)).toBe(
      'The page’s template takes no quotes here, only headings, lists',
    )
    expect(lockRefusal(page, insert('list'), registry)).toBeUndefined()
    const with2 = done(page, insert('quote'))
    const site = { title: 'A', description: 'B', look: testLook, pages: {}, pictures: {}, files: {} }
    const said = done(with2, {
      edit: 'set',
      nodeId: 'new',
      at: ['content', 'words'],
      value: [{ type: 'paragraph', runs: [{ text: 'Said' }] }],
    })
    expect(runChecks(said, site, registry).map(({ rule }) => rule)).toContain('strange-kind')
  })

  test('does not go live while a field that the template asks for is empty', () => {
    const site = { title: 'A', description: '', look: testLook, pages: {}, pictures: {}, files: {} }
    const missing = (one: Page) =>
      runChecks(one, site, registry).filter(
        ({ rule, severity }) => rule === 'missing-field' && severity === 'error',
      )
    expect(missing(page).map(({ nodeId }) => nodeId)).toEqual(['root', 'small'])
    const filled = done(
      page,
      { edit: 'set', nodeId: 'root', at: ['content', 'description'], value: 'What it is' },
      { edit: 'set', nodeId: 'small', at: ['content', 'text'], value: 'By bus' },
    )
    expect(missing(filled)).toEqual([])
  })

  test('can be made free of it: nothing is fixed or asked for any more, and no block changes', () => {
    const free = done(page, ...freeOfTemplateEdits(page))
    expect(templateRules(free)).toEqual({ fixed: [], asked: [], takes: [] })
    expect(madeFromOf(free)).toBeUndefined()
    expect(lockRefusal(free, { edit: 'remove', nodeId: 'top' }, registry)).toBeUndefined()
    expect(Object.keys(free.nodes)).toEqual(Object.keys(page.nodes))
  })
})

describe('taking over what changed in a template', () => {
  test('section by section: what is left is not taken, and the page’s own words stay', () => {
    const base = templateOfPage(event(), FREE, registry)
    const newest = done(
      base,
      { edit: 'set', nodeId: 'small', at: ['content', 'text'], value: 'How to get here' },
      {
        edit: 'set',
        nodeId: 'words',
        at: ['content', 'words'],
        value: [{ type: 'paragraph', runs: [{ text: 'Bring a torch.' }] }],
      },
    )
    const page = done(pageOfTemplate(base, from(1), SAID, registry), {
      edit: 'set',
      nodeId: 'title',
      at: ['content', 'text'],
      value: 'Our own',
    })
    const changes = templateChanges(base, newest, registry)
    expect(changes.map(({ key }) => key).sort()).toEqual(['more', 'top'])
    const taken = takeOver({ page, base, newest }, { chosen: ['more'], version: 2 }, registry)
    expect(getNode(taken.page, 'small').content.text).toBe('How to get here')
    expect(getNode(taken.page, 'words')).toEqual(getNode(page, 'words'))
    expect(getNode(taken.page, 'title').content.text).toBe('Our own')
    expect(madeFromOf(taken.page)).toEqual({ template: 'tpl', version: 2 })
    expect(taken.conflicts).toEqual([])
  })

  test('what both changed stays as the page has it, and is told', () => {
    const base = templateOfPage(event(), FREE, registry)
    const set = (value: string): Edit => ({ edit: 'set', nodeId: 'small', at: ['content', 'text'], value })
    const newest = done(base, set('Theirs'))
    const page = done(pageOfTemplate(base, from(1), SAID, registry), set('Ours'))
    const taken = takeOver({ page, base, newest }, { chosen: ['more'], version: 2 }, registry)
    expect(getNode(taken.page, 'small').content.text).toBe('Ours')
    expect(taken.conflicts).toHaveLength(1)
  })

  test('all of it, by a page that changed nothing, is the page that would be made now', () => {
    let changed = 0
    fc.assert(
      fc.property(anyPage, anySeeds, (given, seeds) => {
        const base = templateOfPage(given, FREE, registry)
        const newest = wandered(base, seeds)
        if (madeFromOf(newest) !== undefined) return
        const page: Page = withMadeFrom(base, 1)
        const chosen = allKeys(base, newest)
        const taken = takeOver({ page, base, newest }, { chosen, version: 2 }, registry)
        expect(withoutMadeFrom(taken.page)).toEqual(newest)
        changed += chosen.length
      }),
      { numRuns: 300 },
    )
    expect(changed).toBeGreaterThan(200)
  })

  test('any part of it leaves a valid page; none of it leaves the page as it is', () => {
    fc.assert(
      fc.property(
        anyPage,
        anySeeds,
        anySeeds,
        fc.integer({ min: 0, max: 7 }),
        (given, theirs, ours, part) => {
          const base = templateOfPage(given, FREE, registry)
          const newest = wandered(base, theirs)
          const page = withMadeFrom(wandered(base, ours), 1)
          const chosen = allKeys(base, newest).filter((_key, i) => ((part >> i) & 1) === 1)
          const taken = takeOver({ page, base, newest }, { chosen, version: 2 }, registry)
          expect(validatePage(taken.page, registry)).toEqual([])
          const none = takeOver({ page, base, newest }, { chosen: [], version: 2 }, registry)
          expect(withoutMadeFrom(none.page)).toEqual(withoutMadeFrom(page))
        },
      ),
      { numRuns: 300 },
    )
  })
})

function withMadeFrom(page: Page, version: number): Page {
  const root = getNode(page, page.root)
  const content = { ...root.content, madeFrom: { template: 'tpl', version } }
  return { ...page, nodes: { ...page.nodes, [page.root]: { ...root, content } } }
}
