import styled from 'styled-components'
import { ancestry, getKind, getNode, nodeLabel, type NodeId } from '@gullyline/core'
import { usePage, useStore } from '../session/editor-store.ts'

const List = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    align-items: center;
    gap: 3px;
    min-width: 0;
  }
  li + li::before {
    content: '–';
    color: var(--lineStrong);
  }
  button {
    max-width: 130px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    min-height: 24px;
    padding: 1px 6px;
    border: 0;
    border-radius: 3px;
    background: var(--panel);
    color: var(--quiet);
    font-size: 12px;
  }
  button:hover {
    background: var(--line);
    color: var(--strong);
  }
  button[aria-current] {
    background: var(--accentTint);
    color: var(--accent);
  }
`

/** The way from the page to a block: what it stands in, each step selectable. */
export function NodePath({ id }: { id: NodeId }) {
  const store = useStore()
  const page = usePage((page) => page)
  const steps = ancestry(page, id).reverse()
  return (
    <nav aria-label="Path to the selected block">
      <List>
        {steps.map((step) => (
          <li key={step}>
            <button
              type="button"
              aria-current={step === id ? 'true' : undefined}
              onClick={() => store.dispatch({ type: 'select', id: step === page.root ? undefined : step })}
            >
              {stepWords(store, page, step)}
            </button>
          </li>
        ))}
      </List>
    </nav>
  )
}

/** Sections by what they are called, containers and blocks by their kind. */
function stepWords(
  { registry }: ReturnType<typeof useStore>,
  page: Parameters<typeof getNode>[0],
  id: NodeId,
): string {
  const node = getNode(page, id)
  const { isCalledByHeading, title } = getKind(registry, node.kind)
  return isCalledByHeading === true ? nodeLabel(page, id, registry) : title
}
