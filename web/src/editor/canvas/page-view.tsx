import { createContext, memo, useContext, useMemo, useState } from 'react'
import {
  ANY_SPOT,
  changedIds,
  layoutOf,
  getKind,
  getNode,
  isArrangedAlike,
  leftOut,
  shownIds,
  renderStylesheet,
  sharedRoot,
  SLOT_TAG,
  spotOf,
  type Element,
  type NodeId,
  type Page,
  type PageNode,
  type Registry,
} from '@gullyline/core'
import { useNode, usePage, useStore, useTypingField } from '../editor-store.ts'
import { SiteViewProvider, useSiteView, type SiteView } from '../site-view.ts'
import { elementToReact } from './element-to-react.ts'
import { PROMPT_CSS } from './prompt-css.ts'
import { TypedWords } from './typed-words.tsx'

/** Stands for the element whose words are being typed. */
const TYPING_TAG = 'gl-typing'

const COMPONENTS = { [SLOT_TAG]: SlotOutlet, [TYPING_TAG]: TypedWords }

/** The page with its site's header and footer, as the visitor will see it. Only what an edit changed is rendered again. */
export function PageView() {
  const root = usePage((page) => page.root)
  const header = usePage((page) => sharedRoot(page, 'header'))
  const footer = usePage((page) => sharedRoot(page, 'footer'))
  const isBare = usePage((page) => layoutOf(getNode(page, page.root).content).header === 'bare')
  const view = useSiteView()
  const headerView = useMemo(() => (isBare ? { ...view, renderer: view.bareRenderer } : view), [isBare, view])
  return (
    <>
      {header !== undefined && (
        <SiteViewProvider value={headerView}>
          <NodeView id={header} />
        </SiteViewProvider>
      )}
      <NodeView id={root} />
      {footer !== undefined && <NodeView id={footer} />}
    </>
  )
}

const NodeView = memo(function NodeView({ id }: { id: NodeId }) {
  const node = useNode(id)
  const { registry } = useStore()
  if (!node) return null
  const Shown = getKind(registry, node.kind).usesSpot ? PlacedNode : ShownNode
  return <Shown id={id} node={node} />
})

/** A node whose output depends on where it stands. */
function PlacedNode({ id, node }: { id: NodeId; node: PageNode }) {
  const { registry } = useStore()
  const { look } = useSiteView().renderer.context
  // What is true of a node's place is asked for as text, so that nodes whose place stays alike are not rendered again.
  const placeKey = usePage((page) => JSON.stringify(spotOf(page, id, registry, look)))
  return <ShownNode id={id} node={node} placeKey={placeKey} />
}

interface ShownNodeProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly placeKey?: string
}

function ShownNode({ id, node, placeKey }: ShownNodeProps) {
  const { renderer } = useSiteView()
  const typing = useTypingField(id)
  return useMemo(() => {
    const spot = placeKey === undefined ? ANY_SPOT : (JSON.parse(placeKey) as typeof ANY_SPOT)
    const { element } = renderer.render(id, node, spot)
    return elementToReact(typing === undefined ? element : markTyping(element, typing, id), COMPONENTS)
  }, [node, id, renderer, typing, placeKey])
}

function SlotOutlet({ node, name }: { node: NodeId; name: string }) {
  const asPublished = useContext(AsPublished)
  const children = useNode(node)?.slots[name] ?? []
  return children.map((id) =>
    asPublished ? <PublishedNode key={id} id={id} /> : <NodeView key={id} id={id} />,
  )
}

/** True where the page is shown as visitors will get it, without items that hold nothing. */
export const AsPublished = createContext(false)

function PublishedNode({ id }: { id: NodeId }) {
  const { registry } = useStore()
  const isLeftOut = usePage((page) => leftOut(page, registry).has(id))
  return isLeftOut ? null : <NodeView id={id} />
}

/** The element with the field's words is handed over to the text editor, which owns everything inside it. */
function markTyping(element: Element, field: string, id: NodeId): Element {
  if (element.properties.dataWords === field) {
    return {
      ...element,
      tagName: TYPING_TAG,
      properties: { ...element.properties, tag: element.tagName, node: id, field },
    }
  }
  return {
    ...element,
    children: element.children.map((child) =>
      child.type === 'element' ? markTyping(child, field, id) : child,
    ),
  }
}

/** Rules of the editor itself, for the frame: places to type that would otherwise have no height, and the caret's home. */
const FRAME_CSS = `
${PROMPT_CSS}
[data-words]:empty:not([data-prompt])::before{content:"Write here";opacity:.6}
.picture:not(:has(img)){min-height:9rem;display:grid;place-items:center;background:repeating-linear-gradient(135deg,#8883 0 8px,transparent 8px 16px);border:1px dashed #888}
.picture:not(:has(img))::before{content:"No picture yet";opacity:.8}
.card:not(:has(picture))>div,.feature{min-height:2rem}
.slide:not(:has(img)){min-height:9rem;border:1px dashed #888;background:repeating-linear-gradient(135deg,#8883 0 8px,transparent 8px 16px)}
.hero:not(:has(>picture)){background-image:repeating-linear-gradient(135deg,#8883 0 8px,transparent 8px 16px)}
.panel>div:empty::before{content:"Nothing in this panel yet";opacity:.7}
.columns:empty,.gallery:empty,.button-group:empty,.group:empty,.column:empty,.page-main:empty,.page-side:empty,.slides>ul:empty,.voices>ul:empty,.panels:empty{min-height:4rem;border:1px dashed #888a}
.jump-list:not(:has(ul))::after{content:"Headings of this page will stand here";opacity:.7}
.step-bar[hidden]{display:flex!important}
.row:empty,.stack:empty{min-height:4rem;border:1px dashed #888a}
.section:not(:has(>:not(picture)))::after{content:"";grid-column:2;min-height:5rem;border:1px dashed #888a}
[contenteditable]{outline:none;white-space:pre-wrap;cursor:text}
html{scroll-behavior:auto}
`

/** The stylesheet for the whole page as it is now. A component of its own, so that nothing around the page is rendered with it. */
export const PageStyle = memo(function PageStyle() {
  const store = useStore()
  const view = useSiteView()
  const [cssOf] = useState(keptCss)
  const css = usePage((page) => cssOf(page, view, store.registry))
  return <style>{css}</style>
})

/** The stylesheet of a page, kept for as long as the nodes that change go on being arranged as they were. */
function keptCss(): (page: Page, view: SiteView, registry: Registry) => string {
  let known: { readonly page: Page; readonly view: SiteView; readonly css: string } | undefined
  return (page, view, registry) => {
    if (known?.view === view) {
      const before = known.page.nodes
      const isAlike = changedIds(before, page.nodes).every((id) => {
        const [a, b] = [before[id], page.nodes[id]]
        return a !== undefined && b !== undefined && isArrangedAlike(registry, a, b)
      })
      if (isAlike) {
        known = { ...known, page }
        return known.css
      }
    }
    known = { page, view, css: pageCss(page, view, registry) }
    return known.css
  }
}

function pageCss(page: Page, { renderer }: SiteView, registry: Registry): string {
  const { look } = renderer.context
  const roots = [sharedRoot(page, 'header'), page.root, sharedRoot(page, 'footer')]
  const nodes = roots
    .flatMap((root) => (root === undefined ? [] : shownIds(page, root, registry)))
    .map((id) => renderer.render(id, getNode(page, id), spotOf(page, id, registry, look)))
  return renderStylesheet(registry, renderer.context, nodes) + FRAME_CSS
}
