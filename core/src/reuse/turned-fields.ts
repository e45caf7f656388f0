/** Fields of a component whose block becomes one of another kind. */
import { FIELDS_KEY, fieldsOf } from '../blocks/component-fields.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Edit } from '../edits/edit-shapes.ts'
import type { Json } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page } from '../page/page.ts'
import { partAt } from '../site/session-page.ts'

/**
 * Returns the edits that keep fields when their block becomes one of another kind: a field of the old block's text then points
 * at the new block's text. Returns none for a block without such a field.
 */
export function followTurnedEdits(
  session: Page,
  id: NodeId,
  into: { readonly id: NodeId; readonly kind: string },
  registry: Registry,
): readonly Edit[] {
  const part = partAt(session, id)
  const root = part === 'page' ? undefined : findNode(session, part)
  const [from, to] = [getNode(session, id).kind, into.kind].map(
    (kind) => getKind(registry, kind).turning?.field,
  )
  if (!root || from === undefined || to === undefined) return []
  const fields = fieldsOf(root)
  const next = fields.map((field) =>
    field.node === id && field.of === undefined && field.key === from
      ? { ...field, node: into.id, key: to }
      : field,
  )
  if (next.every((field, i) => field === fields[i])) return []
  return [{ edit: 'set', nodeId: part, at: ['content', FIELDS_KEY], value: next as unknown as Json }]
}
