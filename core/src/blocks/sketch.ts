/** How ready arrangements are written down: blocks inside blocks, without ids. */
import type { Fragment, NewId } from '../edits/compose.ts'
import type { Json, JsonObject } from '../page/json.ts'
import type { NodeId, PageNode } from '../page/page.ts'
import { paragraphs } from '../page/rich-text.ts'
import { newNode } from './define-block.ts'
import { getKind, type Registry } from './registry.ts'

/** A block to be made, with what is inside it: how patterns are written down. */
export interface Sketch {
  readonly kind: string
  readonly content?: JsonObject
  readonly look?: JsonObject
  readonly sizes?: PageNode['sizes']
  readonly name?: string
  /** What stands in its first slot. */
  readonly inside?: readonly Sketch[]
  /** What stands in each of its slots, where it has several. */
  readonly slots?: Readonly<Record<string, readonly Sketch[]>>
}

export const heading = (text: string, level: number, step?: string): Sketch => ({
  kind: 'heading',
  content: { text, level },
  ...(step ? { sizes: { base: { step } } } : {}),
})
export const text = (words: string, variant?: string): Sketch => ({
  kind: 'text',
  content: { words: paragraphs(words) as unknown as Json },
  ...(variant ? { look: { variant } } : {}),
})
export const button = (words: string): Sketch => ({ kind: 'button', content: { text: words } })
export const stack = (...inside: Sketch[]): Sketch => ({ kind: 'stack', inside })
export const column = (...inside: Sketch[]): Sketch => ({ kind: 'column', inside })
export const panel = (label: string, ...inside: Sketch[]): Sketch => ({
  kind: 'panel',
  content: { label },
  inside,
})
export const slide = (title: string): Sketch => ({ kind: 'slide', content: { title } })
export const voice = (said: string, who: string): Sketch => ({ kind: 'voice', content: { said, who } })
export const card = (heading: string): Sketch => ({
  kind: 'card',
  content: { heading },
  look: { surface: 'tint', radius: 'm' },
})

/** Makes what is written down, with fresh ids. */
export function buildSketch(sketch: Sketch, registry: Registry, newId: NewId): Fragment {
  const nodes: Record<NodeId, PageNode> = {}
  const build = (one: Sketch): NodeId => {
    const id = newId()
    const definition = getKind(registry, one.kind)
    const [first] = Object.keys(definition.slots)
    const inSlots = one.slots ?? (first && one.inside ? { [first]: one.inside } : {})
    const slots = Object.entries(inSlots).map(([slot, inside]) => [slot, inside.map(build)] as const)
    nodes[id] = newNode(definition, {
      ...(one.content ? { content: one.content } : {}),
      ...(one.look ? { look: one.look } : {}),
      ...(one.sizes ? { sizes: one.sizes } : {}),
      ...(one.name ? { name: one.name } : {}),
      slots: Object.fromEntries(slots),
    })
    return id
  }
  return { rootId: build(sketch), nodes }
}
