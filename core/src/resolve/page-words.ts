import { getKind, type Registry } from '../blocks/registry.ts'
import { getNode, type Page } from '../page/page.ts'
import { shownIds } from './shown.ts'

/** Every string that a reader of the page sees, in reading order. */
export function pageWords(page: Page, registry: Registry): string[] {
  return shownIds(page, page.root, registry).flatMap((id) => {
    const node = getNode(page, id)
    return [...getKind(registry, node.kind).words(node.content)]
  })
}
