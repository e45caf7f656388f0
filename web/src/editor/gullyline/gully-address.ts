/** Addresses that open a page at a gully: its width, and the block that it is of. */
import type { Gully, ShownId } from '@gullyline/core'
import { middleOf } from './gully-range.ts'

/** What an address of the editor asks to be shown first. */
export interface AskedPlace {
  readonly width: number
  readonly nodeId: ShownId | undefined
}

export function gullyAddress(pageId: string, gully: Pick<Gully, 'from' | 'to' | 'nodeId'>): string {
  const query = new URLSearchParams({ width: String(middleOf(gully)) })
  if (gully.nodeId !== undefined) query.set('block', gully.nodeId)
  return `/pages/${pageId}?${query}`
}

/** Reads what the query of an address asks for; undefined for any other. */
export function placeIn(search: string): AskedPlace | undefined {
  const query = new URLSearchParams(search)
  const width = Number(query.get('width'))
  return Number.isInteger(width) && width > 0 ? { width, nodeId: query.get('block') ?? undefined } : undefined
}
