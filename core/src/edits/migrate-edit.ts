/** Edits of older versions brought up to today: journals hold them. */
import { lockOf, migrateNodes } from '../page/migrate.ts'
import type { Edit } from './edit-shapes.ts'

/**
 * Returns an edit of any format as one of today's. A value that is not an edit is returned unchanged, and is refused when
 * it is applied; never throws.
 */
export function migrateEdit(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value
  const edit = value as Edit
  if (edit.edit === 'insert') return { ...edit, nodes: migrateNodes(edit.nodes) }
  if (edit.edit !== 'set' || !Array.isArray(edit.at)) return value
  const [part, field] = edit.at as readonly string[]
  if (part === 'held') {
    const lock = 'value' in edit ? { value: lockOf(edit.value) } : {}
    return { ...edit, at: ['lock'], ...lock }
  }
  // No kind but the page ever had a field of this name.
  return part === 'content' && field === 'frame' ? { ...edit, at: ['content', 'layout'] } : value
}
