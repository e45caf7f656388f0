/** Making one kind of block of another. */
import {
  followTurnedEdits,
  getKind,
  getNode,
  paragraphIntoEdits,
  toTextEdits,
  type NodeId,
} from '@gullyline/core'
import { typedParagraph } from '../canvas/active-editor.ts'
import { startTyping } from '../canvas/frame-input.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { withSelection } from './acts.ts'

/** The paragraph that is being typed in, or the first one of the block. */
export function toHeading(store: EditorStore): void {
  turnParagraph(store, 'heading')
}

export function toQuote(store: EditorStore): void {
  turnParagraph(store, 'quote')
}

/** Makes another block of the paragraph that is typed in, or of the first one of the text that is selected. */
function turnParagraph(store: EditorStore, kind: string): void {
  withSelection((_store, id) => {
    const isTyping = store.state.typing !== undefined
    const at = isTyping ? typedParagraph() : 0
    const turned = paragraphIntoEdits(kind, store.state.page, id, at, store.registry, newId)
    const into = `a ${getKind(store.registry, kind).title.toLowerCase()}`
    if (turned) {
      const isWhole = turned.edits.some((edit) => edit.edit === 'remove' && edit.nodeId === id)
      const made = { id: turned.madeId, kind }
      const followed = isWhole ? followTurnedEdits(store.state.page, id, made, store.registry) : []
      store.do(`Turned a paragraph into ${into}`, [...turned.edits, ...followed], { select: turned.madeId })
      if (isTyping) startTyping(store, turned.madeId)
      return
    }
    const words = `Only a paragraph with text can become ${into}`
    store.dispatch({ type: 'tell', words, tone: 'refused' })
  })(store)
}

function turnToText(store: EditorStore, id: NodeId): void {
  const { title } = getKind(store.registry, getNode(store.state.page, id).kind)
  const isTyping = store.state.typing !== undefined
  const turned = toTextEdits(store.state.page, id, store.registry, newId)
  if (!turned)
    return store.dispatch({
      type: 'tell',
      words: 'Only headings and quotes can become text',
      tone: 'refused',
    })
  const made = { id: turned.madeId, kind: 'text' }
  const followed = followTurnedEdits(store.state.page, id, made, store.registry)
  store.do(`Turned the ${title.toLowerCase()} into text`, [...turned.edits, ...followed], {
    select: turned.madeId,
  })
  if (isTyping) startTyping(store, turned.madeId)
}

/** All of a heading or a quote, as a text. */
export const toText = withSelection(turnToText)
