import { canStandFor, type SavedPart } from '@gullyline/core'

/** The shared sections that can stand where one does. */
export function otherShared(parts: readonly SavedPart[], part: SavedPart): readonly SavedPart[] {
  return parts.filter(
    ({ id, type, binnedAt, document }) =>
      type === 'shared' && binnedAt === null && id !== part.id && canStandFor(document, part.document),
  )
}
