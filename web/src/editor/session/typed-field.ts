/** What is typed in on the canvas: the words of a block, or what an instance says in a field of its component. */
import {
  componentField,
  fieldAt,
  findNode,
  getKind,
  instanceAround,
  isComponent,
  linkedPart,
  originOf,
  shownIdOf,
  type BlockDefinition,
  type Edit,
  type Json,
  type NodeId,
  type Registry,
  type ShownId,
} from '@gullyline/core'
import type { EditorState, Typing } from './editor-state.ts'
import { readField, topOf, withField } from './field-path.ts'

export interface TypedField {
  /** Of the block whose words are shown. */
  readonly kind: BlockDefinition
  readonly control: string | undefined
  readonly value: Json | undefined
  /** Whether it is a field of a component, and not a block of the document. */
  readonly isOfInstance: boolean
  readonly edit: (value: Json) => Edit
}

type Place = Pick<Typing, 'id' | 'field'>

/** The page, and the kinds that it is made of. */
interface Seen {
  readonly state: Pick<EditorState, 'page' | 'around'>
  readonly registry: Registry
}

/** What is typed in under a block and a field; undefined when it is not there any more. */
export function typedField({ state, registry }: Seen, { id, field }: Place): TypedField | undefined {
  const node = findNode(state.page, id)
  if (!node) return undefined
  const top = topOf(field)
  const own = getKind(registry, node.kind)
  if (!own.linksTo)
    return {
      kind: own,
      control: own.content.properties[top]?.control,
      value: readField(node.content, field),
      isOfInstance: false,
      edit: (value) => ({
        edit: 'set',
        nodeId: id,
        at: ['content', top],
        value: withField(node.content, field, value)[top]!,
      }),
    }
  const found = componentField(state.page, id, top, registry)
  if (!found) return undefined
  const content = found.value === undefined ? {} : { [top]: found.value }
  return {
    kind: getKind(registry, found.source.kind),
    control: found.schema.control,
    value: readField(content, field),
    isOfInstance: true,
    edit: (value) => ({
      edit: 'set',
      nodeId: id,
      at: ['values', top],
      value: withField(content, field, value)[top]!,
    }),
  }
}

/** Where what is typed is shown: the shown id of the block, and the name of its words there. */
export function shownPlace(
  { page, around }: Pick<EditorState, 'page' | 'around'>,
  { id, field }: Place,
  registry: Registry,
): { readonly shown: ShownId; readonly words: string; readonly origin: NodeId } {
  const own = shownIdOf(page, id, around, registry)
  const top = topOf(field)
  const found = findNode(page, id) ? componentField(page, id, top, registry)?.field : undefined
  if (!found) return { shown: own, words: field, origin: id }
  return { shown: `${own}/${found.node}`, words: found.key + field.slice(top.length), origin: found.node }
}

/**
 * The field of a component that words on the canvas are of: of the innermost instance that they stand in. `undefined` for
 * words that belong to the document itself, or to the component.
 */
export function fieldOfWords(
  { state, registry }: Seen,
  shown: ShownId,
  words: string,
): (Place & { readonly around: ShownId }) | undefined {
  const instance = instanceAround(shown)
  // In the instance that is worked in, the words are the component's own.
  if (instance === '' || instance === state.around) return undefined
  const id = originOf(instance)
  const key = topOf(words)
  const field = fieldAt(state.page, id, { node: originOf(shown), key }, registry)
  if (!field) return undefined
  return { id, field: field.id + words.slice(key.length), around: instanceAround(instance) }
}

/** The instance of a component that something shown belongs to; undefined for what is edited where it stands, also in the instance that is worked in. */
export function componentAround({ state, registry }: Seen, shown: ShownId): ShownId | undefined {
  const instance = instanceAround(shown)
  const isOther = instance !== '' && instance !== state.around
  const node = isOther ? findNode(state.page, originOf(instance)) : undefined
  const part = node && linkedPart(node, registry)
  return part !== undefined && isComponent({ nodes: state.page.nodes, root: part }) ? instance : undefined
}
