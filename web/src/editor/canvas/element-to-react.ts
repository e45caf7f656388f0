import { createElement, type ComponentType, type ReactNode } from 'react'
import styleToJs from 'style-to-js'
import type { Element } from '@gullyline/core'

/** What stands for elements of these names. */
export type ElementComponents = Readonly<Record<string, ComponentType<never>>>

/** An element of a rendered page as React has it. */
export function elementToReact(element: Element, components: ElementComponents = {}): ReactNode {
  const { tagName, properties, children } = element
  const type: string | ComponentType<never> = components[tagName] ?? tagName
  const content = children.map((child) => {
    if (child.type === 'element') return elementToReact(child, components)
    return child.type === 'text' ? child.value : null
  })
  return createElement(type as string, propsOf(properties), ...content)
}

function propsOf(properties: Element['properties']): Record<string, unknown> {
  const props: Record<string, unknown> = {}
  for (const name in properties) {
    const value = properties[name]
    if (name === 'style') props.style = styleToJs(String(value), { reactCompat: true })
    else props[propName(name)] = Array.isArray(value) ? value.join(' ') : value
  }
  return props
}

/** React has the names of the DOM's properties, as hast has, but for these two families, which it has as attributes. */
function propName(name: string): string {
  const [, family, rest] = /^(aria|data)([A-Z].*)$/.exec(name) ?? []
  if (family === undefined || rest === undefined) return name
  return family === 'aria'
    ? `aria-${rest.toLowerCase()}`
    : `data${rest.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`
}
