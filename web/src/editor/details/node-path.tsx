import styled from 'styled-components'
import {
  ancestry,
  getKind,
  getNode,
  shownIdOf,
  stepsOf,
  type NodeId,
  type Page,
  type ShownId,
} from '@gullyline/core'
import { useEditor, usePage, useStore, type EditorStore } from '../session/editor-store.ts'
import { nodeName } from '../session/node-name.ts'

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

/** The way from the page to a block: what it stands in, through instances that it is seen in, each step selectable. */
export function NodePath({ id }: { id: NodeId }) {
  const store = useStore()
  const page = usePage((page) => page)
  const around = useEditor((state) => state.around)
  const steps = wayTo(store, page, id, around)
  return (
    <nav aria-label="Path to the selected block">
      <List>
        {steps.map((step, i) => (
          <li key={i}>
            <button
              type="button"
              aria-current={i === steps.length - 1 ? 'true' : undefined}
              onClick={() =>
                store.dispatch({
                  type: 'select',
                  id: step.id === page.root ? undefined : step.id,
                  around: step.around,
                })
              }
            >
              {stepWords(store, page, step.id)}
            </button>
          </li>
        ))}
      </List>
    </nav>
  )
}

interface Step {
  readonly id: NodeId
  readonly around: ShownId
}

function wayTo({ registry }: EditorStore, page: Page, id: NodeId, around: ShownId): readonly Step[] {
  const instances = stepsOf(shownIdOf(page, id, around, registry))
  return instances.flatMap((instance, i) => {
    const within = instances.slice(0, i).join('/')
    const chain = ancestry(page, instance).reverse()
    // The root of a part hangs from the page, and neither is a step of its own: the instance is.
    return (i === 0 ? chain : chain.slice(2)).map((one): Step => ({ id: one, around: within }))
  })
}

/** Sections by what they are called, containers and blocks by their kind. */
function stepWords(store: EditorStore, page: Page, id: NodeId): string {
  const node = getNode(page, id)
  const { isCalledByHeading, title, linksTo, fillsSlot } = getKind(store.registry, node.kind)
  return isCalledByHeading === true || linksTo || fillsSlot ? nodeName(store, page, id) : title
}
