/** How the sample pages are written down: blocks inside blocks, without ids. */
import {
  defaultRegistry,
  getKind,
  newNode,
  paragraphs,
  PAGE_FORMAT,
  type Crop,
  type Json,
  type JsonObject,
  type Link,
  type Page,
  type PageNode,
  type Run,
} from '@gullyline/core'

export interface Sketch {
  readonly kind: string
  readonly name?: string
  readonly content?: JsonObject
  readonly look?: JsonObject
  readonly sizes?: PageNode['sizes']
  readonly inside?: readonly Sketch[]
  /** What stands in each slot, where a block has several. */
  readonly slots?: Readonly<Record<string, readonly Sketch[]>>
  /** What an instance of a component fills in. */
  readonly values?: JsonObject
}

/** What a block is given besides its words: its look, and its values at the widest size and narrower ones. */
export interface Styling {
  readonly name?: string
  readonly look?: JsonObject
  readonly base?: JsonObject
  readonly medium?: JsonObject
  readonly narrow?: JsonObject
}

/** A block of any kind. */
export const block = (
  kind: string,
  content: JsonObject,
  styling: Styling = {},
  ...inside: readonly Sketch[]
): Sketch => styled(kind, content, styling, inside)

function styled(
  kind: string,
  content: JsonObject,
  { name, look, base, ...narrower }: Styling = {},
  inside: readonly Sketch[] = [],
): Sketch {
  return {
    kind,
    content,
    inside,
    ...(name ? { name } : {}),
    look: look ?? {},
    sizes: { base: base ?? {}, ...narrower },
  }
}

export const section = (
  styling: Styling & { backdrop?: JsonObject; anchor?: string },
  ...inside: Sketch[]
): Sketch => {
  const { backdrop, anchor, ...rest } = styling
  return styled('section', { ...(backdrop ? { backdrop } : {}), ...(anchor ? { anchor } : {}) }, rest, inside)
}
export const row = (styling: Styling, ...inside: Sketch[]): Sketch => styled('row', {}, styling, inside)
export const stack = (styling: Styling, ...inside: Sketch[]): Sketch => styled('stack', {}, styling, inside)
export const heading = (level: number, text: string, styling?: Styling): Sketch =>
  styled('heading', { text, level }, styling)
export const text = (words: string | readonly Json[], styling?: Styling): Sketch =>
  styled(
    'text',
    { words: (typeof words === 'string' ? paragraphs(words) : words) as unknown as Json },
    styling,
  )
export const label = (words: string): Sketch => text(words, { look: { variant: 'label' } })
export const button = (words: string, to: Link, styling?: Styling): Sketch =>
  styled('button', { text: words, link: to }, styling)
export const picture = (
  id: string,
  alt: string,
  styling: Styling & {
    caption?: string
    focus?: { x: number; y: number }
    crop?: Crop
    link?: Link
  } = {},
): Sketch => {
  const { caption, focus, crop, link, ...rest } = styling
  return styled(
    'picture',
    {
      media: { id, ...(focus ? { focus } : {}), ...(crop ? { crop: { ...crop } } : {}) },
      alt,
      ...(caption ? { caption } : {}),
      ...(link ? { link } : {}),
    },
    rest,
  )
}

/** A paragraph of runs: plain words, or words with marks or a link. */
export const para = (...runs: readonly (string | Run)[]): Json =>
  ({
    type: 'paragraph',
    runs: runs.map((run) => (typeof run === 'string' ? { text: run } : run)),
  }) as unknown as Json
export const list = (...items: readonly (string | readonly (string | Run)[])[]): Json =>
  ({
    type: 'list',
    ordered: false,
    items: items.map((item) => ({
      runs: (typeof item === 'string' ? [item] : item).map((run) =>
        typeof run === 'string' ? { text: run } : run,
      ),
    })),
  }) as unknown as Json
export const bold = (words: string): Run => ({ text: words, marks: ['bold'] })
export const linked = (words: string, to: Link): Run => ({ text: words, link: to })

/** A document from a sketch of its root; ids are counted after `prefix`, which must be unique among documents. */
export function document(prefix: string, root: Sketch): Page {
  const nodes: Record<string, PageNode> = {}
  let count = 0
  const add = (sketch: Sketch): string => {
    const id = `${prefix}${(count++).toString(36)}`
    const definition = getKind(defaultRegistry, sketch.kind)
    const [first] = Object.keys(definition.slots)
    const inSlots = sketch.slots ?? (first ? { [first]: sketch.inside ?? [] } : {})
    const slots = Object.entries(inSlots).map(([slot, inside]) => [slot, inside.map(add)] as const)
    const node = newNode(definition, {
      content: sketch.content ?? {},
      look: sketch.look ?? {},
      ...(sketch.sizes ? { sizes: sketch.sizes } : {}),
      slots: Object.fromEntries(slots),
      ...(sketch.name === undefined ? {} : { name: sketch.name }),
    })
    nodes[id] = sketch.values ? { ...node, values: sketch.values } : node
    return id
  }
  return { format: PAGE_FORMAT, root: add(root), nodes }
}
