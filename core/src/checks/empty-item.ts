import { isSilent } from '../resolve/left-out.ts'
import { openPrompts } from '../blocks/prompts.ts'
import { getKind } from '../blocks/registry.ts'
import { shownIds } from '../resolve/shown.ts'
import { getNode } from '../page/page.ts'
import type { Check } from './define-check.ts'

/** A block that says nothing yet, or a placeholder that still stands: neither is published, and its editor should know. */
export const emptyItem: Check = {
  rule: 'empty-item',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ written, registry }) =>
    shownIds(written, written.root, registry).flatMap((id) => {
      const node = getNode(written, id)
      const kind = getKind(registry, node.kind)
      const open = openPrompts(kind, node).map(({ prompt }) => `“${prompt}”`)
      if (open.length > 0) return [{ nodeId: id, message: placeholderMessage(open) }]
      return isSilent(written, id, registry)
        ? [{ nodeId: id, message: `This ${kind.title.toLowerCase()} is empty and will not be published` }]
        : []
    }),
}

function placeholderMessage(quoted: readonly string[]): string {
  if (quoted.length === 1) return `The placeholder ${quoted[0]} still stands here: it will not be published`
  const all = `${quoted.slice(0, -1).join(', ')} and ${quoted.at(-1)}`
  return `The placeholders ${all} still stand here: they will not be published`
}
