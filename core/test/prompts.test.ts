/** What is asked for where words are missing: shown on the canvas, listed, gone with the first letter, never published. */
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import { newNode } from '../src/blocks/define-block.ts'
import { fieldsOfWords, openPrompts } from '../src/blocks/prompts.ts'
import { leftOut } from '../src/resolve/left-out.ts'
import { getKind } from '../src/blocks/registry.ts'
import { shownIds } from '../src/resolve/shown.ts'
import { createStarters } from '../src/blocks/starters.ts'
import { validatePage } from '../src/blocks/validate-page.ts'
import { runChecks } from '../src/checks/run-checks.ts'
import { getNode, type Page, type PageNode } from '../src/page/page.ts'
import { renderPage } from '../src/render/render-page.ts'
import { TEMPLATES } from '../src/site/templates.ts'
import { answered } from './arbitraries/answered.ts'
import { anyPage } from './arbitraries/page.ts'
import { testSite } from './arbitraries/site.ts'

const site = {
  title: 'A page',
  description: 'What it is',
  look: testSite().look,
  pages: {},
  pictures: {},
  files: {},
}
const render = (page: Page, purpose: 'publish' | 'canvas') =>
  renderPage({ page, title: 'A page', description: '' }, registry, testSite(purpose), 'inline').html

function counter() {
  let n = 0
  return () => `n${n++}`
}

/** A page with one thing from the shelf and a main heading. */
function placed(starter: ReturnType<typeof createStarters>[number]): Page {
  const newId = counter()
  const { rootId, nodes } = starter.build(newId)
  const isSection = getKind(registry, starter.kind).group === 'section'
  const heading = newNode(getKind(registry, 'heading'), { content: { text: 'A page', level: 1 } })
  const section = (blocks: string[]) => newNode(getKind(registry, 'section'), { slots: { blocks } })
  return {
    format: 4,
    root: 'root',
    nodes: {
      ...nodes,
      root: newNode(getKind(registry, 'page'), {
        slots: { sections: isSection ? ['sec', rootId] : ['sec'] },
      }),
      sec: section(isSection ? ['head'] : ['head', rootId]),
      head: heading,
    },
  }
}

const READY: readonly (readonly [name: string, page: Page])[] = [
  ...createStarters(registry).map((one) => [`“${one.title}” from the shelf`, placed(one)] as const),
  ...TEMPLATES.map((one) => {
    const page = one.build(registry, counter(), { title: 'A page', date: '2026-11-27' })
    return [`the template “${one.title}”`, page] as const
  }),
]

function promptsOf(page: Page, but: ReadonlySet<string> = new Set()): string[] {
  return shownIds(page, page.root, registry).flatMap((id) => {
    if (but.has(id)) return []
    const node = getNode(page, id)
    return openPrompts(getKind(registry, node.kind), node).map(({ prompt }) => prompt)
  })
}

describe.each(READY)('%s', (_name, page) => {
  test('is valid, and nothing of it keeps the page from going live', () => {
    expect(validatePage(page, registry)).toEqual([])
    expect(runChecks(page, site, registry).filter(({ severity }) => severity === 'error')).toEqual([])
  })

  test('shows every prompt on the canvas, and lists it', () => {
    const canvas = render(page, 'canvas')
    const told = runChecks(page, site, registry).map(({ message }) => message)
    for (const prompt of promptsOf(page)) {
      expect(canvas).toContain(`data-prompt="${prompt}"`)
      expect(told).toContainEqual(
        expect.stringMatching(
          `^The placeholders? .*“${prompt.replace(/[.?]/g, '\\$&')}”.* will not be published$`,
        ),
      )
    }
  })

  test('publishes none of them, and no heading, link or button without words', () => {
    const html = render(page, 'publish')
    for (const prompt of promptsOf(page)) expect(html).not.toContain(`>${prompt}<`)
    expect(html).not.toContain('data-prompt')
    expect(html).not.toMatch(
      /<(h[1-6]|a|li|summary|figcaption|blockquote)\b[^>]*>(<\/?(span|p)\b[^>]*>)*<\/\1>/,
    )
  })
})

test('prompts there are: a whole page of each template asks for something, but the blank one', () => {
  const silent = TEMPLATES.filter(
    ({ build }) => promptsOf(build(registry, counter(), { title: 'T', date: '2026-11-27' })).length === 0,
  )
  expect(silent.map(({ id }) => id)).toEqual(['blank'])
})

test('a page whose prompts are all answered asks for nothing, and every answer is published where it is not of a missing picture', () => {
  for (const [name, page] of READY) {
    const written = answered(page)
    expect(promptsOf(written)).toEqual([])
    const html = render(written, 'publish')
    const silent = leftOut(written, written.root, registry)
    expect([...silent].map((id) => written.nodes[id]!.kind)).toEqual(
      expect.not.arrayContaining(['heading', 'text', 'button', 'card', 'feature', 'quote', 'list', 'voice']),
    )
    const asked = promptsOf(page, silent).length
    expect([name, html.split('Answer').length - 1 >= asked]).toEqual([name, true])
  }
})

test('nothing that is asked for on any page is published', () => {
  fc.assert(
    fc.property(anyPage, (page) => {
      const nodes = Object.fromEntries(
        Object.entries(page.nodes).map(([id, node]): [string, PageNode] => {
          const fields = fieldsOfWords(getKind(registry, node.kind))
          return [
            id,
            { ...node, prompts: Object.fromEntries(fields.map((field) => [field, 'zq-asked-for'])) },
          ]
        }),
      )
      const asking = { ...page, nodes }
      expect(validatePage(asking, registry)).toEqual([])
      expect(render(asking, 'publish')).not.toContain('zq-asked-for')
    }),
    { numRuns: 200 },
  )
})

test.each([
  ['a field that the kind does not have', { constructor: 'x' }, '/nodes/head/prompts/constructor'],
  ['no words', { text: ' ' }, '/nodes/head/prompts/text'],
  ['two lines', { text: 'a\nb' }, '/nodes/head/prompts/text'],
  ['a novel', { text: 'a'.repeat(201) }, '/nodes/head/prompts/text'],
  ['a number', { text: 3 }, '/nodes/head/prompts/text'],
  ['a list', ['x'], '/nodes/head/prompts'],
])('%s is refused as a prompt', (_what, prompts, pointer) => {
  const page = placed(createStarters(registry)[0]!)
  const spoiled = { ...page, nodes: { ...page.nodes, head: { ...page.nodes.head, prompts } } }
  expect(validatePage(spoiled, registry).map((problem) => problem.pointer)).toContain(pointer)
})
