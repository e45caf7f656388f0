import styled from 'styled-components'
import { getKind, newNode, normalizeRichText, placeAfter, placeEdit } from '@gullyline/core'
import { Button } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { when } from '../../ui/when.ts'
import { useStore, type EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { removeSetAside, type SetAsideItem } from '../session/set-aside.ts'

const List = styled.ul`
  display: grid;
  gap: 12px;
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    gap: 6px;
    padding-top: 12px;
    border-top: 1px solid var(--line);
  }
  strong {
    color: var(--strong);
  }
  p {
    max-height: 160px;
    overflow: auto;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  div {
    display: flex;
    gap: 6px;
  }
`

/** All text that was set aside, with the ways to fetch it back. */
export function SetAsideDialog({ items, onClose }: { items: readonly SetAsideItem[]; onClose: () => void }) {
  const store = useStore()
  const { owner } = store.journal
  return (
    <Dialog title="Set aside" isWide onClose={onClose} acts={<Button onPress={onClose}>Close</Button>}>
      <p>Text that is not on the page: the version that was not chosen, or edits that no longer fit.</p>
      <List aria-label="Text that was set aside">
        {items.map((item) => (
          <li key={item.id}>
            <strong>{item.title}</strong>
            <p tabIndex={0}>{item.text}</p>
            <div>
              <Button onPress={() => insertText(store, item.text)}>Insert as text</Button>
              <Button onPress={() => void navigator.clipboard.writeText(item.text)}>Copy</Button>
              <Button onPress={() => removeSetAside(owner, item.id)}>Delete</Button>
              <small>{when(new Date(item.at).toISOString())}</small>
            </div>
          </li>
        ))}
      </List>
    </Dialog>
  )
}

/** Puts text on the page as a block of its own, after what is selected. */
function insertText(store: EditorStore, text: string): void {
  const { registry, state } = store
  const rootId = newId()
  const words = normalizeRichText(
    text.split('\n').map((line) => ({ type: 'paragraph', runs: line === '' ? [] : [{ text: line }] })),
  )
  const node = newNode(getKind(registry, 'text'), { content: { words: words as never } })
  const target = placeAfter(state.page, state.selection, 'text', registry)
  const edit = placeEdit(state.page, target, { rootId, nodes: { [rootId]: node } }, registry, newId)
  store.do('Inserted text that was set aside', [edit], { select: rootId })
}
