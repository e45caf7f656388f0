import { applyPatches, enablePatches, produceWithPatches, type Draft } from 'immer'
import { createElement, Fragment } from 'react'
import { jsx, jsxs } from 'react/jsx-runtime'
import { renderToStaticMarkup } from 'react-dom/server'
import { toJsxRuntime } from 'hast-util-to-jsx-runtime'
import {
  AlikeFinder,
  applyEdit,
  comparableSections,
  createNodeRenderer,
  createPageRenderer,
  defaultRegistry as registry,
  Expander,
  getKind,
  newNode,
  renderTree,
  sectionShape,
  validatePage,
  withCopies,
  type Edit,
  type JsonObject,
  type Page,
  type PageNode,
  type SiteContext,
  pageTree,
} from '@gullyline/core'
import { demoSite } from '@gullyline/demo'
import { compare, figureOf, type Figure } from '../measure.ts'
import { pageOf } from '../thousand-nodes.ts'

const NODES = 1_000
const page = pageOf(NODES)
const context: SiteContext = {
  site: { name: demoSite.name, language: demoSite.language, home: '/' },
  look: demoSite.look,
  paths: {},
  files: {},
  parts: {},
  navigation: [],
  page: { id: 'bench', title: 'Bench' },
  tree: pageTree([]),
  pictures: {},
  fontBase: '/fonts/',
  purpose: 'publish',
}
const parts = { title: 'A page', description: 'What it is' }
const stylesheet = () => ({ href: '/styles/x.css' })
const headings = Object.keys(page.nodes).filter((id) => page.nodes[id]!.kind === 'heading')

export function coreFigures(): Figure[] {
  return [
    editing(),
    rendering(),
    renderingAgain(),
    loading(),
    rendersLinked(),
    rendersLinkedAgain(),
    findsAlike(),
  ]
}

/** (a): words set, a card moved, a block taken out and put back, each done and undone. */
function editing(): Figure {
  enablePatches()
  let turn = 0
  const id = (): string => headings[(turn = (turn + 7) % headings.length)]!
  const ours = (): void => {
    for (const edit of editsOn(id(), turn)) {
      const applied = applyEdit(page, edit, registry)
      if (!applied.ok) throw new Error(applied.message)
      const undone = applyEdit(applied.page, applied.inverse, registry)
      if (!undone.ok) throw new Error(undone.message)
    }
  }
  const reference = (): void => {
    for (const change of changesOn(id(), turn)) {
      const [next, , inverse] = produceWithPatches(page, change)
      applyPatches(next, inverse)
    }
  }
  return figureOf('a', 1, `Edits on ${NODES} nodes, done and undone, against immer`, compare(ours, reference))
}

function editsOn(id: string, turn: number): Edit[] {
  const section = `s${turn % 50}`
  return [
    { edit: 'set', nodeId: id, at: ['content', 'text'], value: `Words ${turn}` },
    { edit: 'move', nodeId: `${section}c0`, toParentId: `${section}r`, toSlot: 'blocks', toIndex: 2 },
    { edit: 'remove', nodeId: `${section}t` },
  ]
}

function changesOn(id: string, turn: number): ((draft: Draft<Page>) => void)[] {
  const section = `s${turn % 50}`
  return [
    (draft) => {
      ;(draft.nodes[id]!.content as Record<string, unknown>).text = `Words ${turn}`
    },
    (draft) => {
      const row = draft.nodes[`${section}r`]!.slots.blocks as string[]
      row.splice(row.indexOf(`${section}c0`), 1)
      row.splice(2, 0, `${section}c0`)
    },
    (draft) => {
      const blocks = draft.nodes[section]!.slots.blocks as string[]
      blocks.splice(blocks.indexOf(`${section}t`), 1)
      delete (draft.nodes as Record<string, unknown>)[`${section}t`]
    },
  ]
}

/** Makes sure that a string was really put together, and not only promised. */
function settle(html: string): void {
  if (Buffer.byteLength(html) < 10_000) throw new Error('Nothing was rendered')
}

const renderAnew = (): void =>
  settle(createPageRenderer(registry, context)({ ...parts, page }, stylesheet).html)

/** (b): from the document to HTML and stylesheet, against React on elements that are made beforehand. */
function rendering(): Figure {
  const { element } = renderTree(page, createNodeRenderer(registry, context))
  const body = toJsxRuntime(element, { Fragment, jsx, jsxs }) as React.ReactNode
  const document = createElement('html', { lang: 'en' }, createElement('body', undefined, body))
  const reference = (): void => settle(renderToStaticMarkup(document))
  return figureOf(
    'b',
    1,
    `Rendering ${NODES} nodes, against renderToStaticMarkup`,
    compare(renderAnew, reference),
  )
}

/** (c): the same after one edit, against (b). */
function renderingAgain(): Figure {
  const renderer = createPageRenderer(registry, context)
  renderer({ ...parts, page }, stylesheet)
  const pages = [page]
  for (const [i, nodeId] of headings.slice(0, 64).entries()) {
    const edit: Edit = { edit: 'set', nodeId, at: ['content', 'text'], value: `Words ${i}` }
    const applied = applyEdit(pages.at(-1)!, edit, registry)
    if (!applied.ok) throw new Error(applied.message)
    pages.push(applied.page)
  }
  let turn = 0
  let step = 1
  const again = (): void => {
    // To the next edit, and at the end back again, as undo does.
    if (pages[turn + step] === undefined) step = -step
    turn += step
    settle(renderer({ ...parts, page: pages[turn]! }, stylesheet).html)
  }
  return figureOf('c', 0.03, 'Rendering again after an edit, against rendering', compare(again, renderAnew))
}

const node = (kind: string, content: JsonObject, slots: PageNode['slots'] = {}): PageNode =>
  newNode(getKind(registry, kind), { content, slots })

/** A part that says something and shows another one, which it names by its own id and one more letter. */
function partOfNest(id: string, more: readonly string[]): Page {
  const words = { [`${id}h`]: node('heading', { text: `Part ${id}`, level: 3 }) }
  const inside = more.map((part, i) => [`${id}i${i}`, node('linked-blocks', { part })] as const)
  const text = [{ type: 'paragraph', runs: [{ text: 'What it says, in one line of words.' }] }]
  const blocks = Array.from({ length: 2 }, (_, i) => [`${id}t${i}`, node('text', { words: text })] as const)
  const nodes = { ...words, ...Object.fromEntries([...blocks, ...inside]) }
  return {
    format: 4,
    root: id,
    nodes: { ...nodes, [id]: node('shared-blocks', {}, { blocks: Object.keys(nodes) }) },
  }
}

const INSTANCES = 100
const NEST = Object.fromEntries(
  [partOfNest('pa', ['pb']), partOfNest('pb', ['pc']), partOfNest('pc', [])].map((part) => [part.root, part]),
)

/** A page of sections with instances, each of which shows 9 blocks in 3 parts that stand in each other. */
function linkedPage(): Page {
  const ids = Array.from({ length: INSTANCES }, (_, i) => `x${i}`)
  const sections = Array.from({ length: INSTANCES / 10 }, (_, s) => `s${s}`)
  return {
    format: 4,
    root: 'home',
    nodes: {
      home: node('page', { title: 'Linked' }, { sections }),
      ...Object.fromEntries(
        sections.map((id, s) => [id, node('section', {}, { blocks: ids.slice(s * 10, s * 10 + 10) })]),
      ),
      ...Object.fromEntries(ids.map((id) => [id, node('linked-blocks', { part: 'pa' })])),
    },
  }
}

/** (D): a page of 1,000 blocks in 100 instances nested three deep, against the same page with copies of its own. */
function rendersLinked(): Figure {
  const linked = linkedPage()
  let count = 0
  const newId = (): string => `c${count++}`
  const copied = Object.values(NEST).reduce(
    (before, part) => withCopies(before, part.root, part, registry, newId),
    linked,
  )
  // Each time a page that was never seen: what is found out about one is remembered, and the linked one is expanded anew.
  const render = (document: Page, shown: SiteContext['parts']) => (): void => {
    const page = { ...document, nodes: { ...document.nodes } }
    settle(createPageRenderer(registry, { ...context, parts: shown })({ ...parts, page }, stylesheet).html)
  }
  const about = `Resolving and rendering ${INSTANCES} instances nested three deep, against own copies`
  return figureOf('D', 1.2, about, compare(render(linked, NEST), render(copied, {})))
}

/** (E): a letter in a part that 20 instances show, against a letter in each of 20 own copies. */
function rendersLinkedAgain(): Figure {
  const linked = linkedPage()
  const few = linked.nodes.home!.slots.sections!.slice(0, 2)
  const root = {
    ...linked.nodes.home!,
    slots: { ...linked.nodes.home!.slots, sections: few, parts: ['pa', 'pb', 'pc'] },
  }
  const joined = Object.assign(
    {},
    linked.nodes,
    ...Object.values(NEST).map(({ nodes }) => nodes),
  ) as Page['nodes']
  let session: Page = { ...linked, nodes: { ...joined, home: root } }
  let count = 0
  let copied = Object.values(NEST).reduce(
    (before, part) => withCopies(before, part.root, part, registry, () => `c${count++}`),
    {
      ...linked,
      nodes: {
        ...linked.nodes,
        home: { ...linked.nodes.home!, slots: { ...root.slots, sections: few, parts: [] } },
      },
    } as Page,
  )
  const copies = Object.entries(copied.nodes).flatMap(([id, { content }]) =>
    content.text === 'Part pc' ? [id] : [],
  )
  const [linkedOne, copiedOne] = [new Expander(registry), new Expander(registry)]
  let turn = 0
  const typed = (before: Page, ids: readonly string[]): Page =>
    ids.reduce((now, nodeId) => {
      const edit: Edit = { edit: 'set', nodeId, at: ['content', 'text'], value: `Words ${turn}` }
      const applied = applyEdit(now, edit, registry)
      if (!applied.ok) throw new Error(applied.message)
      return applied.page
    }, before)
  const ours = (): void => {
    turn++
    session = typed(session, ['pch'])
    linkedOne.update(session)
  }
  const reference = (): void => {
    turn++
    copied = typed(copied, copies)
    copiedOne.update(copied)
  }
  const about = `A letter in a part that stands ${copies.length} times, against one in each of as many own copies`
  return figureOf('E', 1, about, compare(ours, reference))
}

/** (g): reading and validating, against reading. */
function loading(): Figure {
  const json = JSON.stringify(page)
  const ours = (): void => {
    if (validatePage(JSON.parse(json), registry).length > 0) throw new Error('The page is not valid')
  }
  const reference = (): void => void JSON.parse(json)
  return figureOf(
    'g',
    5,
    `Loading and validating ${NODES} nodes, against JSON.parse`,
    compare(ours, reference),
  )
}

const SECTIONS = 2_000

/** (F): finding what is nearly alike among 2,000 sections, against writing them as JSON once. */
function findsAlike(): Figure {
  const nodes: Record<string, PageNode> = {}
  const sections = Array.from({ length: SECTIONS }, (_, i) => {
    const blocks = Array.from({ length: 4 + (i % 5) }, (_one, n) => `s${i}b${n}`)
    blocks.forEach((id, n) => {
      const words = [
        { type: 'paragraph', runs: [{ text: `What block ${n} of every ${i % 40}th section says.` }] },
      ]
      nodes[id] = n === 0 ? node('heading', { text: `Section ${i % 7}`, level: 2 }) : node('text', { words })
    })
    nodes[`s${i}`] = node('section', {}, { blocks })
    return `s${i}`
  })
  nodes.home = node('page', { title: 'Sections' }, { sections })
  const many: Page = { format: 4, root: 'home', nodes }
  const ours = (): void => {
    const finder = new AlikeFinder()
    for (const id of comparableSections(many, registry)) finder.add(sectionShape(many, id, registry))
    if (finder.groups().flat().length < SECTIONS / 2) throw new Error('Nothing alike was found')
  }
  const about = `Finding what is nearly alike among ${SECTIONS} sections, against writing them as JSON`
  return figureOf(
    'F',
    10,
    about,
    compare(ours, () => settle(JSON.stringify(nodes))),
  )
}
