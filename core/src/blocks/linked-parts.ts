/** What the kinds are made with that show a part which stands on many pages. */
import type { JsonObject } from '../page/json.ts'
import { el } from '../kit/element.ts'
import { fields, partId, type FieldSchema } from '../kit/fields.ts'
import {
  COMPONENT_FIELDS,
  COMPONENT_VARIANTS,
  FIELDS_KEY,
  VARIANT_KEY,
  VARIANTS_KEY,
} from './component-fields.ts'
import { COMPONENT_SLOTS, FILLS_SLOT, SLOTS_KEY } from './component-slots.ts'
import { ID_PATTERN } from '../page/id.ts'
import type { BlockSpec } from './define-block.ts'

interface Content {
  /** The id of a document. */
  readonly part: string
}

/** The id of a variant of the part. It is chosen with the fields of the part, and not in the settings. */
const VARIANT: FieldSchema = {
  title: 'Variant',
  control: 'part',
  type: 'string',
  pattern: ID_PATTERN,
  hidden: true,
}

/** An instance of a part. The blocks of the part are shown in its place; it holds only the blocks for slots of the part. */
export function instanceOf(
  kind: string,
  group: 'section' | 'flow',
): BlockSpec<Content, JsonObject, JsonObject> {
  return {
    kind,
    version: 1,
    title: 'Shared section',
    about: 'Shows a shared section: what is changed in it changes wherever it stands',
    group,
    content: fields({ part: partId('Shared section'), [VARIANT_KEY]: VARIANT }, ['part']),
    look: fields({}),
    slots: { [FILLS_SLOT]: { title: 'Slots', allow: ['slot-fill'] } },
    linksTo: ({ part }) => part,
    // It is there itself only where there is nothing to be shown in its place.
    isEmpty: () => true,
    canvasRules: [
      {
        selector: `.${kind}::before`,
        declarations: {
          content: '"Nothing to show here"',
          display: 'block',
          padding: '1.5rem',
          border: '1px dashed #888',
          'text-align': 'center',
        },
      },
    ],
    render({ content }, context) {
      context.asksForPart(content.part)
      // What fills slots of a part that is not there can still be seen where it is edited.
      return el('div', { className: [kind] }, context.slot(FILLS_SLOT))
    },
    words: () => [],
  }
}

/** The root of a part: what is in it stands in the place of every instance. */
export function sharedRootOf(
  kind: string,
  allow: 'section' | 'flow',
): BlockSpec<JsonObject, JsonObject, JsonObject> {
  return {
    kind,
    version: 1,
    title: 'Shared section',
    about: 'The same wherever it stands: what is changed here changes on every page that shows it',
    group: 'root',
    content: fields({
      [FIELDS_KEY]: COMPONENT_FIELDS,
      [VARIANTS_KEY]: COMPONENT_VARIANTS,
      [SLOTS_KEY]: COMPONENT_SLOTS,
    }),
    look: fields({}),
    slots: { blocks: { title: 'Blocks', allow: [allow] } },
    render: (_node, context) => el('div', { className: [kind] }, context.slot('blocks')),
    words: () => [],
  }
}
