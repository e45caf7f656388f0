import { useLayoutEffect, useRef, type ReactNode } from 'react'
import type { NodeId } from '@gullyline/core'
import { CARET_KEYS, collectKeys, type EarlyInput } from '../../ui/early-keys.ts'
import { loadAtLast } from '../../ui/later.ts'
import type { Typing } from '../session/editor-state.ts'
import { useStore, type EditorStore } from '../session/editor-store.ts'
import { whenTyping } from './active-editor.ts'
import { textEditing } from './text-editing-later.ts'

interface TypedWordsProps {
  readonly tag: string
  readonly node: NodeId
  readonly field: string
  /** The words as the page shows them. */
  readonly children?: ReactNode
}

/** The element whose words are being typed: the text editor, or what it will take over once it is there. */
export function TypedWords({ children, ...props }: TypedWordsProps) {
  const code = textEditing.use()
  return code ? <code.InlineWords {...props} /> : <WordsUntilThere {...props}>{children}</WordsUntilThere>
}

/** What is typed before the text editor is there is typed into it when it is. */
function WordsUntilThere({ tag, node, field, children, ...attributes }: TypedWordsProps) {
  const store = useStore()
  const element = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    const isTyped = () => store.state.typing?.id === node && store.state.typing.field === field
    const { typing } = store.state
    const early = collectKeys([element.current?.ownerDocument, document], undefined, CARET_KEYS)
    void loadAtLast(textEditing, isTyped, () =>
      store.dispatch({ type: 'tell', words: UNREACHABLE, tone: 'refused' }),
    )
    return () => {
      if (isTyped())
        return whenTyping(() => void early.give((input) => whenTyping((editing) => editing.take(input))))
      const inputs = early.end()
      if (typing && inputs.length > 0) void typeAtLast(store, typing, inputs)
    }
  }, [store, node, field])
  // Any tag a kind renders; one name stands for all of them in the types.
  const Tag = tag as 'div'
  return (
    <Tag {...attributes} ref={element} aria-busy>
      {children}
    </Tag>
  )
}

/** Puts in what was typed before the text editor was there, when something else was turned to meanwhile. */
async function typeAtLast(store: EditorStore, typing: Typing, inputs: readonly EarlyInput[]): Promise<void> {
  await loadAtLast(textEditing, () => true)
  const { typeUnseen } = await textEditing.load()
  typeUnseen(store, typing, inputs)
}

const UNREACHABLE =
  'Can’t reach the server to load the text editor. What you type now is put in as soon as it is there'
