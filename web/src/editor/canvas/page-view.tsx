import { createContext, memo, useContext, useMemo } from 'react'
import {
  canvasCss,
  hasSameStylesheet,
  renderStylesheet,
  SLOT_TAG,
  type Element,
  type NodeRenderer,
  type Registry,
  type ShownId,
  type Stylesheet,
} from '@gullyline/core'
import type { Typing } from '../session/editor-state.ts'
import { useSeen, useStore, useTypingAt } from '../session/editor-store.ts'
import { shownPlace } from '../session/typed-field.ts'
import { useRenderer } from '../session/site-view.ts'
import { elementToReact } from './element-to-react.ts'
import { PROMPT_CSS } from './prompt-css.ts'
import {
  PIECES,
  ShownPieceProvider,
  useShownNode,
  type Piece,
  type Seen,
  type ShownPage,
} from './shown-page.ts'
import { TypedWords } from './typed-words.tsx'

/** Stands for the element whose words are being typed. */
const TYPING_TAG = 'gl-typing'

const COMPONENTS = { [SLOT_TAG]: SlotOutlet, [TYPING_TAG]: TypedWords }

const TypedHere = createContext(true)
/** Whether the text editor works in this view of the page: where it is shown several times, in one of them. */
export const TypedHereProvider = TypedHere.Provider

/** The page with its site's header and footer, as the visitor will see it. Only what an edit changed is rendered again. */
export function PageView({ shown }: { shown: ShownPage }) {
  return PIECES.map((piece) => <PieceView key={piece} shown={shown} piece={piece} />)
}

function PieceView({ shown, piece }: { shown: ShownPage; piece: Piece }) {
  const root = useSeen((seen) => shown.piece(shown.seen(seen), piece)?.root)
  const at = useMemo(() => ({ shown, piece }), [shown, piece])
  if (root === undefined) return null
  return (
    <ShownPieceProvider value={at}>
      <NodeView id={root} />
    </ShownPieceProvider>
  )
}

const NodeView = memo(function NodeView({ id }: { id: ShownId }) {
  const shown = useShownNode(id)
  const renderer = useRenderer()
  const store = useStore()
  const isTypedHere = useContext(TypedHere)
  const typed = useTypingAt(id)
  const typing = isTypedHere ? typed : undefined
  return useMemo(() => {
    if (!shown) return null
    const { element } = renderer.render(shown)
    if (!typing) return elementToReact(element, COMPONENTS)
    const { words } = shownPlace(store.state, typing, store.registry)
    return elementToReact(markTyping(element, words, typing), COMPONENTS)
  }, [shown, renderer, typing, store])
})

function SlotOutlet({ node, name }: { node: ShownId; name: string }) {
  const children = useShownNode(node)?.slots[name] ?? []
  return children.map((id) => <NodeView key={id} id={id} />)
}

/** The element with the field's words is handed over to the text editor, which owns everything inside it. */
function markTyping(element: Element, words: string, { id, field }: Typing): Element {
  if (element.properties.dataWords === words) {
    return {
      ...element,
      tagName: TYPING_TAG,
      properties: { ...element.properties, tag: element.tagName, node: id, field },
    }
  }
  return {
    ...element,
    children: element.children.map((child) =>
      child.type === 'element' ? markTyping(child, words, { id, field }) : child,
    ),
  }
}

/** Rules of the editor itself, for the frame: places to type that would otherwise have no height, and the caret's home. */
const FRAME_CSS = `
${PROMPT_CSS}
[data-words]:empty:not([data-prompt])::before{content:"Write here";opacity:.6}
[contenteditable]{outline:none;white-space:pre-wrap;cursor:text}
html{scroll-behavior:auto}
`

/** The stylesheet for the whole page as it is now. A component of its own, so that nothing around the page is rendered with it. */
export const PageStyle = memo(function PageStyle({ shown }: { shown: ShownPage }) {
  const store = useStore()
  const renderer = useRenderer()
  const sheetOf = useMemo(() => keptSheet(shown, renderer, store.registry), [shown, renderer, store])
  const { fonts, rules } = useSeen(sheetOf)
  return (
    <>
      <style>{fonts}</style>
      <style>{rules}</style>
    </>
  )
})

/** The stylesheet of a page, kept for as long as the nodes that change go on being arranged as they were. */
function keptSheet(
  shown: ShownPage,
  renderer: NodeRenderer,
  registry: Registry,
): (state: Seen) => Stylesheet {
  const frameCss = canvasCss(registry) + FRAME_CSS
  let known: (Seen & { readonly sheet: Stylesheet }) | undefined
  return (state) => {
    const seen = shown.seen(state)
    const { page, around } = seen
    if (known?.around === around && hasSameStylesheet(registry, known.page, page)) {
      known = { ...known, page }
      return known.sheet
    }
    const nodes = shown.nodes(seen).map((one) => renderer.render(one))
    const { fonts, rules } = renderStylesheet(registry, renderer.context, nodes)
    known = { ...seen, sheet: { fonts, rules: rules + frameCss } }
    return known.sheet
  }
}
