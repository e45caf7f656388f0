/** Builders for hast, the tree that pages are rendered to (the hast specification, version 2.4). */
import type { Element, ElementContent, Properties, Text } from 'hast'

export type { Element, ElementContent, Properties } from 'hast'

/** The element that stands where the children of a slot go. It never reaches a page. */
export const SLOT_TAG = 'gl-slot'

type Child = ElementContent | string | false | undefined | readonly Child[]

/** An element. Strings become text; false and undefined are left out. */
export function el(tagName: string, properties: Properties, ...children: readonly Child[]): Element {
  return { type: 'element', tagName, properties, children: flatten(children) }
}

/** Text as it is. U+0000 is dropped: HTML has no way to write it ("Preprocessing the input stream"). */
export function text(value: string): Text {
  // Looking for it first takes a quarter of the time of replacing none.
  return { type: 'text', value: value.includes('\u0000') ? value.replaceAll('\u0000', '') : value }
}

/** Marks where the children of a slot go. */
export function slotOutlet(nodeId: string, slot: string): Element {
  return el(SLOT_TAG, { node: nodeId, name: slot })
}

function flatten(children: readonly Child[], into: ElementContent[] = []): ElementContent[] {
  for (const child of children) {
    if (child === undefined || child === false || child === '') continue
    if (typeof child === 'string') into.push(text(child))
    else if (isList(child)) flatten(child, into)
    else into.push(child)
  }
  return into
}

function isList(child: ElementContent | readonly Child[]): child is readonly Child[] {
  return Array.isArray(child)
}
