import type { Check } from './define-check.ts'

/** Something that a block is made for and has not, such as the picture of a hero. */
export const missingPart: Check = {
  rule: 'missing-part',
  severity: 'warning',
  source: 'common practice, no source',
  find: ({ nodes, registry }) =>
    nodes.flatMap(({ id, node, facts }) =>
      (facts.missing ?? []).map((what) => ({
        nodeId: id,
        message: `This ${(registry.kinds.get(node.kind)?.title ?? node.kind).toLowerCase()} has no ${what}`,
      })),
    ),
}
