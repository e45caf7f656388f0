import { partSchema } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { validateLock, validateName, validateValues } from '../blocks/validate-page.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { findNode, getNode, type PageNode } from '../page/page.ts'
import { withNodes } from '../page/with-nodes.ts'
import { sizeWord } from '../sizes/site-sizes.ts'
import { isSizeKey, SIZE_KEY_PATTERN } from '../sizes/size-keys.ts'
import { defineEdit, ID, NAME } from './define-edit.ts'
import { describeNode } from './describe.ts'
import type { SetValue, ValueAddress } from './edit-shapes.ts'
import { refuse } from './result.ts'

const ADDRESS = {
  type: 'array',
  oneOf: [
    { prefixItems: [{ enum: ['content', 'look', 'values'] }, NAME], minItems: 2, maxItems: 2 },
    {
      prefixItems: [{ const: 'sizes' }, { type: 'string', pattern: SIZE_KEY_PATTERN }, NAME],
      minItems: 3,
      maxItems: 3,
    },
    { prefixItems: [{ enum: ['name', 'lock'] }], minItems: 1, maxItems: 1 },
  ],
}

export const set = defineEdit<SetValue>({
  fields: { nodeId: ID, at: ADDRESS, value: {} },
  optional: ['value'],
  apply(page, edit, registry) {
    const node = findNode(page, edit.nodeId)
    if (!node) return refuse('unknown-node', `There is no block "${edit.nodeId}" on this page`, edit.nodeId)
    const next = withValue(node, edit.at, edit.value)
    const problem = findProblem(next, edit.at, registry)
    if (problem) {
      return refuse('not-valid', `${fieldTitle(node, edit.at, registry)}: ${problem}`, edit.nodeId)
    }
    const before = readValue(node, edit.at)
    return {
      ok: true,
      page: { ...page, nodes: withNodes(page.nodes, { [edit.nodeId]: next }) },
      inverse: {
        edit: 'set',
        nodeId: edit.nodeId,
        at: edit.at,
        ...(before === undefined ? {} : { value: before }),
      },
    }
  },
  sentence(before, edit, registry, sizes) {
    const node = getNode(before, edit.nodeId)
    const size = edit.at[0] === 'sizes' && edit.at[1] !== 'base' ? ` at ${sizeWord(edit.at[1], sizes)}` : ''
    const verb = edit.value === undefined ? 'Reset' : 'Changed'
    const field = fieldTitle(node, edit.at, registry).toLowerCase()
    return `${verb} ${field} of ${describeNode(before, edit.nodeId, registry)}${size}`
  },
  /** Letters typed into one field are one edit. */
  merge: (first, next) =>
    first.nodeId === next.nodeId && first.at.join('/') === next.at.join('/') ? next : undefined,
})

/** The value at an address, or undefined where none is set. */
export function readValue(node: PageNode, at: ValueAddress): Json | undefined {
  if (at[0] === 'name' || at[0] === 'lock') return node[at[0]]
  const values = at[0] === 'sizes' ? (node.sizes[at[1]] ?? {}) : (node[at[0]] ?? {})
  const key = at[at.length - 1]!
  return Object.hasOwn(values, key) ? values[key] : undefined
}

function withValue(node: PageNode, at: ValueAddress, value: Json | undefined): PageNode {
  if (at.length === 1) {
    const { [at[0]]: _value, ...rest } = node
    return value === undefined ? rest : { ...rest, [at[0]]: value }
  }
  if (at[0] === 'values') return withOwnValue(node, at[1], value)
  if (at[0] !== 'sizes') return { ...node, [at[0]]: withKey(node[at[0]], at[1], value) }
  const [, size, key] = at
  const values = withKey(node.sizes[size] ?? {}, key, value)
  const { [size]: _values, ...others } = node.sizes
  const keep = size === 'base' || Object.keys(values).length > 0
  return { ...node, sizes: (keep ? { ...others, [size]: values } : others) as PageNode['sizes'] }
}

/** Without any values of its own, an instance has no place for them. */
function withOwnValue(node: PageNode, field: string, value: Json | undefined): PageNode {
  const { values = {}, ...rest } = node
  const next = withKey(values, field, value)
  return Object.keys(next).length === 0 ? rest : { ...rest, values: next }
}

function withKey(values: JsonObject, key: string, value: Json | undefined): JsonObject {
  if (value !== undefined) return { ...values, [key]: value }
  const { [key]: _value, ...rest } = values
  return rest
}

function findProblem(node: PageNode, at: ValueAddress, registry: Registry): string | undefined {
  if (at[0] === 'name') return validateName(node.name)[0]?.message
  if (at[0] === 'lock') return validateLock(node.lock)[0]?.message
  if (at[0] === 'values') return validateValues(node, registry)[0]?.message
  if (at[0] === 'sizes' && !isSizeKey(at[1])) return `there is no size "${String(at[1])}"`
  const values = at[0] === 'sizes' ? (node.sizes[at[1]] ?? {}) : node[at[0]]
  return registry.check(node.kind, at[0], values)[0]?.message
}

function fieldTitle(node: PageNode, at: ValueAddress, registry: Registry): string {
  if (at[0] === 'name') return 'Name'
  if (at[0] === 'lock') return 'Lock'
  const key = at[at.length - 1]!
  // What a field is called, its part says, which is another document.
  if (at[0] === 'values') return 'Field'
  const { properties } = partSchema(getKind(registry, node.kind), at[0])
  return (Object.hasOwn(properties, key) ? properties[key]?.title : undefined) ?? key
}
