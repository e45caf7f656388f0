import { getNode, linkedPart, nodeLabel, type NodeId, type Page } from '@gullyline/core'
import type { EditorStore } from './editor-store.ts'

/** What a block is called in lists: an instance by what it shows. */
export function nodeName({ linked, registry }: EditorStore, page: Pick<Page, 'nodes'>, id: NodeId): string {
  const part = linkedPart(getNode(page, id), registry)
  const name = part === undefined ? undefined : linked.get()[part]?.name
  return name ?? nodeLabel(page, id, registry)
}
