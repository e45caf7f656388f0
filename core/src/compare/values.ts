/** A node's values as a flat list of addresses, so that two nodes can be compared field by field. */
import type { ValueAddress } from '../edits/edit-shapes.ts'
import { readValue } from '../edits/set.ts'
import { sameJson, type Json } from '../page/json.ts'
import type { PageNode, SizeKey } from '../page/page.ts'
import { sizesSet } from '../sizes/size-keys.ts'

/** Every address at which one of these nodes has a value, each once. */
export function addressesOf(...nodes: readonly (PageNode | undefined)[]): ValueAddress[] {
  const found = new Map<string, ValueAddress>()
  const add = (at: ValueAddress): void => void found.set(at.join('/'), at)
  for (const node of nodes) {
    if (!node) continue
    for (const part of ['content', 'look'] as const)
      for (const key of Object.keys(node[part])) add([part, key])
    for (const size of sizesSet(node))
      for (const key of Object.keys(node.sizes[size]!)) add(['sizes', size, key])
    for (const key of Object.keys(node.values ?? {})) add(['values', key])
    for (const key of ['name', 'lock'] as const) if (node[key] !== undefined) add([key])
  }
  return [...found.values()]
}

/** The addresses at which two nodes differ. */
export function changedAddresses(before: PageNode, after: PageNode): ValueAddress[] {
  if (before === after) return []
  return addressesOf(before, after).filter((at) => !sameJson(readValue(before, at), readValue(after, at)))
}

/** One value under its address; see `withValues`. */
export type AddressedValue = readonly [at: ValueAddress, value: NonNullable<ReturnType<typeof readValue>>]

/** The node with these values and no others; its kind, its slots and what it asks for stay. */
export function withValues(node: PageNode, values: readonly AddressedValue[]): PageNode {
  const parts: { content: Record<string, unknown>; look: Record<string, unknown> } = { content: {}, look: {} }
  const sizes: Partial<Record<SizeKey, Record<string, unknown>>> = { base: {} }
  const own: Record<string, unknown> = {}
  const fields: Record<string, Json> = {}
  for (const [at, value] of values) {
    if (at.length === 1) own[at[0]] = value
    else if (at[0] === 'sizes') (sizes[at[1]] ??= {})[at[2]] = value
    else if (at[0] === 'values') fields[at[1]] = value
    else parts[at[0]][at[1]] = value
  }
  const made = {
    kind: node.kind,
    ...parts,
    sizes,
    slots: node.slots,
    ...(node.prompts ? { prompts: node.prompts } : {}),
    ...(Object.keys(fields).length > 0 ? { values: fields } : {}),
    ...own,
  }
  return made as unknown as PageNode
}
