import type { Edit } from './edit.ts'
import type { SetValue } from './set.ts'

/** The two as one edit that does what they do in a row; undefined where that takes both. */
export function mergePair(first: Edit, next: Edit): Edit | undefined {
  return first.edit === 'set' && next.edit === 'set' && isSameValue(first, next) ? next : undefined
}

/** The same edits with neighbours merged where they can be: letters typed into one field are one edit. */
export function mergeEdits(edits: readonly Edit[]): readonly Edit[] {
  const merged: Edit[] = []
  for (const edit of edits) {
    const last = merged.at(-1)
    const both = last && mergePair(last, edit)
    if (both) merged[merged.length - 1] = both
    else merged.push(edit)
  }
  return merged
}

function isSameValue(a: SetValue, b: SetValue): boolean {
  return a.nodeId === b.nodeId && a.at.join('/') === b.at.join('/')
}
