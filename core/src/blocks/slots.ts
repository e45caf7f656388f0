import type { PageNode } from '../page/page.ts'
import { slotAllows, type BlockDefinition } from './define-block.ts'
import { getKind, type Registry } from './registry.ts'

/** Why a slot does not take one more node of a kind, as a sentence; undefined when it does. `present` counts those it has. */
export function slotRefusal(
  registry: Registry,
  parent: PageNode,
  slot: string,
  child: { readonly kind: string; readonly present: number },
): string | undefined {
  const container = getKind(registry, parent.kind)
  const definition = Object.hasOwn(container.slots, slot) ? container.slots[slot] : undefined
  const what = registry.kinds.get(child.kind)
  if (!definition) return `${article(container.title)} holds no other blocks`
  if (!what) return `There is no block kind "${child.kind}"`
  if (!slotAllows(definition, what)) {
    return `${article(what.title)} can't stand ${preposition(container)} ${article(container.title).toLowerCase()}: ${takes(registry, definition.allow)}`
  }
  if (definition.max !== undefined && child.present >= definition.max) {
    return `${article(container.title)} holds at most ${definition.max}`
  }
  return undefined
}

function takes(registry: Registry, allow: readonly string[]): string {
  if (allow.includes('section')) return 'it takes sections, which hold the blocks'
  if (allow.includes('flow')) return 'it takes blocks, not whole sections'
  return `it takes only ${allow.map((kind) => getKind(registry, kind).plural).join(' and ')}`
}

function preposition({ group }: Pick<BlockDefinition, 'group'>): string {
  return group === 'root' ? 'directly on' : 'in'
}

function article(title: string): string {
  return `${/^[AEIOU]/.test(title) ? 'An' : 'A'} ${title.toLowerCase()}`
}
