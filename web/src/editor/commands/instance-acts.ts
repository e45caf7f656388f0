/** What is done with an instance from its details: another part in its place, and the variants of its component. */
import {
  findNode,
  linkedPart,
  otherPartEdits,
  valuesOf,
  VARIANT_KEY,
  variantOf,
  VARIANTS_KEY,
  variantsOf,
  type ComponentVariant,
  type Edit,
  type Json,
  type NodeId,
  type PageNode,
} from '@gullyline/core'
import type { EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { nodeName } from '../session/node-name.ts'

/** Shows another part where an instance stands, with what it fills in there in fields of the same names. */
export function replaceBy(
  store: EditorStore,
  id: NodeId,
  part: { readonly id: string; readonly name: string },
): void {
  const before = nodeName(store, store.state.page, id)
  store.joinPart(part.id)
  const edits = otherPartEdits(store.state.page, id, part.id, store.registry, newId)
  store.do(`Replaced “${before}” by “${part.name}”`, edits)
}

/** An instance, with the root of its component. */
interface Instance {
  readonly node: PageNode
  readonly part: string
  readonly root: PageNode
}

function instanceAt({ state: { page }, registry }: EditorStore, id: NodeId): Instance | undefined {
  const node = findNode(page, id)
  const part = node && linkedPart(node, registry)
  const root = part === undefined ? undefined : findNode(page, part)
  return node && part !== undefined && root ? { node, part, root } : undefined
}

function variantsEdit({ part }: Instance, variants: readonly ComponentVariant[]): Edit {
  const edit = { edit: 'set', nodeId: part, at: ['content', VARIANTS_KEY] } as const
  return variants.length === 0 ? edit : { ...edit, value: variants as unknown as Json }
}

/** Makes an instance of a variant, or of none: where it says nothing itself, it says what the variant does. */
export function chooseVariant(store: EditorStore, id: NodeId, variant: ComponentVariant | undefined): void {
  const edit = { edit: 'set', nodeId: id, at: ['content', VARIANT_KEY] } as const
  const label = variant ? `Made it the variant “${variant.name}”` : 'Made it the default variant'
  store.do(label, [variant ? { ...edit, value: variant.id } : edit])
}

/** Makes a variant of what an instance says: every instance can be of it from then on, and this one is. */
export function saveAsVariant(store: EditorStore, id: NodeId, name: string): void {
  const found = instanceAt(store, id)
  const values = found && valuesOf(found.root, found.node)
  if (!found || !values) return
  const variant: ComponentVariant = { id: newId(), name, values }
  const own = Object.keys(found.node.values ?? {})
  store.do(`Made the variant “${name}”`, [
    variantsEdit(found, [...variantsOf(found.root), variant]),
    { edit: 'set', nodeId: id, at: ['content', VARIANT_KEY], value: variant.id },
    ...own.map((field): Edit => ({ edit: 'set', nodeId: id, at: ['values', field] })),
  ])
}

/** Deletes the variant that an instance is of. This one says itself what the variant said; others are of none. */
export function deleteVariant(store: EditorStore, id: NodeId): void {
  const found = instanceAt(store, id)
  const variant = found && variantOf(found.root, found.node)
  if (!found || !variant) return
  const values = valuesOf(found.root, found.node) ?? {}
  store.do(`Deleted the variant “${variant.name}”`, [
    variantsEdit(
      found,
      variantsOf(found.root).filter((one) => one.id !== variant.id),
    ),
    { edit: 'set', nodeId: id, at: ['content', VARIANT_KEY] },
    ...Object.entries(values).map(([field, value]): Edit => ({
      edit: 'set',
      nodeId: id,
      at: ['values', field],
      value,
    })),
  ])
}
