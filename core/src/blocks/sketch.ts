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
  readonly prompts?: PageNode['prompts']
  /** What stands in its first slot. */
  readonly inside?: readonly Sketch[]
  /** What stands in each of its slots, where it has several. */
  readonly slots?: Readonly<Record<string, readonly Sketch[]>>
}

/** A pattern that ships with the program. */
export interface PatternSketch {
  readonly id: string
  readonly title: string
  readonly about: string
  readonly synonyms: readonly string[]
  readonly sketch: Sketch
}

/** Words that stand there, or what is asked for in their place. */
export type Words = string | { readonly ask: string }

/** Words that the person who uses the sketch is to write; the canvas shows `prompt` until there are some. */
export const ask = (prompt: string): Words => ({ ask: prompt })

/** Lines of content by field, each of them said or asked for. */
function lines(words: Readonly<Record<string, Words>>): Pick<Sketch, 'content' | 'prompts'> {
  const [said, prompts]: [Record<string, string>, Record<string, string>] = [{}, {}]
  for (const [field, one] of Object.entries(words)) {
    if (typeof one === 'string') said[field] = one
    else prompts[field] = one.ask
  }
  return { content: said, ...(Object.keys(prompts).length > 0 ? { prompts } : {}) }
}

export const heading = (words: Words, level: number, step?: string): Sketch => ({
  kind: 'heading',
  ...lines({ text: words }),
  content: { ...lines({ text: words }).content, level },
  ...(step ? { sizes: { base: { step } } } : {}),
})
export const text = (words: Words, variant?: string): Sketch => ({
  kind: 'text',
  ...(typeof words === 'string'
    ? { content: { words: paragraphs(words) as unknown as Json } }
    : { prompts: { words: words.ask } }),
  ...(variant ? { look: { variant } } : {}),
})
export const button = (words: Words): Sketch => ({ kind: 'button', ...lines({ text: words }) })
export const stack = (...inside: Sketch[]): Sketch => ({ kind: 'stack', inside })
export const column = (...inside: Sketch[]): Sketch => ({ kind: 'column', inside })
export const panel = (label: Words, ...inside: Sketch[]): Sketch => ({
  kind: 'panel',
  ...lines({ label }),
  inside,
})
export const slide = (title: Words): Sketch => ({ kind: 'slide', ...lines({ title }) })
export const voice = (said: Words, who: Words): Sketch => ({ kind: 'voice', ...lines({ said, who }) })
export const card = (title: Words): Sketch => ({
  kind: 'card',
  ...lines({ heading: title }),
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
      ...(one.prompts ? { prompts: one.prompts } : {}),
      slots: Object.fromEntries(slots),
    })
    return id
  }
  return { rootId: build(sketch), nodes }
}
