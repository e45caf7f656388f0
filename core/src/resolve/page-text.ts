import { getNode, type Page } from '../page/page.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { shownIds } from './shown.ts'

/** Returns every word that a reader of the page sees, in reading order, with the text of each block on a line of its own. */
export function textOf(page: Page, registry: Registry): string {
  return shownIds(page, page.root, registry)
    .map((id) => {
      const node = getNode(page, id)
      return getKind(registry, node.kind).words(node.content).join(' ').replace(/\s+/g, ' ').trim()
    })
    .filter((line) => line !== '')
    .join('\n')
}
