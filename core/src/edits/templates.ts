/** Changing how a page is put together, with all that it holds carried over. */
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type NodeId, type Page } from '../page/page.ts'
import { subtreeIds } from '../page/walk.ts'
import { ASIDE, layoutRefusal, LAYOUTS, type LayoutName } from '../site/layouts.ts'
import type { NewId } from './compose.ts'
import type { Edit, Move } from './edit-shapes.ts'

/**
 * Gives a page another layout. Blocks of a slot that the new layout does not show go where it has room: into its main
 * column, or into a section of their own. What it has no place for goes aside and is not published. Nothing is dropped.
 */
export function changeLayoutEdits(page: Page, layout: LayoutName, registry: Registry, newId: NewId): Edit[] {
  const root = getNode(page, page.root)
  const shown = Object.keys(LAYOUTS[layout].slots)
  const edits: Edit[] = [{ edit: 'set', nodeId: page.root, at: ['content', 'layout'], value: layout }]
  const counts = new Map(Object.entries(root.slots).map(([slot, children]) => [slot, children.length]))
  const move = (nodeId: NodeId, fromSlot: string, toSlot: string): Move => {
    const toIndex = counts.get(toSlot) ?? 0
    counts.set(toSlot, toIndex + 1)
    counts.set(fromSlot, (counts.get(fromSlot) ?? 0) - 1)
    return { edit: 'move', nodeId, toParentId: page.root, toSlot, toIndex }
  }
  const probe: Page = {
    ...page,
    nodes: { ...page.nodes, [page.root]: { ...root, content: { ...root.content, layout } } },
  }
  const isStrange = (id: NodeId): boolean =>
    subtreeIds(page, id).some(
      (inside) => layoutRefusal(probe, getNode(page, inside).kind, registry) !== undefined,
    )
  for (const slot of ['sections', 'main', 'side']) {
    const children = root.slots[slot] ?? []
    if (children.length === 0) continue
    if (shown.includes(slot)) {
      for (const id of children) if (isStrange(id)) edits.push(move(id, slot, ASIDE))
    } else if (shown.includes('main')) {
      edits.push(...children.map((id) => move(id, slot, isStrange(id) ? ASIDE : 'main')))
    } else {
      const [fits, strange] = [children.filter((id) => !isStrange(id)), children.filter(isStrange)]
      edits.push(...strange.map((id) => move(id, slot, ASIDE)))
      if (fits.length > 0)
        edits.push(...intoSection(page, fits, counts.get('sections') ?? 0, registry, newId))
      if (fits.length > 0) counts.set('sections', (counts.get('sections') ?? 0) + 1)
    }
  }
  return edits
}

function intoSection(
  page: Page,
  ids: readonly NodeId[],
  index: number,
  registry: Registry,
  newId: NewId,
): Edit[] {
  const rootId = newId()
  const section = newNode(getKind(registry, 'section'), { sizes: { base: { width: 'reading' } } })
  return [
    { edit: 'insert', parentId: page.root, slot: 'sections', index, rootId, nodes: { [rootId]: section } },
    ...ids.map((nodeId, toIndex): Edit => ({
      edit: 'move',
      nodeId,
      toParentId: rootId,
      toSlot: 'blocks',
      toIndex,
    })),
  ]
}
