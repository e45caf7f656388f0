import type { Fragment } from '@gullyline/core'

const KEY = 'gullyline.clipboard'

/** Keeps copied blocks where every page of this browser finds them. */
export function writeClipboard(storage: Pick<Storage, 'setItem'>, fragments: readonly Fragment[]): void {
  storage.setItem(KEY, JSON.stringify(fragments))
}

/** What was copied last, in order; empty when there is nothing that can be read. Whether it fits a page, the edit decides. */
export function readClipboard(storage: Pick<Storage, 'getItem'>): readonly Fragment[] {
  try {
    const value: unknown = JSON.parse(storage.getItem(KEY) ?? '[]')
    return Array.isArray(value) ? value.filter(isFragment) : []
  } catch {
    return []
  }
}

function isFragment(value: unknown): value is Fragment {
  const { rootId, nodes } = (value ?? {}) as Partial<Fragment>
  return rootId !== undefined && nodes?.[rootId] !== undefined
}
