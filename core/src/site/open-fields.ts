/** What a page's template asks for and that is empty. */
import { isWordless } from '../blocks/prompts.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { JsonObject } from '../page/json.ts'
import { findNode, type Page } from '../page/page.ts'
import { templateRules, type AskedField } from './template-rules.ts'

/** Returns the fields with what they are called. A block that is not there any more is asked for nothing. */
export function openFields(
  page: Page,
  registry: Registry,
): readonly (AskedField & { readonly title: string })[] {
  return templateRules(page).asked.flatMap(({ node: id, key }) => {
    const node = findNode(page, id)
    if (!node) return []
    const { properties } = getKind(registry, node.kind).content
    const title = Object.hasOwn(properties, key) ? properties[key]!.title : key
    return isFilledIn(node.content, key) ? [] : [{ node: id, key, title }]
  })
}

function isFilledIn(content: JsonObject, key: string): boolean {
  const value = content[key]
  const isWords = typeof value === 'string' || Array.isArray(value)
  return isWords ? !isWordless(value) : value !== undefined
}
