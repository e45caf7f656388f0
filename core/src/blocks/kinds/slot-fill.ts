import { el } from '../../kit/element.ts'
import { fields, partId } from '../../kit/fields.ts'
import { FILL_BLOCKS } from '../component-slots.ts'
import { defineBlock } from '../define-block.ts'

interface Content {
  /** The id of a slot of the part. */
  readonly slot: string
}

/** What an instance fills a slot of its part with. Its blocks are shown where that slot is. */
export const slotFill = defineBlock<Content>({
  kind: 'slot-fill',
  version: 1,
  title: 'Slot',
  about: 'What a component shows in one of its slots here',
  group: 'item',
  content: fields({ slot: partId('Slot') }, ['slot']),
  look: fields({}),
  // What of these a slot takes, its part says.
  slots: { [FILL_BLOCKS]: { title: 'Blocks', allow: ['flow', 'column', 'panel', 'slide', 'voice'] } },
  fillsSlot: ({ slot }) => slot,
  isEmpty: (_content, hasInside) => !hasInside,
  render: (_node, context) => el('div', { className: ['slot-fill'] }, context.slot(FILL_BLOCKS)),
  words: () => [],
})
