/**
 * What is asked for where words are still missing: "Write here." It is data of a node or of its kind, shown pale on the
 * canvas, gone with the first letter, listed by the checks, and never published.
 */
import type { Json } from '../page/json.ts'
import type { PageNode } from '../page/page.ts'
import type { BlockDefinition } from './define-block.ts'

/** A field without words, and what is asked for there. */
export interface OpenPrompt {
  readonly field: string
  readonly prompt: string
}

/** Whether a value has no words: no text, or spaces only, however deep in lists of runs, items or cells. */
export function isWordless(value: Json | undefined): boolean {
  if (typeof value === 'string') return value.trim() === ''
  if (Array.isArray(value)) return (value as readonly Json[]).every(isWordless)
  if (typeof value !== 'object' || value === null) return value === undefined || value === null
  const { text, runs, items, list } = value as Readonly<Record<string, Json>>
  return [text, runs, items, list].every(isWordless)
}

const WORD_CONTROLS: ReadonlySet<string> = new Set(['line', 'formatted-line', 'words', 'list'])

/** The content fields of a kind that hold words, which can be asked for. */
export function fieldsOfWords({ content }: BlockDefinition): string[] {
  return Object.entries(content.properties).flatMap(([field, { control }]) =>
    WORD_CONTROLS.has(control) ? [field] : [],
  )
}

/** What is asked for in a field; undefined where it has words, or nothing is asked for. */
export function promptAt(definition: BlockDefinition, node: PageNode, field: string): string | undefined {
  if (!isWordless(node.content[field])) return undefined
  const own = node.prompts
  if (own && Object.hasOwn(own, field)) return own[field]
  const { properties } = definition.content
  return Object.hasOwn(properties, field) ? properties[field]!.prompt : undefined
}

/** Whether an empty field has a place on the canvas all the same: its kind always has it, or this node asks for it. */
export function isAskedFor(definition: BlockDefinition, node: PageNode, field: string): boolean {
  const isOwn = node.prompts !== undefined && Object.hasOwn(node.prompts, field)
  return isOwn || definition.content.required.includes(field)
}

/** Every prompt of a node that still stands on the canvas, in the order of its kind's fields. */
export function openPrompts(definition: BlockDefinition, node: PageNode): OpenPrompt[] {
  const typed = definition.typedFields?.(node.content) ?? fieldsOfWords(definition)
  return typed.flatMap((field) => {
    const prompt = isAskedFor(definition, node, field) ? promptAt(definition, node, field) : undefined
    return prompt === undefined ? [] : [{ field, prompt }]
  })
}
