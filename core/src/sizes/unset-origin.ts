import type { BlockDefinition } from '../blocks/define-block.ts'
import type { FieldSchema } from '../kit/fields.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Look } from '../look/look.ts'
import type { Json } from '../page/json.ts'
import { findNode, type NodeId, type Page, type PageNode, type SizeKey } from '../page/page.ts'
import { ancestry } from '../page/walk.ts'
import { cascadeValue } from './cascade.ts'

/** A value that comes from another field of the same block: `gives` is the value, by the `value` that the field has. */
interface FromField {
  readonly from: 'field'
  readonly field: FieldSchema
  readonly value: Json
  readonly gives: Json
}

/** What stands behind a value that nobody set, at one size. */
export function unsetOrigin(
  node: PageNode,
  field: FieldSchema,
  size: SizeKey,
  registry: Registry,
): FromField | { readonly from: 'kind' } {
  const { inherits } = field
  const found = inherits && valueAt(node, getKind(registry, node.kind), inherits.key, size)
  if (!found) return { from: 'kind' }
  const isUnset = found.field.inherits && found.value === found.field.default
  if (isUnset) {
    const deeper = unsetOrigin(node, found.field, size, registry)
    return deeper.from === 'kind' ? deeper : { from: 'field', ...found, gives: deeper.gives }
  }
  const name = typeof found.value === 'object' ? '' : String(found.value)
  const gives = inherits.gives ? (inherits.gives[name] ?? inherits.gives['*']) : found.value
  return gives === undefined ? { from: 'kind' } : { from: 'field', ...found, gives }
}

function valueAt(
  node: PageNode,
  kind: BlockDefinition,
  key: string,
  size: SizeKey,
): { readonly field: FieldSchema; readonly value: Json } | undefined {
  const arranged = kind.arrangement.properties[key]
  const field = arranged ?? kind.look.properties[key] ?? kind.content.properties[key]
  const value = arranged
    ? cascadeValue(node, kind.arrangement, size, key).value
    : (node.look[key] ?? node.content[key] ?? field?.default)
  return field && value !== undefined ? { field, value } : undefined
}

/** The surface that a block without one of its own stands on. */
export type SurfaceAround =
  | { readonly from: 'block'; readonly id: NodeId; readonly surface: string }
  | { readonly from: 'page'; readonly surface: string }

/** The surface of the nearest block around this one that has one, or else of the page in its look. */
export function surfaceAround(page: Page, id: NodeId, look: Look): SurfaceAround {
  for (const at of ancestry(page, id).slice(1)) {
    const surface = findNode(page, at)?.look.surface
    if (typeof surface === 'string') return { from: 'block', id: at, surface }
  }
  return { from: 'page', surface: look.pageSurface }
}
