/** Putting a block beside another one. */
import { newNode } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { findPlace } from '../page/walk.ts'
import type { Fragment, NewId } from './compose.ts'
import type { Edit } from './edit-shapes.ts'

/**
 * Puts a block, one of the page or a new one, beside another: both become columns where the other stands. Where the
 * other stands alone in a column already, a column is added beside that one. Undefined for what can't stand in a column.
 */
export function besideEdits(
  page: Page,
  otherId: NodeId,
  side: 'before' | 'after',
  what: { readonly moveId: NodeId } | { readonly fragment: Fragment },
  registry: Registry,
  newId: NewId,
): readonly Edit[] | undefined {
  const place = findPlace(page, otherId)
  const kind =
    'moveId' in what ? getNode(page, what.moveId).kind : what.fragment.nodes[what.fragment.rootId]!.kind
  const isFlow = (one: string) => getKind(registry, one).group === 'flow'
  if (!place || !isFlow(kind) || !isFlow(getNode(page, otherId).kind)) return undefined
  if ('moveId' in what && what.moveId === otherId) return undefined
  const mine = newId()
  const column = (share: number): PageNode =>
    newNode(getKind(registry, 'column'), { sizes: { base: { share } } })
  const fill = (columnId: NodeId): Edit =>
    'moveId' in what
      ? { edit: 'move', nodeId: what.moveId, toParentId: columnId, toSlot: 'blocks', toIndex: 0 }
      : { edit: 'insert', parentId: columnId, slot: 'blocks', index: 0, ...what.fragment }
  const holder = getNode(page, place.parentId)
  const outer = findPlace(page, place.parentId)
  const isBeside = outer && getKind(registry, getNode(page, outer.parentId).kind).isShared === true
  if (isBeside && holder.slots.blocks!.length === 1) {
    const index = outer.index + (side === 'after' ? 1 : 0)
    return [
      {
        edit: 'insert',
        parentId: outer.parentId,
        slot: outer.slot,
        index,
        rootId: mine,
        nodes: { [mine]: column(50) },
      },
      fill(mine),
    ]
  }
  const [columnsId, theirs] = [newId(), newId()]
  const order = side === 'before' ? [mine, theirs] : [theirs, mine]
  const columns = newNode(getKind(registry, 'columns'), {
    sizes: { base: {}, narrow: { direction: 'down' } },
    slots: { columns: order },
  })
  const nodes = { [columnsId]: columns, [mine]: column(50), [theirs]: column(50) }
  return [
    { edit: 'insert', ...place, rootId: columnsId, nodes },
    { edit: 'move', nodeId: otherId, toParentId: theirs, toSlot: 'blocks', toIndex: 0 },
    fill(mine),
  ]
}
