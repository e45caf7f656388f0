/** Giving a block the look of another one. */
import { partSchema } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { getNode, type NodeId, type Page, type PageNode, type SizeKey } from '../page/page.ts'
import { sizesSet } from '../sizes/size-keys.ts'
import type { Edit } from './edit-shapes.ts'

/** Gives a block the look and the arrangement of another, as far as its kind has them; what it says stays. */
export function copyLookEdits(page: Page, from: PageNode, toId: NodeId, registry: Registry): Edit[] {
  const node = getNode(page, toId)
  const kind = getKind(registry, node.kind)
  const has = (part: 'look' | 'sizes', key: string) => Object.hasOwn(partSchema(kind, part).properties, key)
  const isAllowed = (part: 'look' | 'sizes', values: JsonObject) =>
    registry.check(node.kind, part, values).length === 0
  const edits: Edit[] = []
  for (const key of new Set([...Object.keys(from.look), ...Object.keys(node.look)])) {
    const value = from.look[key]
    if (!has('look', key) || (value !== undefined && !isAllowed('look', { [key]: value }))) continue
    if (value !== node.look[key]) edits.push(setAt(toId, ['look', key], value))
  }
  for (const size of sizesSet(node, from)) {
    const [own, theirs] = [node.sizes[size] ?? {}, from.sizes[size] ?? {}]
    for (const key of new Set([...Object.keys(theirs), ...Object.keys(own)])) {
      const value = theirs[key]
      // Whether something is shown at a size, and how wide a column is, is about this block and not about looks.
      if (key === 'shown' || key === 'share' || !has('sizes', key)) continue
      if (value !== undefined && !isAllowed('sizes', { [key]: value })) continue
      if (value !== own[key]) edits.push(setAt(toId, ['sizes', size, key], value))
    }
  }
  return edits
}

function setAt(
  nodeId: NodeId,
  at: readonly ['look', string] | readonly ['sizes', SizeKey, string],
  value: Json | undefined,
): Edit {
  return { edit: 'set', nodeId, at, ...(value === undefined ? {} : { value }) }
}
