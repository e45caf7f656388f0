/** What components ask of their instances, and what is wrong with those. */
import { fieldsOf, fittingValue, valuesOf } from '../blocks/component-fields.ts'
import { fillsOf, shownInSlot, slotsOf } from '../blocks/component-slots.ts'
import type { Registry } from '../blocks/registry.ts'
import type { Finding } from '../checks/define-check.ts'
import { cutShort } from '../page/cut-short.ts'
import type { Json } from '../page/json.ts'
import { lineWords, type Line } from '../page/line.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { richTextWords, type RichText } from '../page/rich-text.ts'
import { linkedPart, type PartIn } from '../resolve/expand.ts'

/**
 * Returns the problems of the instances on a document: fields that lack something or say too much, and blocks that no slot
 * shows. `partOf` gives the parts that they show; an instance of a part that is not there has none.
 */
export function instanceFindings(
  document: Pick<Page, 'nodes'>,
  ids: Iterable<NodeId>,
  partOf: (id: string) => PartIn | undefined,
  registry: Registry,
): readonly Finding[] {
  const findings: Finding[] = []
  for (const nodeId of ids) {
    const instance = getNode(document, nodeId)
    const id = linkedPart(instance, registry)
    const part = id === undefined ? undefined : partOf(id)
    const root = part && findNode(part, part.root)
    if (!root) continue
    findings.push(
      ...fieldFindings(nodeId, { instance, part, root }, registry),
      ...slotFindings(document, { instance, part, root }, registry),
    )
  }
  return findings
}

/** An instance with the part that it shows, and the root of that. */
interface ShownInstance {
  readonly instance: PageNode
  readonly part: PartIn
  readonly root: PageNode
}

/** What an instance lacks, or says at too great a length, by the rules that its part has for its fields. */
function fieldFindings(
  nodeId: NodeId,
  { instance, part, root }: ShownInstance,
  registry: Registry,
): readonly Finding[] {
  const values = valuesOf(root, instance)
  return fieldsOf(root).flatMap((field): Finding[] => {
    const { name, required, longest } = field
    const value = values?.[field.id]
    const block = findNode(part, field.node)
    const said = value === undefined ? undefined : wordsOf(value)
    const length = value === undefined ? 0 : said === undefined ? 1 : [...said.trim()].length
    const found = (rule: string, severity: Finding['severity'], message: string): Finding[] => [
      { rule, severity, nodeId, message, source: 'a rule of the component' },
    ]
    const isOfOtherType =
      value !== undefined && block && fittingValue(block, field, value, registry) === undefined
    if (isOfOtherType) return found('field-type', 'error', otherTypeWords(name, said))
    if (required && length === 0) return found('field-required', 'error', `“${name}” is not filled in`)
    return longest !== undefined && length > longest
      ? found(
          'field-length',
          'warning',
          `“${name}” has ${length} characters; at most ${longest} are asked for`,
        )
      : []
  })
}

/** So much of what was filled in is quoted. */
const LONGEST_QUOTE = 80

/** What was filled in is nowhere else to be seen: it is quoted, so that it can be filled in again. */
function otherTypeWords(name: string, said: string | undefined): string {
  const short = cutShort(said?.trim() ?? '', LONGEST_QUOTE)
  const quoted =
    short === '' ? 'what was filled in' : `“${short}${short.length < said!.trim().length ? '…' : ''}”`
  return `“${name}” can’t show ${quoted}, since the field changed its type. Fill it in again.`
}

/** Blocks for slots that do not show them: the slot is not there any more, takes other blocks by now, or fewer. */
function slotFindings(
  { nodes }: Pick<Page, 'nodes'>,
  { instance, part, root }: ShownInstance,
  registry: Registry,
): readonly Finding[] {
  const slots = slotsOf(root)
  return [...fillsOf(instance, nodes, registry)].flatMap(([slotId, fill]): Finding[] => {
    const slot = slots.find((one) => one.id === slotId)
    const shown = slot ? shownInSlot(fill, slot, { nodes, partNodes: part.nodes, registry }) : []
    const hidden = fill.blocks.find((one) => !shown.includes(one))
    if (hidden === undefined) return []
    const message = slot
      ? `The slot “${slot.name}” does not take this, so it is not shown`
      : 'The component has no slot for this any more, so it is not shown'
    const source = 'the slots of the component'
    return [{ rule: 'slot-takes', severity: 'warning', nodeId: hidden, message, source }]
  })
}

/** The words of a text, formatted or not; undefined for a value that is no text. */
function wordsOf(value: Json): string | undefined {
  if (typeof value === 'string') return value
  if (!Array.isArray(value)) return undefined
  const blocks = value as unknown as RichText | Exclude<Line, string>
  const isText = blocks.some((one) => 'type' in one)
  return isText ? richTextWords(blocks as RichText).join(' ') : lineWords(blocks as Line)
}
