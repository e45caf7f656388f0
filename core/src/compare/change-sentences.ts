/** What changed between two versions of a document, told to people. */
import type { Registry } from '../blocks/registry.ts'
import { applyEdit, editSentence } from '../edits/edit.ts'
import type { Page } from '../page/page.ts'
import type { WithSizes } from '../sizes/site-sizes.ts'
import { diffPages } from './diff-pages.ts'
import { deltaBetween } from './page-delta.ts'

/** So many changes are told one by one. */
const MOST_SENTENCES = 12
/** Where more blocks than these changed, nobody reads what became of each, and finding it out would take long. */
const MOST_BLOCKS = 200

/**
 * Returns sentences for the edits that lead from one version of a document to the next, equal ones once; of many, the
 * first twelve and how many more there are. Where nearly everything changed it returns one sentence that says so. `sizes` are
 * those of the site, for their names.
 */
export function changeSentences(from: Page, to: Page, registry: Registry, sizes?: WithSizes): string[] {
  const { nodes, gone } = deltaBetween(from, to)
  const changed = Object.keys(nodes).length + gone.length
  if (!isComparable(from, to)) return ['Replaced everything']
  if (changed > MOST_BLOCKS) return [`Changed ${changed} blocks`]
  const sentences = new Set<string>()
  const edits = diffPages(from, to, registry)
  let page = from
  let told = 0
  for (const edit of edits) {
    if (sentences.size === MOST_SENTENCES) break
    sentences.add(editSentence(page, edit, registry, sizes))
    told++
    const applied = applyEdit(page, edit, registry)
    if (applied.ok) page = applied.page
  }
  const more = edits.length - told
  if (more === 0) return [...sentences]
  return [...sentences, more === 1 ? 'And one more change' : `And ${more} more changes`]
}

/** Whether two documents are versions of one: the same root, and no node of another kind. */
function isComparable(from: Page, to: Page): boolean {
  return (
    from.root === to.root &&
    Object.entries(to.nodes).every(
      ([id, node]) => !Object.hasOwn(from.nodes, id) || from.nodes[id]!.kind === node.kind,
    )
  )
}
