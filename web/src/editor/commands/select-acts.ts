/** What commands do to what is selected, without changing the page. */
import {
  childIds,
  findNode,
  findPlace,
  getNode,
  linkedPart,
  pageChildIds,
  sharedRoot,
  type NodeId,
  type Page,
} from '@gullyline/core'
import { isInstance, shownId } from '../canvas/shown-ids.ts'
import { selectedIds } from '../session/editor-state.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { blocks } from './acts.ts'

export function stepOut(store: EditorStore): void {
  const { typing, selection, page } = store.state
  if (typing) return store.dispatch({ type: 'stop-typing' })
  const parent = selection === undefined ? undefined : findPlace(page, selection)?.parentId
  store.dispatch({ type: 'select', id: parent === page.root ? undefined : parent })
}

/** Into what an instance shows: what is changed there changes wherever it stands. */
export function openInstance(store: EditorStore, id: NodeId): void {
  const { page } = store.state
  const part = linkedPart(getNode(page, id), store.registry)
  const root = part === undefined ? undefined : findNode(page, part)
  const [first] = root ? childIds(root) : []
  if (first === undefined)
    return store.dispatch({ type: 'tell', words: 'There is nothing in it to edit', tone: 'refused' })
  store.dispatch({ type: 'select', id: first, around: shownId(store, id) })
}

export function stepIn(store: EditorStore): void {
  const { page, selection } = store.state
  if (selection !== undefined && isInstance(store, selection)) return openInstance(store, selection)
  const inside = selection === undefined ? pageChildIds(page) : childIds(getNode(page, selection))
  const [first] = inside
  if (first !== undefined) store.dispatch({ type: 'select', id: first })
}

export function selectSibling(store: EditorStore, step: number): void {
  const { siblings, index } = whereSelected(store)
  if (index < 0) return stepIn(store)
  const next = siblings[index + step] ?? besidePage(store.state.page, siblings[index]!, step)
  if (next !== undefined) store.dispatch({ type: 'select', id: next })
}

/** Before the first section stands the header, and after the last one the footer; from there on it goes back in. */
function besidePage(page: Page, id: NodeId, step: number): NodeId | undefined {
  if (findPlace(page, id)?.parentId !== page.root) return undefined
  const inside = pageChildIds(page)
  const all = [sharedRoot(page, 'header'), ...inside, sharedRoot(page, 'footer')].filter(
    (one) => one !== undefined,
  )
  return all[all.indexOf(id) + Math.sign(step)]
}

export function selectEnd(store: EditorStore, at: 0 | -1): void {
  const end = whereSelected(store).siblings.at(at)
  if (end !== undefined) store.dispatch({ type: 'select', id: end })
}

/** Takes the sibling beside the selection in; or, going back over what is selected, lets the last one go. */
export function stretchSelection(store: EditorStore, step: 1 | -1): void {
  const { siblings, index } = whereSelected(store)
  const { selection, also } = store.state
  const next = siblings[index + step]
  if (selection === undefined) return stepIn(store)
  if (next === undefined) return
  const rest = also.filter((id) => id !== next)
  const isBack = rest.length < also.length
  store.dispatch({ type: 'select', id: next, also: isBack ? rest : [...rest, selection] })
  tellHowMany(store)
}

export function selectAll(store: EditorStore): void {
  const { siblings } = whereSelected(store)
  const lead = store.state.selection ?? siblings[0]
  if (lead === undefined) return
  store.dispatch({ type: 'select', id: lead, also: siblings.filter((id) => id !== lead) })
  tellHowMany(store)
}

function tellHowMany(store: EditorStore): void {
  const words = `${blocks(selectedIds(store.state).length)} selected`
  store.dispatch({ type: 'tell', words, tone: 'done' })
}

/** The blocks of the selection's level, and where the selection stands among them; the sections when nothing is selected. */
function whereSelected({ state: { page, selection } }: EditorStore): {
  readonly siblings: readonly NodeId[]
  readonly index: number
} {
  const place = selection === undefined ? undefined : findPlace(page, selection)
  if (!place) return { siblings: pageChildIds(page), index: -1 }
  return { siblings: getNode(page, place.parentId).slots[place.slot] ?? [], index: place.index }
}
