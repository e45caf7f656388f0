import { applyPatches, enablePatches, produceWithPatches, type Draft } from 'immer'
import { createElement, Fragment } from 'react'
import { jsx, jsxs } from 'react/jsx-runtime'
import { renderToStaticMarkup } from 'react-dom/server'
import { toJsxRuntime } from 'hast-util-to-jsx-runtime'
import {
  applyEdit,
  createNodeRenderer,
  createPageRenderer,
  defaultRegistry as registry,
  renderTree,
  validatePage,
  type Edit,
  type Page,
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
  return [editing(), rendering(), renderingAgain(), loading()]
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
