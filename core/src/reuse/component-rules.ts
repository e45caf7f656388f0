/** What components ask of their instances: fields that must be filled in, and how long what is said there may be. */
import { fieldsOf, fittingValue, valuesOf } from '../blocks/component-fields.ts'
import type { Registry } from '../blocks/registry.ts'
import type { Finding } from '../checks/define-check.ts'
import type { Json } from '../page/json.ts'
import { lineWords, type Line } from '../page/line.ts'
import { findNode, getNode, type NodeId, type Page } from '../page/page.ts'
import { richTextWords, type RichText } from '../page/rich-text.ts'
import { linkedPart, type PartIn } from '../resolve/expand.ts'
import { slotFindings } from './slot-edits.ts'

/** What is wrong with the instances of a document: with what they say in fields, and with what they have in slots. */
export function instanceFindings(...given: Parameters<typeof fieldFindings>): readonly Finding[] {
  return [...fieldFindings(...given), ...slotFindings(...given)]
}

/**
 * What the instances of a document lack, or say at too great a length, by the rules that their parts have for their fields.
 * `partOf` gives the parts that they show.
 */
function fieldFindings(
  document: Pick<Page, 'nodes'>,
  ids: Iterable<NodeId>,
  partOf: (id: string) => PartIn | undefined,
  registry: Registry,
): readonly Finding[] {
  const findings: Finding[] = []
  for (const nodeId of ids) {
    const node = getNode(document, nodeId)
    const id = linkedPart(node, registry)
    const part = id === undefined ? undefined : partOf(id)
    const root = part && findNode(part, part.root)
    if (!root) continue
    const values = valuesOf(root, node)
    for (const field of fieldsOf(root)) {
      const { name, required, longest } = field
      const value = values?.[field.id]
      const block = findNode(part, field.node)
      const length = value === undefined ? 0 : lengthOf(value)
      const found = (rule: string, severity: Finding['severity'], message: string): unknown =>
        findings.push({ rule, severity, nodeId, message, source: 'a rule of the component' })
      if (value !== undefined && block && fittingValue(block, field, value, registry) === undefined)
        found(
          'field-type',
          'error',
          `“${name}” can’t show what was filled in, since it is of another type by now`,
        )
      if (required && length === 0) found('field-required', 'error', `“${name}” is not filled in`)
      if (longest !== undefined && length > longest)
        found(
          'field-length',
          'warning',
          `“${name}” has ${length} characters; at most ${longest} are asked for`,
        )
    }
  }
  return findings
}

/** The characters of a text, formatted or not; 1 for a value that is no text. */
function lengthOf(value: Json): number {
  if (typeof value === 'string') return [...value].length
  if (!Array.isArray(value)) return 1
  const blocks = value as unknown as RichText | Exclude<Line, string>
  const isText = blocks.some((one) => 'type' in one)
  const words = isText ? richTextWords(blocks as RichText).join('') : lineWords(blocks as Line)
  return [...words.trim()].length
}
