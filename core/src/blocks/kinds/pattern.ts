import { defineBlock } from '../define-block.ts'
import { fields } from '../../kit/fields.ts'
import { el } from '../../kit/element.ts'

/** What a saved pattern is stored as: the blocks or sections that a copy of it brings. It never stands on a page itself. */
export const pattern = defineBlock({
  kind: 'pattern',
  version: 1,
  title: 'Pattern',
  about: 'A ready arrangement of blocks or sections',
  group: 'root',
  content: fields({}),
  look: fields({}),
  slots: { blocks: { title: 'Blocks', allow: ['section', 'flow'] } },
  render: (_node, context) => el('div', { className: ['pattern'] }, context.slot('blocks')),
  words: () => [],
})
