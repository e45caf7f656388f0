import { defaultRegistry as registry, getKind, openPrompts, type Page, type PageNode } from '@gullyline/core'

/** The page with words wherever they are asked for. */
export function answered(page: Page, answer: (prompt: string) => string = () => 'Answer'): Page {
  const nodes = Object.entries(page.nodes).map(([id, node]): [string, PageNode] => {
    const kind = getKind(registry, node.kind)
    const content = { ...node.content }
    for (const { field, prompt } of openPrompts(kind, node)) {
      const { control } = kind.content.properties[field]!
      const runs = [{ text: answer(prompt) }]
      content[field] =
        control === 'words'
          ? [{ type: 'paragraph', runs }]
          : control === 'list'
            ? [{ type: 'list', ordered: false, items: [{ runs }] }]
            : answer(prompt)
    }
    return [id, { ...node, content }]
  })
  return { ...page, nodes: Object.fromEntries(nodes) }
}
