/** Acts that make one block of another: what they say is kept, whatever the page. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { timesOf } from '../../scripts/lib/soak.mjs'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { pageWords } from '../src/resolve/page-words.ts'
import { getKind } from '../src/blocks/registry.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import type { Edit } from '../src/edits/edit-shapes.ts'
import { lockRefusal } from '../src/edits/lock.ts'
import { applyEdits } from '../src/edits/transaction.ts'
import { besideEdits } from '../src/edits/beside.ts'
import { copyLookEdits } from '../src/edits/copy-look.ts'
import { joinBackEdits, startParagraphEdits } from '../src/edits/text-flow.ts'
import { markedParagraphEdits, paragraphIntoEdits, toTextEdits } from '../src/edits/turn-into.ts'
import type { Json } from '../src/page/json.ts'
import { getNode, type Page, type PageNode } from '../src/page/page.ts'
import { paragraphs, type RichText } from '../src/page/rich-text.ts'
import { ancestry, isWithin, subtreeIds } from '../src/page/walk.ts'
import { Counts } from './arbitraries/counts.ts'
import { anyPage, countingIds, editFor } from './arbitraries/page.ts'

const RUNS = { numRuns: timesOf(600, 20000) }

function applied(page: Page, edits: readonly Edit[]): Page {
  const result = applyEdits(page, edits, registry)
  if (!result.ok) throw new Error(result.message)
  expect(validatePage(result.page, registry)).toEqual([])
  return result.page
}
function pageOf(...blocks: readonly (readonly [kind: string, content: PageNode['content']])[]): Page {
  const nodes: Record<string, PageNode> = {}
  blocks.forEach(([kind, content], i) => (nodes[`b${i}`] = newNode(getKind(registry, kind), { content })))
  nodes.sec = newNode(getKind(registry, 'section'), { slots: { blocks: Object.keys(nodes) } })
  nodes.root = newNode(getKind(registry, 'page'), { slots: { sections: ['sec'] } })
  return { format: 4, root: 'root', nodes }
}
const text = (...words: string[]) => ['text', { words: paragraphs(...words) as unknown as Json }] as const
const heading = (words: string, level = 2) => ['heading', { text: words, level }] as const
const kinds = (page: Page) => getNode(page, 'sec').slots.blocks!.map((id) => getNode(page, id).kind)

describe('a paragraph becomes a heading', () => {
  test.each([
    [0, ['heading', 'text']],
    [1, ['text', 'heading', 'text']],
    [2, ['text', 'heading']],
  ])('the one at %p, and what is around it stays text in its order', (at, expected) => {
    const page = pageOf(text('One', 'Two', 'Three'))
    const next = applied(
      page,
      paragraphIntoEdits('heading', page, 'b0', at, registry, countingIds('n'))!.edits,
    )
    expect(kinds(next)).toEqual(expected)
    expect(pageWords(next, registry)).toEqual(['One', 'Two', 'Three'])
  })
  test('of the level of the heading before it, and back', () => {
    const page = pageOf(heading('Before', 3), text('Alone'))
    const { edits, madeId } = paragraphIntoEdits('heading', page, 'b1', 0, registry, countingIds('n'))!
    const next = applied(page, edits)
    expect(getNode(next, madeId).content).toEqual({ text: 'Alone', level: 3 })
    const back = applied(next, toTextEdits(next, madeId, registry, countingIds('m'))!.edits)
    expect(kinds(back)).toEqual(['heading', 'text'])
    expect(pageWords(back, registry)).toEqual(['Before', 'Alone'])
  })
  test('not of nothing, of a list or of a paragraph that is not there', () => {
    const page = pageOf(text('', 'x'), heading('h'))
    for (const [id, at] of [
      ['b0', 0],
      ['b0', 7],
      ['b1', 0],
    ] as const)
      expect(paragraphIntoEdits('heading', page, id, at, registry, countingIds('n'))).toBeUndefined()
  })
})

describe('a paragraph becomes a quote', () => {
  const said: RichText = [
    { type: 'paragraph', runs: [{ text: 'Before' }] },
    {
      type: 'paragraph',
      runs: [{ text: 'We stayed ' }, { text: 'for the tea', marks: ['italic'], link: { page: 'visit' } }],
    },
    { type: 'list', ordered: false, items: [{ runs: [{ text: 'After' }] }] },
  ]
  test('with its marks and links, and what is around it stays text', () => {
    const page = pageOf(['text', { words: said as unknown as Json }])
    const { edits, madeId } = paragraphIntoEdits('quote', page, 'b0', 1, registry, countingIds('n'))!
    const next = applied(page, edits)
    expect(kinds(next)).toEqual(['text', 'quote', 'text'])
    expect(getNode(next, madeId).content.words).toEqual([said[1]])
    expect(pageWords(next, registry)).toEqual(pageWords(page, registry))
  })
  test('and back, with who said it in a paragraph after it', () => {
    const content = { words: [said[1]] as unknown as Json, who: 'Orla', source: 'the visitors’ book' }
    const page = pageOf(['quote', content])
    const { edits, madeId } = toTextEdits(page, 'b0', registry, countingIds('n'))!
    expect(getNode(applied(page, edits), madeId).content.words).toEqual([
      said[1],
      { type: 'paragraph', runs: [{ text: 'Orla, the visitors’ book' }] },
    ])
  })
  test('not of a list, of nothing, or of what has no words', () => {
    const page = pageOf(['text', { words: said as unknown as Json }], text(' '), ['picture', {}])
    const turn = (id: string, at: number) =>
      paragraphIntoEdits('quote', page, id, at, registry, countingIds('n'))
    expect([turn('b0', 2), turn('b0', 9), turn('b1', 0), turn('b2', 0)]).toEqual(Array(4).fill(undefined))
    expect(toTextEdits(page, 'b2', registry, countingIds('n'))).toBeUndefined()
  })
})

describe('Enter and Backspace across blocks', () => {
  test('start an empty paragraph after a heading, and join it back', () => {
    const page = pageOf(heading('Head'), text('Body'))
    const started = startParagraphEdits(page, 'b0', registry, countingIds('n'))!
    const next = applied(page, started.edits)
    expect(kinds(next)).toEqual(['heading', 'text', 'text'])
    const joined = joinBackEdits(next, started.textId, registry)!
    expect(joined.intoId).toBe('b0')
    const back = applied(next, joined.edits)
    expect(pageWords(back, registry)).toEqual(['Head', 'Body'])
  })
  test('a text goes on in the last paragraph of the text before it', () => {
    const page = pageOf(text('One', 'Two'), text('Three', 'Four'))
    expect(pageWords(applied(page, joinBackEdits(page, 'b1', registry)!.edits), registry)).toEqual([
      'One',
      'TwoThree',
      'Four',
    ])
  })
  test('nothing is joined to what is no text, and the first block to nothing', () => {
    const page = pageOf(text('One'), ['picture', {}], text('Two'))
    expect(joinBackEdits(page, 'b0', registry)).toBeUndefined()
    expect(joinBackEdits(page, 'b2', registry)).toBeUndefined()
  })
})

test('a look is copied as far as the other kind has it: words and places stay, and again changes nothing', () => {
  const pair = anyPage.chain((page) =>
    fc.record({
      page: fc.constant(page),
      from: fc.constantFrom(...Object.keys(page.nodes)),
      to: fc.constantFrom(...Object.keys(page.nodes)),
    }),
  )
  fc.assert(
    fc.property(pair, ({ page, from, to }) => {
      const source = getNode(page, from)
      const next = applied(page, copyLookEdits(page, source, to, registry))
      expect(getNode(next, to).content).toEqual(getNode(page, to).content)
      expect(subtreeIds(next, next.root)).toEqual(subtreeIds(page, page.root))
      expect(copyLookEdits(next, source, to, registry)).toEqual([])
      if (source.kind === getNode(page, to).kind) expect(getNode(next, to).look).toEqual(source.look)
    }),
    RUNS,
  )
})

test('beside: both stand in columns next to each other, in the order of the side, and no block is lost', () => {
  const three = anyPage.chain((page) =>
    fc.record({
      page: fc.constant(page),
      other: fc.constantFrom(...Object.keys(page.nodes)),
      moved: fc.constantFrom(...Object.keys(page.nodes)),
      side: fc.constantFrom('before' as const, 'after' as const),
    }),
  )
  let done = 0
  fc.assert(
    fc.property(three, ({ page, other, moved, side }) => {
      if (isWithin(page, other, moved) || isWithin(page, moved, other)) return
      const edits = besideEdits(page, other, side, { moveId: moved }, registry, countingIds('new'))
      if (!edits) return
      const result = applyEdits(page, edits, registry)
      // A slot may hold no more, such as the sixth column.
      if (!result.ok) return expect(result.code).toBe('slot-refuses')
      done++
      const next = result.page
      expect(validatePage(next, registry)).toEqual([])
      const before = Object.keys(page.nodes).sort()
      expect(
        Object.keys(next.nodes)
          .filter((id) => !id.startsWith('new'))
          .sort(),
      ).toEqual(before)
      const [one, two] = [ancestry(next, other), ancestry(next, moved)]
      expect(one[2]).toBe(two[2])
      expect(getNode(next, one[2]!).kind).toBe('columns')
      const columns = getNode(next, one[2]!).slots.columns!
      expect(columns.indexOf(two[1]!) - columns.indexOf(one[1]!)).toBe(side === 'after' ? 1 : -1)
    }),
    RUNS,
  )
  expect(done).toBeGreaterThan(50)
})

describe('a locked block', () => {
  const holding = (lock: PageNode['lock']): Page => {
    const page = pageOf(heading('Head'), text('Body'))
    const b0 = getNode(page, 'b0')
    return { ...page, nodes: { ...page.nodes, b0: lock ? { ...b0, lock } : b0 } }
  }
  const set = (part: 'content' | 'look', key: string): Edit => ({
    edit: 'set',
    nodeId: 'b0',
    at: [part, key],
    value: 'x',
  })
  const move: Edit = { edit: 'move', nodeId: 'b0', toParentId: 'sec', toSlot: 'blocks', toIndex: 1 }
  test('is changed by nobody, or in its words alone', () => {
    for (const edit of [
      set('content', 'text'),
      set('look', 'x'),
      move,
      { edit: 'remove', nodeId: 'b0' } as const,
    ]) {
      const isWords = edit.edit === 'set' && edit.at[0] === 'content'
      expect(lockRefusal(holding('all'), edit, registry)).toMatch(
        /^Heading “Head” is locked: it can’t be changed/,
      )
      if (isWords) expect(lockRefusal(holding('text'), edit, registry)).toBeUndefined()
      else expect(lockRefusal(holding('text'), edit, registry)).toMatch(/only its text/)
      expect(lockRefusal(holding(undefined), edit, registry)).toBeUndefined()
    }
  })
  test('can always be let go, and holds what is in it', () => {
    const page = holding(undefined)
    const all = { ...page, nodes: { ...page.nodes, sec: { ...getNode(page, 'sec'), lock: 'all' as const } } }
    expect(lockRefusal(all, { edit: 'set', nodeId: 'sec', at: ['lock'] }, registry)).toBeUndefined()
    expect(lockRefusal(all, set('content', 'text'), registry)).toMatch(/is locked/)
  })
  test('is not taken away with what it stands in', () => {
    const remove: Edit = { edit: 'remove', nodeId: 'sec' }
    for (const lock of ['all', 'text'] as const)
      expect(lockRefusal(holding(lock), remove, registry)).toMatch(/^Heading “Head” is locked/)
    expect(lockRefusal(holding(undefined), remove, registry)).toBeUndefined()
  })
  /** The page with one node locked, and no other: of a page where most is locked, nearly every edit is refused. */
  const holdingAlone = (page: Page, lock: string): Page => {
    const nodes = Object.entries(page.nodes).map(([id, { lock: _lock, ...node }]) => [
      id,
      id === lock ? { ...node, lock: 'all' as const } : node,
    ])
    return { ...page, nodes: Object.fromEntries(nodes) as Page['nodes'] }
  }
  test('no edit that is let through changes a node that is locked entirely', () => {
    const tried = anyPage
      .chain((page) => fc.constantFrom(...Object.keys(page.nodes)).map((id) => holdingAlone(page, id)))
      .chain((page) => editFor(page).map((edit) => ({ page, edit })))
    const counts = new Counts()
    fc.assert(
      fc.property(tried, ({ page, edit }) => {
        if (lockRefusal(page, edit, registry) !== undefined) return counts.skip()
        const result = applyEdits(page, [edit], registry)
        if (!result.ok || (edit.edit === 'set' && edit.at[0] === 'lock')) return counts.skip()
        counts.look()
        for (const [id, node] of Object.entries(page.nodes))
          if (node.lock === 'all') expect(result.page.nodes[id]).toBe(node)
      }),
      RUNS,
    )
    counts.expectLooked(0.12)
  })
})

describe('a paragraph that holds a mark alone', () => {
  const turned = (text: string) => {
    const page = pageOf(['text', { words: paragraphs(`Before\n\n${text}`) as unknown as Json }])
    const words = [...paragraphs('Before'), { type: 'paragraph', runs: [{ text }] }]
    const node = { ...page.nodes.b0!, content: { words: words as unknown as Json } }
    const marked = { ...page, nodes: { ...page.nodes, b0: node } }
    const made = markedParagraphEdits(marked, 'b0', 1, registry, countingIds())
    return made && getNode(applied(marked, made.edits), made.madeId)
  }

  test.each([
    ['# ', 'heading', 1],
    ['## ', 'heading', 2],
    ['###### ', 'heading', 6],
    ['> ', 'quote', undefined],
  ])('"%s" makes an empty %s of it', (text, kind, level) => {
    expect(turned(text)).toMatchObject({ kind, content: level === undefined ? {} : { level, text: '' } })
  })

  test.each(['##', '####### ', '##  ', '# a', ' # ', '>> '])('"%s" stays text', (text) => {
    expect(turned(text)).toBeUndefined()
  })
})
