/** The JSON Schema (2020-12) of a stored or sent edit: its shape. What is inside nodes, the edit itself judges. */
import { ID_PATTERN } from '../page/id.ts'
import { SIZE_KEYS } from '../sizes/cascade.ts'

const id = { type: 'string', pattern: ID_PATTERN }
const name = { type: 'string', minLength: 1, maxLength: 64 }
const index = { type: 'integer', minimum: 0, maximum: 100_000 }

function edit(called: string, properties: object, optional: readonly string[] = []) {
  const required = Object.keys(properties).filter((key) => !optional.includes(key))
  return {
    type: 'object',
    properties: { edit: { const: called }, ...properties },
    required: ['edit', ...required],
    additionalProperties: false,
  }
}

const address = {
  type: 'array',
  oneOf: [
    { prefixItems: [{ enum: ['content', 'look'] }, name], minItems: 2, maxItems: 2 },
    { prefixItems: [{ const: 'sizes' }, { enum: SIZE_KEYS }, name], minItems: 3, maxItems: 3 },
    { prefixItems: [{ enum: ['name', 'lock'] }], minItems: 1, maxItems: 1 },
  ],
}

export const EDIT_SCHEMA = {
  type: 'object',
  required: ['edit'],
  discriminator: { propertyName: 'edit' },
  oneOf: [
    edit('insert', { parentId: id, slot: name, index, rootId: id, nodes: { type: 'object' } }),
    edit('remove', { nodeId: id }),
    edit('move', { nodeId: id, toParentId: id, toSlot: name, toIndex: index }),
    edit('set', { nodeId: id, at: address, value: {} }, ['value']),
  ],
}
