/** One page with every block kind in all its variants, for looking at and for checking. */
import {
  createStarters,
  defaultRegistry as registry,
  getKind,
  newNode,
  type JsonObject,
  type Page,
  type PageNode,
  type SiteContext,
  pageTree,
} from '@gullyline/core'
import { demoSite } from '@gullyline/demo'
import { answered } from '../core/test/arbitraries/answered.ts'

/** A small drawing, so that frames are filled without a server. */
const PICTURE =
  'data:image/svg+xml,' +
  encodeURIComponent(
    '<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600"><defs><linearGradient id="g" x1="0" y1="0" x2="0" y2="1"><stop stop-color="#141b45"/><stop offset="1" stop-color="#b5797a"/></linearGradient></defs><rect width="900" height="600" fill="url(#g)"/><path d="M0 480q220-90 450-20t450-40v180H0z" fill="#10142c"/></svg>',
  )

/** What each kind is shown in: every value of each of its choices of look, one at a time. */
function variantsOf(kind: string): JsonObject[] {
  const choices = Object.entries(getKind(registry, kind).look.properties).filter(
    ([key, field]) => field.control === 'choice' && ['variant', 'display', 'shade', 'shape'].includes(key),
  )
  const all = choices.flatMap(([key, field]) => (field.enum as string[]).map((value) => ({ [key]: value })))
  return all.length > 0 ? all : [{}]
}

export function contactSheet(): { readonly page: Page; readonly context: SiteContext } {
  const nodes: Record<string, PageNode> = {}
  const sections: string[] = []
  let count = 0
  const newId = (): string => `c${(count++).toString(36)}`
  const put = (kind: string, more: Partial<PageNode>): string => {
    const id = newId()
    nodes[id] = newNode(getKind(registry, kind), more)
    return id
  }
  for (const starter of createStarters(registry).filter(({ type }) => type === 'block')) {
    const title = put('heading', {
      content: { text: getKind(registry, starter.kind).title, level: 2 },
      sizes: { base: { step: 'minor' } },
    })
    const shown = variantsOf(starter.kind).map((look) => {
      const built = starter.build(newId)
      for (const [id, node] of Object.entries(built.nodes)) nodes[id] = filled(node)
      const root = nodes[built.rootId]!
      nodes[built.rootId] = { ...root, look: { ...root.look, ...look } }
      return built.rootId
    })
    const isSection = getKind(registry, starter.kind).group === 'section'
    const blocks = isSection ? [title] : [title, ...shown]
    sections.push(put('section', { slots: { blocks }, sizes: { base: { above: 'm', below: 'm' } } }))
    if (isSection) sections.push(...shown)
  }
  const first = put('heading', { content: { text: 'Every block', level: 1 } })
  sections.unshift(put('section', { slots: { blocks: [first] } }))
  const root = put('page', { slots: { sections } })
  return {
    page: answered({ format: 4, root, nodes }, (prompt) => prompt),
    context: {
      site: { name: demoSite.name, language: 'en', home: '/' },
      look: demoSite.look,
      paths: { one: '/one/' },
      files: {},
      parts: {},
      navigation: ['One', 'Two', 'Three'].map((label) => ({
        label,
        path: `/${label}/`,
        current: label === 'One',
        inside: [],
      })),
      page: { id: 'one', title: 'One' },
      tree: pageTree([
        { id: 'home', parentId: null, title: 'Home', path: '/', description: '' },
        { id: 'one', parentId: 'home', title: 'One', path: '/one/', description: 'The first' },
        { id: 'two', parentId: 'one', title: 'Two', path: '/two/', description: 'What stands under it' },
      ]),
      pictures: {
        pica: {
          id: 'pica',
          name: 'Evening',
          width: 900,
          height: 600,
          alt: 'A hill at dusk',
          sources: [],
          fallback: PICTURE,
        },
      },
      fontBase: '/fonts/',
      purpose: 'publish',
    },
  }
}

/** A node with a picture wherever it can have one, links that lead somewhere, and cells with words. */
function filled(node: PageNode): PageNode {
  const { properties } = getKind(registry, node.kind).content
  const content: Record<string, unknown> = { ...node.content }
  for (const [key, field] of Object.entries(properties)) {
    if (field.control === 'media' && key !== 'backdrop') content[key] = { id: 'pica' }
    if (field.control === 'link' && key !== 'of') content[key] = { page: 'one' }
    if (field.control === 'table')
      content[key] = [
        ['What', 'When'],
        ['First', 'Monday'],
      ]
  }
  if (content.level === 1) content.level = 2
  return { ...node, content: content as JsonObject }
}
