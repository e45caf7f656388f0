/**
 * Changes that may mend a gully: small ones of how a block, or what it stands in, is arranged at the sizes where it is wrong.
 * Whether one does is not reasoned about here: each is laid out and measured before it is offered.
 */
import type { BlockDefinition, NodePart } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { describeNode } from '../edits/describe.ts'
import type { Edit, SetValue } from '../edits/edit-shapes.ts'
import { gridOf, placeBlocksEdits, placesAt } from '../edits/grid-places.ts'
import { overlap, rowEnd } from '../grid/placed.ts'
import { SCALES, STEP_WORDS } from '../look/scales.ts'
import type { Json } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode, type SizeKey } from '../page/page.ts'
import { ancestry } from '../page/walk.ts'
import { originOf } from '../resolve/expand.ts'
import { cascadeValue } from '../sizes/cascade.ts'
import { sizeAt, type WithSizes } from '../sizes/site-sizes.ts'
import type { Gully } from './gully.ts'

export interface Fix {
  /** What it does, as a command. */
  readonly title: string
  readonly edits: readonly Edit[]
}

interface MoveInput {
  readonly key: string
  readonly value: Json | undefined
  /** The values that the field may have, in their order; empty where it has no list of them. */
  readonly options: readonly string[]
}

/** One kind of change: which field it is of, and which value it gets. */
interface Move {
  readonly title: (value: Json) => string
  readonly part: NodePart
  /** The keys of fields that mean this. */
  readonly keys: readonly string[]
  /** The new value; undefined where there is none. */
  readonly next: (input: MoveInput) => Json | undefined
}

const COLUMNS = ['columns', 'shows']
const GAPS = ['gap']
const PADDINGS = ['room', 'inset']

const MOVES = {
  wrap: {
    title: () => 'Wrap',
    part: 'sizes',
    keys: ['wrap'],
    next: ({ value }) => (value === true ? undefined : true),
  },
  stack: {
    title: () => 'Stack vertically',
    part: 'sizes',
    keys: ['direction'],
    next: ({ value, options }) => (value !== 'down' && options.includes('down') ? 'down' : undefined),
  },
  fewerColumns: { title: columnsTitle, part: 'sizes', keys: COLUMNS, next: (input) => counted(input, -1) },
  oneColumn: {
    title: columnsTitle,
    part: 'sizes',
    keys: COLUMNS,
    next: ({ value, options }) => (options.includes('1') && Number(value) > 2 ? '1' : undefined),
  },
  moreColumns: { title: columnsTitle, part: 'sizes', keys: COLUMNS, next: (input) => counted(input, 1) },
  equalWidths: {
    title: () => 'Equal widths',
    part: 'sizes',
    keys: ['share'],
    next: ({ value, options }) => (options.includes('equal') && value !== 'equal' ? 'equal' : undefined),
  },
  contentHeight: {
    title: () => 'Height by content',
    part: 'sizes',
    keys: ['height'],
    next: ({ value }) => (value === 'content' ? undefined : 'content'),
  },
  contentWidth: {
    title: () => 'Content width',
    part: 'sizes',
    keys: ['band'],
    next: ({ value }) => (value === 'content' ? undefined : 'content'),
  },
  textWidth: {
    title: () => 'Text width',
    part: 'sizes',
    keys: ['width'],
    next: ({ value, options }) =>
      options.includes('reading') && value !== 'reading' ? 'reading' : undefined,
  },
  broadWidth: {
    title: () => 'Wide section',
    part: 'sizes',
    keys: ['width'],
    next: ({ value, options }) => (value === 'reading' && options.includes('broad') ? 'broad' : undefined),
  },
  smallerText: {
    title: textTitle,
    part: 'sizes',
    keys: ['step'],
    next: (input) => stepped(input, SCALES.type, -1),
  },
  smallestText: {
    title: textTitle,
    part: 'sizes',
    keys: ['step'],
    next: (input) => stepped(input, SCALES.type, -2) ?? stepped(input, SCALES.type, -1),
  },
  largerText: {
    title: textTitle,
    part: 'sizes',
    keys: ['step'],
    // Of a size of one's own, the size of text.
    next: (input) => (isOwnSize(input) ? 'body' : stepped(input, SCALES.type, 1)),
  },
  largerGap: {
    title: () => 'Larger gap',
    part: 'sizes',
    keys: GAPS,
    next: (input) => stepped(input, SCALES.space, 1),
  },
  muchLargerGap: {
    title: () => 'Much larger gap',
    part: 'sizes',
    keys: GAPS,
    next: (input) => stepped(input, SCALES.space, 3),
  },
  smallerGap: {
    title: () => 'Smaller gap',
    part: 'sizes',
    keys: GAPS,
    next: (input) => stepped(input, SCALES.space, -2) ?? stepped(input, SCALES.space, -1),
  },
  lessPadding: {
    title: () => 'Less padding',
    part: 'sizes',
    keys: PADDINGS,
    next: (input) => stepped(input, SCALES.space, -2) ?? stepped(input, SCALES.space, -1),
  },
  widerCrop: {
    title: () => 'Flatter crop',
    part: 'sizes',
    keys: ['ratio'],
    next: ({ value, options }) => (options.includes('16/9') && value !== '16/9' ? '16/9' : undefined),
  },
  mediumPicture: {
    title: () => 'Picture at most 640 px',
    part: 'sizes',
    keys: ['most'],
    next: ({ value, options }) => (options.includes('large') && value === 'none' ? 'large' : undefined),
  },
  smallPicture: {
    title: () => 'Picture at most 420 px',
    part: 'sizes',
    keys: ['most'],
    next: ({ value, options }) =>
      options.includes('medium') && (value === 'none' || value === 'large') ? 'medium' : undefined,
  },
  fullPicture: {
    title: () => 'Picture at full width',
    part: 'sizes',
    keys: ['most'],
    next: ({ value }) => (value === 'none' ? undefined : 'none'),
  },
  evenShade: {
    title: () => 'Light overlay',
    part: 'look',
    keys: ['shade'],
    next: ({ value, options }) =>
      options.includes('even') && value !== 'even' && value !== 'deep' ? 'even' : undefined,
  },
  deepShade: {
    title: () => 'Strong overlay',
    part: 'look',
    keys: ['shade'],
    next: ({ value, options }) => (options.includes('deep') && value !== 'deep' ? 'deep' : undefined),
  },
  panel: {
    title: () => 'Text on a panel',
    part: 'look',
    keys: ['variant'],
    next: ({ value, options }) => (options.includes('panel') && value !== 'panel' ? 'panel' : undefined),
  },
  hide: {
    title: () => 'Hide at this size',
    part: 'sizes',
    keys: ['shown'],
    next: ({ value }) => (value === false ? undefined : false),
  },
} as const satisfies Readonly<Record<string, Move>>

type MoveName = keyof typeof MOVES

const ROOM: readonly MoveName[] = [
  'wrap',
  'stack',
  'fewerColumns',
  'oneColumn',
  'equalWidths',
  'contentHeight',
  'contentWidth',
  'smallerText',
  'smallestText',
  'lessPadding',
  'smallerGap',
  'smallPicture',
  'broadWidth',
  'hide',
]

/** What may mend each rule, the gentlest first. */
const MOVES_FOR: Readonly<Record<string, readonly MoveName[]>> = {
  sideways: ROOM,
  'fixed-width': ROOM,
  outside: ROOM,
  'cut-text': ROOM,
  'covered-text': ROOM,
  'text-resized': ROOM,
  'text-spacing': ROOM,
  'broken-word': ROOM,
  'tall-heading': ['broadWidth', ...ROOM],
  'short-lines': ['broadWidth', ...ROOM],
  'picture-contrast': ['evenShade', 'deepShade', 'panel', 'hide'],
  'small-target': ['largerGap', 'muchLargerGap', 'stack', 'largerText', 'hide'],
  'focus-order': ['stack', 'hide'],
  'small-text': ['largerText', 'hide'],
  'long-lines': ['textWidth', 'contentWidth', 'largerText', 'moreColumns', 'hide'],
  'last-row': ['fewerColumns', 'moreColumns', 'oneColumn', 'stack', 'hide'],
  'blurred-picture': [
    'mediumPicture',
    'smallPicture',
    'contentWidth',
    'moreColumns',
    'widerCrop',
    'textWidth',
    'hide',
  ],
  'heavy-picture': ['fullPicture', 'fewerColumns', 'oneColumn', 'stack', 'hide'],
  jump: ['moreColumns', 'stack', 'fewerColumns', 'hide'],
}

/** Changes that may mend a gully, the gentlest first; of each kind of change that of the nearest block. */
export function fixCandidates(page: Page, gully: Gully, { registry, look }: FixContext): readonly Fix[] {
  const id = gully.nodeId === undefined ? undefined : originOf(gully.nodeId)
  if (id === undefined || !findNode(page, id)) return []
  const around = ancestry(page, id).filter(
    (one) => getKind(registry, getNode(page, one).kind).group !== 'root',
  )
  const near = [...around, ...Object.values(getNode(page, id).slots).flat()]
  const sizes = sizesIn(gully, look)
  const after = look.sizes.map(({ key }) => key).find((key) => key > sizes.at(-1)!)
  const below = gully.rule === 'covered-text' ? belowOthers(page, id, { sizes, registry }) : undefined
  const moved = (MOVES_FOR[gully.rule] ?? []).flatMap((name) => {
    const move: Move = MOVES[name]
    for (const one of name === 'hide' ? [id] : near) {
      const fix = fixOf(page, one, { move, sizes, after, registry })
      if (fix)
        return [one === id ? fix : { ...fix, title: `${fix.title}: ${describeNode(page, one, registry)}` }]
    }
    return []
  })
  const found = below ? [below, ...moved] : moved
  return found.filter(({ title }, i) => found.findIndex((one) => one.title === title) === i)
}

/** Puts a block of a grid section below all that it lies under or over. */
function belowOthers(
  page: Page,
  id: NodeId,
  { sizes, registry }: { readonly sizes: readonly SizeKey[]; readonly registry: Registry },
): Fix | undefined {
  const own = ancestry(page, id).find((one) => gridOf(page, one, registry) !== undefined)
  const gridId = own === undefined ? undefined : gridOf(page, own, registry)
  if (own === undefined || gridId === undefined) return undefined
  const edits = sizes.flatMap((size) => {
    const { placed } = placesAt(page, gridId, { registry, size })
    const place = placed.find((one) => one.id === own)
    if (!place) return []
    let row = place.row
    for (let hit = placed; hit.length > 0; row = Math.max(row, ...hit.map(rowEnd)))
      hit = placed.filter((one) => one.id !== own && overlap({ ...place, row }, one))
    return placeBlocksEdits(placed, [{ ...place, row }], size)
  })
  return edits.length === 0 ? undefined : { title: 'Move below', edits }
}

export interface FixContext {
  readonly registry: Registry
  /** The look of the site, for its sizes. */
  readonly look: WithSizes
}

/** The sizes that a gully reaches into, wide to narrow: what is set at a wider one is inherited, and need not be set again. */
function sizesIn({ from, to }: Gully, look: WithSizes): readonly SizeKey[] {
  const [widest, narrowest] = [sizeAt(to, look), sizeAt(from, look)]
  return look.sizes.map(({ key }) => key).filter((key) => key >= widest && key <= narrowest)
}

interface FixInput {
  readonly move: Move
  readonly sizes: readonly SizeKey[]
  /** The next narrower size, which the gully does not reach. */
  readonly after: SizeKey | undefined
  readonly registry: Registry
}

function fixOf(page: Page, id: NodeId, { move, sizes, after, registry }: FixInput): Fix | undefined {
  const node = getNode(page, id)
  const definition = getKind(registry, node.kind)
  for (const key of move.keys) {
    if (move.part !== 'sizes') {
      const field = definition.look.properties[key]
      const value =
        field && move.next({ key, value: node.look[key] ?? field.default, options: optionsOf(field) })
      if (value !== undefined)
        return { title: move.title(value), edits: [{ edit: 'set', nodeId: id, at: ['look', key], value }] }
      continue
    }
    const edits = sizes.flatMap((size, i) => {
      const isInherited = i > 0 && node.sizes[size]?.[key] === undefined
      return isInherited ? [] : (setAt({ id, node, definition }, { move, key, size }) ?? [])
    })
    if (edits.length > 0)
      return {
        title: move.title(edits[0]!.value!),
        edits: [...edits, ...shownAgain(node, { id, move, after })],
      }
  }
  return undefined
}

/** What is hidden is shown again at the next narrower size, where nobody set it: the gully does not reach there. */
function shownAgain(
  node: PageNode,
  { id, move, after }: { readonly id: NodeId } & Pick<FixInput, 'move' | 'after'>,
): readonly Edit[] {
  if (move !== MOVES.hide || after === undefined || node.sizes[after]?.shown !== undefined) return []
  return [{ edit: 'set', nodeId: id, at: ['sizes', after, 'shown'], value: true }]
}

interface OneNode {
  readonly id: NodeId
  readonly node: PageNode
  readonly definition: BlockDefinition
}

function setAt(
  { id, node, definition }: OneNode,
  { move, key, size }: { readonly move: Move; readonly key: string; readonly size: SizeKey },
): SetValue | undefined {
  const field = definition.arrangement.properties[key]
  if (!field) return undefined
  const { value } = cascadeValue(node, definition.arrangement, size, key)
  const inherited = field.inherits?.gives?.[textOf(node.content[field.inherits.key])]
  const isInherited = inherited !== undefined && value === field.default
  const next = move.next({ key, value: isInherited ? inherited : value, options: optionsOf(field) })
  return next === undefined ? undefined : { edit: 'set', nodeId: id, at: ['sizes', size, key], value: next }
}

function optionsOf({
  words,
  scale,
}: {
  readonly words?: Readonly<Record<string, string>>
  readonly scale?: keyof typeof SCALES
}) {
  return scale ? SCALES[scale] : Object.keys(words ?? {})
}

function counted({ value, options }: MoveInput, by: number): Json | undefined {
  const next = String(Number(value) + by)
  return options.includes(next) ? next : undefined
}

function stepped({ value }: MoveInput, scale: readonly string[], by: number): Json | undefined {
  const at = scale.indexOf(textOf(value))
  return at < 0 ? undefined : scale[at + by]
}

function isOwnSize({ value }: MoveInput): boolean {
  return /^\d/.test(textOf(value))
}

function columnsTitle(value: Json): string {
  return value === '1' ? '1 column' : `${textOf(value)} columns`
}

function textTitle(value: Json): string {
  return `Text size: ${STEP_WORDS.type[textOf(value)] ?? textOf(value)}`
}

/** A choice or a step as it is named; empty for anything else. */
function textOf(value: Json | undefined): string {
  return typeof value === 'string' || typeof value === 'number' ? String(value) : ''
}
