/** What commands do to the page. */
import {
  applyEdits,
  childIds,
  copyFragment,
  copyLookEdits,
  describeNode,
  duplicateEdit,
  editSentence,
  findPlace,
  getKind,
  getNode,
  newNode,
  placeAfter,
  placeEdit,
  stepMoveEdit,
  unwrapEdits,
  wrapEdits,
  type Edit,
  type Fragment,
  type NodeId,
  type PageNode,
} from '@gullyline/core'
import { readClipboard, writeClipboard } from './clipboard.ts'
import { selectedIds } from '../session/editor-state.ts'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'

export function withSelection(act: (store: EditorStore, id: NodeId) => void): (store: EditorStore) => void {
  return (store) => {
    const id = store.state.selection
    if (id === undefined) store.dispatch({ type: 'tell', words: 'Select a block first', tone: 'refused' })
    else act(store, id)
  }
}

export function blocks(count: number): string {
  return count === 1 ? 'One block' : `${count} blocks`
}

/** What an act was done to, for its sentence: the one block by its name, several by their number. */
function what(store: EditorStore, ids: readonly NodeId[]): string {
  return ids.length === 1
    ? describeNode(store.state.page, ids[0]!, store.registry)
    : blocks(ids.length).toLowerCase()
}

/** Moves all that is selected one place: each edit is made on the page that the one before leaves. */
export function stepMove(store: EditorStore, direction: 'up' | 'down'): void {
  withSelection(() => {
    const ids = selectedIds(store.state)
    const outermost = direction === 'up' ? ids[0]! : ids.at(-1)!
    if (!stepMoveEdit(store.state.page, outermost, direction)) {
      const words = `This block is already ${direction === 'up' ? 'first' : 'last'} here`
      return store.dispatch({ type: 'tell', words, tone: 'refused' })
    }
    const order = direction === 'up' ? ids : [...ids].reverse()
    let { page } = store.state
    const edits: Edit[] = []
    for (const id of order) {
      const edit = stepMoveEdit(page, id, direction)
      const moved = edit && applyEdits(page, [edit], store.registry)
      if (!moved?.ok) continue
      edits.push(edit!)
      page = moved.page
    }
    // Where it stands now, in words: whoever can't see the page learns it from this sentence alone.
    const label =
      ids.length === 1
        ? editSentence(store.state.page, edits[0]!, store.registry)
        : `Moved ${what(store, ids)} ${direction}`
    store.do(label, edits)
  })(store)
}

export function duplicate(store: EditorStore): void {
  withSelection(() => {
    const { page } = store.state
    const ids = selectedIds(store.state)
    const last = findPlace(page, ids.at(-1)!)
    if (!last) return
    const edits = ids.flatMap((id, i): Edit[] => {
      const edit = duplicateEdit(page, id, newId)
      return edit ? [{ ...edit, index: last.index + 1 + i }] : []
    })
    placeSeveral(store, `Duplicated ${what(store, ids)}`, edits)
  })(store)
}

/** Puts the selected blocks into a container; `done` says so of them. */
export function wrap(
  store: EditorStore,
  kind: string,
  done = (blocks: string): string => `Wrapped ${blocks} in a ${kind}`,
): void {
  withSelection(() => {
    const { page } = store.state
    const ids = selectedIds(store.state)
    const wrapped = wrapEdits(page, ids, kind, store.registry, newId)
    if (wrapped) store.do(done(what(store, ids)), wrapped.edits, { select: wrapped.containerId })
  })(store)
}

/** A container gives way to what it holds; what holds nothing is taken out by taking apart what holds it. */
export function unwrap(store: EditorStore, id: NodeId): void {
  const { page } = store.state
  const holder = childIds(getNode(page, id)).length > 0 ? id : findPlace(page, id)?.parentId
  const edits = holder === undefined || holder === page.root ? undefined : unwrapEdits(page, holder)
  if (holder === undefined || !edits)
    return store.dispatch({
      type: 'tell',
      words: 'Nothing to ungroup: this block is not in a group, row, stack or columns',
      tone: 'refused',
    })
  const [select, ...also] = childIds(getNode(page, holder))
  store.do(`Ungrouped ${describeNode(page, holder, store.registry)}`, edits, { select: select!, also })
}

/** Several side by side, each in a column of its own, with equal widths. */
export function wrapInColumns(store: EditorStore): void {
  withSelection(() => {
    const { page } = store.state
    const ids = selectedIds(store.state)
    const place = findPlace(page, ids[0]!)
    if (!place) return
    const columnIds = ids.map(() => newId())
    const columnsId = newId()
    const column = getKind(store.registry, 'column')
    const shares = sharesFor(ids.length)
    const nodes = Object.fromEntries([
      [
        columnsId,
        newNode(getKind(store.registry, 'columns'), {
          sizes: { base: {}, narrow: { direction: 'down' } },
          slots: { columns: columnIds },
        }),
      ],
      ...columnIds.map((id, i) => [id, newNode(column, { sizes: { base: { share: shares[i]! } } })] as const),
    ])
    const edits: Edit[] = [
      { edit: 'insert', ...place, rootId: columnsId, nodes },
      ...ids.map((nodeId, i): Edit => ({
        edit: 'move',
        nodeId,
        toParentId: columnIds[i]!,
        toSlot: 'blocks',
        toIndex: 0,
      })),
    ]
    store.do(`Wrapped ${what(store, ids)} in columns`, edits, { select: columnsId })
  })(store)
}

function sharesFor(count: number): number[] {
  const share = Math.floor(100 / count)
  return Array.from({ length: count }, (_unused, i) => (i === 0 ? 100 - share * (count - 1) : share))
}

/** Into the container right before it, as the last one there. */
export function moveIn(store: EditorStore, id: NodeId): void {
  const { page } = store.state
  const place = findPlace(page, id)
  const before = place && getNode(page, place.parentId).slots[place.slot]![place.index - 1]
  const slot = before === undefined ? undefined : Object.keys(getNode(page, before).slots)[0]
  if (before === undefined || slot === undefined)
    return store.dispatch({
      type: 'tell',
      words: 'The previous block can’t hold other blocks',
      tone: 'refused',
    })
  const toIndex = getNode(page, before).slots[slot]!.length
  doMove(store, { edit: 'move', nodeId: id, toParentId: before, toSlot: slot, toIndex })
}

/** Out of what holds it, to right after that. */
export function moveOut(store: EditorStore, id: NodeId): void {
  const { page } = store.state
  const place = findPlace(page, id)
  const outer = place && findPlace(page, place.parentId)
  if (!outer)
    return store.dispatch({ type: 'tell', words: 'This block is not inside another block', tone: 'refused' })
  const { parentId, slot, index } = outer
  doMove(store, { edit: 'move', nodeId: id, toParentId: parentId, toSlot: slot, toIndex: index + 1 })
}

function doMove(store: EditorStore, edit: Extract<Edit, { edit: 'move' }>): void {
  store.do(editSentence(store.state.page, edit, store.registry), [edit])
}

let copiedLook: PageNode | undefined

export function copyLook(store: EditorStore, id: NodeId): void {
  copiedLook = getNode(store.state.page, id)
  const words = `Copied the look of ${describeNode(store.state.page, id, store.registry)}`
  store.dispatch({ type: 'tell', words, tone: 'done' })
}

export function pasteLook(store: EditorStore): void {
  withSelection(() => {
    const from = copiedLook
    if (!from) return store.dispatch({ type: 'tell', words: 'No look copied yet', tone: 'refused' })
    const ids = selectedIds(store.state)
    const edits = ids.flatMap((id) => copyLookEdits(store.state.page, from, id, store.registry))
    if (edits.length === 0)
      return store.dispatch({ type: 'tell', words: 'This block already has that look', tone: 'refused' })
    store.do(`Pasted the look on ${what(store, ids)}`, edits)
  })(store)
}

export function setLock(store: EditorStore, lock: 'all' | 'text' | undefined): void {
  withSelection(() => {
    const ids = selectedIds(store.state)
    const changed = ids.filter((id) => getNode(store.state.page, id).lock !== lock)
    if (changed.length === 0)
      return store.dispatch({
        type: 'tell',
        words: lock ? 'This block is already locked like that' : 'This block is not locked',
        tone: 'refused',
      })
    const verb = lock === 'all' ? 'Locked' : lock === 'text' ? 'Locked all but the text of' : 'Unlocked'
    store.do(
      `${verb} ${what(store, ids)}`,
      changed.map((nodeId): Edit => ({
        edit: 'set',
        nodeId,
        at: ['lock'],
        ...(lock ? { value: lock } : {}),
      })),
    )
  })(store)
}

export function remove(store: EditorStore): void {
  withSelection(() => {
    const { page } = store.state
    const ids = selectedIds(store.state)
    const place = findPlace(page, ids[0]!)
    if (!place) return
    const siblings = getNode(page, place.parentId).slots[place.slot]!.filter((id) => !ids.includes(id))
    const near =
      siblings[place.index] ??
      siblings[place.index - 1] ??
      (place.parentId === page.root ? undefined : place.parentId)
    store.do(
      `Deleted ${what(store, ids)}`,
      ids.map((nodeId): Edit => ({ edit: 'remove', nodeId })),
      near === undefined ? {} : { select: near },
    )
  })(store)
}

/** What is selected and can be copied: the page itself can't. */
export function copiedIds(store: EditorStore): readonly NodeId[] {
  return selectedIds(store.state).filter((id) => id !== store.state.page.root)
}

/** Keeps what is selected for pasting, and gives it. */
export function copy(store: EditorStore): readonly Fragment[] {
  const ids = copiedIds(store)
  if (ids.length === 0) {
    store.dispatch({ type: 'tell', words: 'Select a block first', tone: 'refused' })
    return []
  }
  const fragments = ids.map((id) => copyFragment(store.state.page, id, newId))
  writeClipboard(localStorage, fragments)
  store.dispatch({ type: 'tell', words: `Copied ${what(store, ids)}`, tone: 'done' })
  return fragments
}

export function cut(store: EditorStore): readonly Fragment[] {
  const fragments = copy(store)
  if (fragments.length > 0) remove(store)
  return fragments
}

/** Does the inserts as one step, and selects all that they bring. */
function placeSeveral(store: EditorStore, label: string, edits: readonly Edit[]): void {
  const roots = edits.flatMap((edit) => (edit.edit === 'insert' ? [edit.rootId] : []))
  const [select, ...also] = roots
  if (select !== undefined) store.do(label, edits, { select, also })
}

/** Blocks, or else what was copied last in this browser, are placed after the selection with new ids. */
export function paste(store: EditorStore, copied = readClipboard(localStorage, store.registry)): void {
  if (copied.length === 0)
    return store.dispatch({
      type: 'tell',
      words: 'Nothing to paste: the clipboard has no block, text or picture',
      tone: 'refused',
    })
  const fragments = copied.map((one) => copyFragment(one, one.rootId, newId))
  const { page } = store.state
  const after = selectedIds(store.state).at(-1)
  const kind = fragments[0]!.nodes[fragments[0]!.rootId]!.kind
  // A card pasted onto a card goes beside it, though it could stand inside.
  const beside =
    after !== undefined && getNode(page, after).kind === kind ? findPlace(page, after) : undefined
  const target = beside
    ? { ...beside, index: beside.index + 1 }
    : placeAfter(page, after, kind, store.registry)
  const edits = fragments.map((fragment, i) =>
    placeEdit(page, { ...target, index: target.index + i }, fragment, store.registry, newId),
  )
  const [first] = fragments
  const words =
    fragments.length === 1
      ? describeNode(first!, first!.rootId, store.registry)
      : blocks(fragments.length).toLowerCase()
  placeSeveral(store, `Pasted ${words}`, edits)
}
