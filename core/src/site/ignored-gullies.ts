/** Gullies that somebody has looked at and left, each with a reason. They are kept in the root of the page. */
import { hiddenList, ID } from '../blocks/component-fields.ts'
import type { SetValue } from '../edits/edit-shapes.ts'
import type { FieldSchema } from '../kit/fields.ts'
import type { Gully } from '../measure/gully.ts'
import type { Json } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page } from '../page/page.ts'
import { originOf } from '../resolve/expand.ts'

export interface IgnoredGully {
  readonly rule: string
  readonly node: NodeId
  readonly reason: string
}

export const LONGEST_REASON = 300
const MOST_IGNORED = 200

export const IGNORED_FIELDS = {
  ignoredGullies: hiddenList('Ignored gullies', MOST_IGNORED, {
    rule: { type: 'string', pattern: '^[a-z][a-z-]{0,31}$' },
    node: ID,
    reason: { type: 'string', minLength: 1, maxLength: LONGEST_REASON },
  }),
} as const satisfies Readonly<Record<string, FieldSchema>>

type Identity = Pick<Gully, 'rule' | 'nodeId'>

const NONE: readonly IgnoredGully[] = []

/** All that is left on a page: the same list until another gully is left, or told of again. */
export function ignoredGullies(page: Page): readonly IgnoredGully[] {
  const ignored = getNode(page, page.root).content.ignoredGullies as unknown
  return (ignored as readonly IgnoredGully[] | undefined) ?? NONE
}

/**
 * Why a gully of the page with this root is among those that are left; undefined for one that is not. Of a block that is
 * shown many times, all are.
 */
export function reasonToIgnore(
  ignored: readonly IgnoredGully[],
  root: NodeId,
  { rule, nodeId }: Identity,
): string | undefined {
  const node = nodeId === undefined ? root : originOf(nodeId)
  return ignored.find((one) => one.rule === rule && one.node === node)?.reason
}

/** Leaves a gully for a reason, or, without one, tells of it again. */
export function ignoreEdit(page: Page, { rule, nodeId }: Identity, reason: string | undefined): SetValue {
  const node = nodeId === undefined ? page.root : originOf(nodeId)
  // Entries of blocks that are gone are dropped.
  const others = ignoredGullies(page).filter(
    (one) => (one.rule !== rule || one.node !== node) && findNode(page, one.node) !== undefined,
  )
  const value = reason === undefined ? others : [...others, { rule, node, reason }]
  const set = { edit: 'set', nodeId: page.root, at: ['content', 'ignoredGullies'] } as const
  return value.length === 0 ? set : { ...set, value: value as unknown as Json }
}
