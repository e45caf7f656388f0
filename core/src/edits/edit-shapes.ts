/** The shapes of edits: small JSON values that can be kept, sent and undone. What each does stands in a file of its own. */
import type { Json } from '../page/json.ts'
import type { NodeId, Nodes, SizeKey } from '../page/page.ts'

/**
 * Puts a subtree on the page. `nodes` holds the subtree's nodes and no others, none of whose ids the page has;
 * `index` is from 0 to the number of children in the slot, inclusive.
 */
export interface Insert {
  readonly edit: 'insert'
  readonly parentId: NodeId
  readonly slot: string
  readonly index: number
  readonly rootId: NodeId
  readonly nodes: Nodes
}

/** Takes a node and all inside it off the page. The root stays. */
export interface Remove {
  readonly edit: 'remove'
  readonly nodeId: NodeId
}

/**
 * Moves a node with all inside it. `toIndex` counts the children of the slot it moves to after the node was taken
 * out: from 0 to their number, inclusive.
 */
export interface Move {
  readonly edit: 'move'
  readonly nodeId: NodeId
  readonly toParentId: NodeId
  readonly toSlot: string
  readonly toIndex: number
}

/** Which value of a node: a field of its content or look, a field at one size, its name, or how it is locked. */
export type ValueAddress =
  | readonly ['content' | 'look', string]
  | readonly ['sizes', SizeKey, string]
  | readonly ['name' | 'lock']
  /** A field of an instance, by its id. */
  | readonly ['values', string]

/** Gives a value to one field of a node. Without `value` the field is taken away, which puts it back to what it inherits. */
export interface SetValue {
  readonly edit: 'set'
  readonly nodeId: NodeId
  readonly at: ValueAddress
  readonly value?: Json
}

export type Edit = Insert | Remove | Move | SetValue
export type EditName = Edit['edit']
