/** What was filled in for a field of one type, for a field of another: only where nothing of it is lost. */
import type { Json, JsonObject } from '../page/json.ts'
import { toLine } from '../page/line.ts'
import type { PageNode } from '../page/page.ts'
import type { RichText, Run } from '../page/rich-text.ts'
import type { NodePart } from './define-block.ts'
import type { Registry } from './registry.ts'

/** Whether a block can have a value under a key of its content or its look. */
export function canHave(
  node: PageNode,
  part: Exclude<NodePart, 'sizes'>,
  key: string,
  value: Json,
  registry: Registry,
): boolean {
  return registry.check(node.kind, part, { ...node[part], [key]: value }).length === 0
}

/**
 * The value as a block can have it under a key: itself, or in another form that says all of it. Undefined where that
 * can't be: two paragraphs are no line, and bold text is no plain text.
 */
export function convertedValue(
  node: PageNode,
  part: Exclude<NodePart, 'sizes'>,
  key: string,
  value: Json,
  registry: Registry,
): Json | undefined {
  return [value, ...otherForms(value)].find((form) => canHave(node, part, key, form, registry))
}

/** Everything that says the same as a value. */
function otherForms(value: Json): readonly Json[] {
  if (typeof value === 'number') return [String(value), paragraphOf([{ text: String(value) }])]
  const runs = runsOf(value)
  if (!runs) return []
  const line = toLine(runs)
  const isNumber = typeof line === 'string' && line.trim() !== '' && String(Number(line)) === line.trim()
  return [line as Json, ...(isNumber ? [Number(line)] : []), paragraphOf(runs)]
}

function paragraphOf(runs: readonly Run[]): Json {
  const text: RichText = [{ type: 'paragraph', runs }]
  return text as unknown as Json
}

/** The runs of a value that is one line of text, formatted or not; undefined for any other. */
function runsOf(value: Json): readonly Run[] | undefined {
  if (typeof value === 'string') return value === '' ? [] : [{ text: value }]
  if (!Array.isArray(value)) return undefined
  const list = value as readonly JsonObject[]
  if (list.length === 1 && list[0]?.type === 'paragraph') {
    const { runs } = list[0] as unknown as { readonly runs: readonly Run[] }
    // A line has no breaks.
    return Array.isArray(runs) && runs.every((run) => isRun(run) && !run.text.includes('\n'))
      ? runs
      : undefined
  }
  return list.every(isRun) ? value : undefined
}

function isRun(value: unknown): value is Run {
  return typeof value === 'object' && value !== null && typeof (value as Partial<Run>).text === 'string'
}
