/** Questions to trees of HTML. */
import type { Element, ElementContent, Nodes as HastNode, Root, Text } from 'hast'

export function isList(node: ElementContent): node is Element {
  return node.type === 'element' && (node.tagName === 'ul' || node.tagName === 'ol')
}

/** Terms and descriptions, also where they stand in groups. */
export function flattened(nodes: readonly ElementContent[]): readonly (Element | Text)[] {
  return nodes.flatMap((node) => {
    if (node.type === 'element') return node.tagName === 'div' ? flattened(node.children) : [node]
    return node.type === 'text' ? [node] : []
  })
}

export function href({ properties }: Element): string | undefined {
  return typeof properties.href === 'string' ? properties.href : undefined
}

export function textOf(node: HastNode | undefined): string {
  if (!node) return ''
  if (node.type === 'text') return node.value
  if (node.type === 'element' && node.tagName === 'br') return '\n'
  return 'children' in node ? node.children.map((child) => textOf(child)).join('') : ''
}

export function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ').trim()
}

export function find(node: HastNode, tag: string): Element | undefined {
  return findAll(node, tag)[0]
}

/** The elements inside of a node that have one of these names, in document order. */
export function findAll(node: HastNode, ...tags: readonly string[]): readonly Element[] {
  const children = 'children' in node ? node.children : []
  return children.flatMap((child): readonly Element[] => {
    if (child.type !== 'element') return []
    return [...(tags.includes(child.tagName) ? [child] : []), ...findAll(child, ...tags)]
  })
}

export function holds(node: ElementContent, other: Element): boolean {
  return node.type === 'element' && node.children.some((child) => child === other || holds(child, other))
}

export function metaContent(root: Root, name: string): string {
  const meta = findAll(root, 'meta').find(({ properties }) => properties.name === name)
  return oneLine(String(meta?.properties.content ?? ''))
}
