import type { GridChild } from '../grid/arrangement.ts'
import type { Json, JsonObject } from '../page/json.ts'
import type { Link } from '../page/link.ts'
import type { NodeId, PageNode, SizeKey } from '../page/page.ts'
import type { Declarations, SizedRule } from '../kit/css-rules.ts'
import type { Element } from '../kit/element.ts'
import type { RenderContext } from '../kit/render-context.ts'
import type { SpotFact } from '../kit/spot.ts'
import { BAND_WIDTHS } from '../kit/band.ts'
import { choice, count, fields, toggle, type FieldSchema, type ObjectSchema } from '../kit/fields.ts'
import type { Turning } from './turning.ts'

/**
 * Where a kind may stand. `flow` is every block that can be placed freely inside containers; an `item` stands only in
 * slots that name its kind, such as a panel in panels.
 */
export type BlockGroup = 'root' | 'section' | 'flow' | 'item'

export interface SlotDefinition {
  readonly title: string
  /** Groups, and kinds by name. */
  readonly allow: readonly string[]
  readonly max?: number
  /** A selector for the element that its blocks stand in, in kinds that have several. */
  readonly element?: string
  /** Whether its blocks stand on columns and rows; see `grid/arrangement.ts`. */
  readonly isPlaced?: boolean
}

/** Whether a slot takes a kind at all. */
export function slotAllows(
  { allow }: Pick<SlotDefinition, 'allow'>,
  { kind, group }: Pick<BlockDefinition, 'kind' | 'group'>,
): boolean {
  return allow.includes(group) || allow.includes(kind)
}

/** The parts of a node that carry values, each with a schema of its own. */
export type NodePart = 'content' | 'look' | 'sizes'

/** A node whose parts are known to be valid for its kind. */
export interface TypedNode<C, L> {
  readonly id: NodeId
  readonly content: C
  readonly look: L
}

/** What `arrange` is given: the values in force at one size, and the parts that are the same at all sizes. */
export interface ArrangeInput<C, L, A> {
  readonly values: A
  /** Only the fields of `arrangedBy`. */
  readonly content: C
  readonly look: L
}

/** Declarations by selector suffix: '' is the node's own element, '>*' its children, and so on. */
export type ArrangedRules = Readonly<Record<string, Declarations>>

/**
 * How much room a container leaves each child: a function from the width it has to the width a child gets, both CSS
 * lengths without `calc()` around them. `undefined` where a child takes the whole width.
 */
export type ChildWidth<A> = (input: {
  readonly width: string
  readonly values: A
  readonly content: JsonObject
  readonly look: JsonObject
  readonly size: SizeKey
  readonly slot: string
  readonly childCount: number
  readonly childIndex: number
  /** The values in force of each child at the same size, made when asked for. */
  readonly childValues: () => readonly JsonObject[]
  /** In a placed slot: how many columns the child spans at a size, and of how many. */
  readonly placeOf?: (size: SizeKey) => {
    readonly columns: number
    readonly of: number
    /** On how many sides it reaches to the edge of the screen. */
    readonly bleeds: number
  }
}) => string | undefined

/** What a node's content says that checks have an opinion on. */
export interface Facts {
  readonly heading?: { readonly level: number; readonly text: string }
  /** Links with the words that are pressed; `link` is undefined for one that leads nowhere yet. */
  readonly links?: readonly {
    readonly words: string
    readonly link: Link | undefined
    /** True where a picture is pressed, which has no words but its alternative text. */
    readonly isPicture?: boolean
  }[]
  readonly pictures?: readonly {
    readonly id: string
    readonly alt: string | undefined
    readonly decoration: boolean
  }[]
  /** A name that other pages' links may point to. */
  readonly anchor?: string
  /** True when the heading gets an anchor made from its words where it was given none. */
  readonly anchored?: boolean
  /** What has no words though it should, such as "list item", in a block that is published all the same. */
  readonly empty?: readonly string[]
  /** What is missing, such as "picture", though the block can do without. */
  readonly missing?: readonly string[]
}

export interface BlockSpec<C, L, A> {
  /** Stored in documents: never renamed without `migrate`. */
  readonly kind: string
  readonly version: number
  /** The word for it in the interface, as it stands in a sentence's beginning: "Heading". */
  readonly title: string
  /** Several of them, as the word stands inside a sentence: "headings". */
  readonly plural?: string
  /** What it is for, in one line. */
  readonly about: string
  /** Other everyday names that people search for. */
  readonly synonyms?: readonly string[]
  readonly group: BlockGroup
  /** What people come for who place one; text where it is left out. */
  readonly purpose?: 'text' | 'pictures' | 'layout' | 'lists' | 'links'
  readonly content: ObjectSchema
  readonly look: ObjectSchema
  readonly arrangement?: ObjectSchema
  readonly slots?: Readonly<Record<string, SlotDefinition>>
  /** Rules for all blocks of this kind. Selectors start with a class that is the kind's name. */
  readonly rules?: readonly SizedRule[]
  /** Rules for them on the canvas alone, where what is empty must be seen. */
  readonly canvasRules?: readonly SizedRule[]
  arrange?(input: ArrangeInput<C, L, A>): ArrangedRules
  /** Rules for the places of its children at each size; for kinds with a placed slot, which use the spot's `children`. */
  placeChildren?(
    children: readonly GridChild[],
    node: Pick<PageNode, 'sizes'>,
  ): Readonly<Record<SizeKey, ArrangedRules>>
  /** Content fields that `arrange` reads. Nodes alike in these, their look and their sizes are arranged once for all. */
  readonly arrangedBy?: readonly (keyof C & string)[]
  /** For kinds that say running text. */
  readonly turning?: Turning<C>
  /** Whether it is called by the first heading in it, and not by its own words. */
  readonly isCalledByHeading?: boolean
  /** The kind that it becomes when its blocks are to be placed on a grid; and the kind that a grid becomes when they are to follow each other. */
  readonly placesAs?: string
  readonly flowsAs?: string
  /** Whether its blocks stand beside each other, all equally wide and beginning at its top. */
  isEvenRow?(values: A): boolean
  /** Whether blocks that need a holder get one of this kind; of items, every kind is one. */
  readonly isHolder?: boolean
  /** Whether its blocks stand beside each other and share its width, by shares that can be dragged. */
  readonly isShared?: boolean
  /** The id of the document that is shown in its place; see resolve/expand.ts. */
  linksTo?(content: C): string
  /** The id of the slot of a component that its blocks are for; see component-slots.ts. */
  fillsSlot?(content: C): string
  /** Whether it is a picture, and pressing it anywhere presses the picture. */
  readonly isPicture?: boolean
  /** Whether a field of its content or its look means nothing with this content. */
  hidesField?(content: C, field: string): boolean
  readonly childWidth?: ChildWidth<A>
  /** The width that the node takes of the `width` it is given; undefined where it takes all of it. */
  ownWidth?(input: { readonly width: string; readonly values: A }): string | undefined
  /**
   * How wide the node's own picture is laid out, as a multiple of the node's width; 1 where this is left out. `ratio` is
   * what `childRatio` of its container says.
   */
  pictureShare?(input: ArrangeInput<C, L, A> & { readonly ratio: number | undefined }): number
  /** Width over height that it gives the pictures in its slots. */
  childRatio?(values: A): number
  /** What `render` asks `spot` for; kinds that ask for nothing render alike wherever they stand. */
  readonly usesSpot?: readonly SpotFact[]
  /** True for kinds whose words come from the site or the rest of the page, and not from their own content. */
  readonly isDerived?: boolean
  /** The script that visitors' browsers need for it, by the name of its file in `behaviours/`; where `needs` says so. */
  readonly behaviour?: { readonly name: string; needs(node: TypedNode<C, L>): boolean }
  /** Whether its blocks may be wider than its content; see `IN_BAND`. */
  isBand?(content: C): boolean
  /** The slots that are shown, in their order on the page; all of them where this is left out. */
  shows?(content: C): readonly string[]
  /** Whether there is nothing in it to publish. `hasInside` tells whether blocks stand in it that are published. */
  isEmpty?(content: C, hasInside: boolean): boolean
  render(node: TypedNode<C, L>, context: RenderContext): Element
  /** The fields whose words the page shows with this content; all of them where this is left out. */
  typedFields?(content: C): readonly string[]
  /** Every word of the node's own content that a reader sees, in reading order. */
  words(content: C): readonly string[]
  /** What checks look at. A kind that holds nothing of the sort leaves it out. */
  facts?(content: C): Facts
}

/** A block kind, with the types of its parts forgotten: what the rest of the program works with. */
export interface BlockDefinition extends Omit<
  BlockSpec<JsonObject, JsonObject, JsonObject>,
  'arrangement' | 'slots' | 'rules' | 'plural'
> {
  readonly plural: string
  readonly arrangement: ObjectSchema
  readonly slots: Readonly<Record<string, SlotDefinition>>
  readonly rules: readonly SizedRule[]
}

const MOST_CELLS = 24
/** As many as the details list. */
const MOST_ROWS = 200
const MOST_LAYERS = 99

/** The field that says whether a block is shown at a size. */
export const SHOWN_KEY = 'shown'
/** Fields that every placed block has at every size. */
const COMMON_ARRANGEMENT: Readonly<Record<string, FieldSchema>> = { [SHOWN_KEY]: toggle('Shown', true) }
/** Fields that blocks have which can stand right in a band. */
const IN_BAND: Readonly<Record<string, FieldSchema>> = {
  band: { ...choice('Width', 'content', BAND_WIDTHS), onlyInBand: true },
}

/** Fields of blocks that can be placed on a grid; see `grid/arrangement.ts`. None has a default: where nothing is set, the place is derived. */
const IN_GRID: Readonly<Record<string, FieldSchema>> = {
  gridColumn: { ...count('Column', { from: 1, to: MOST_CELLS }), onlyInGrid: true, isDerived: true },
  gridRow: { ...count('Row', { from: 1, to: MOST_ROWS }), onlyInGrid: true, isDerived: true },
  gridColumns: { ...count('Columns wide', { from: 1, to: MOST_CELLS }), onlyInGrid: true, isDerived: true },
  gridRows: { ...count('Rows high', { from: 1, to: MOST_ROWS }), onlyInGrid: true, isDerived: true },
  layer: { ...count('Layer', { from: 0, to: MOST_LAYERS }), onlyInGrid: true },
  bleed: { ...toggle('Full bleed', false), onlyInGrid: true },
}

/** Completes a kind: fills in what it leaves out, and adds the fields that all placed blocks share. */
export function defineBlock<C, L = JsonObject, A = JsonObject>(spec: BlockSpec<C, L, A>): BlockDefinition {
  const own = spec.arrangement?.properties ?? {}
  // An instance hands these on to the blocks of its part; see `resolve/handed-on.ts`. How wide they are, they say themselves.
  const inBand = spec.linksTo ? {} : IN_BAND
  const placed = {
    ...(spec.group === 'flow' ? { ...inBand, ...IN_GRID } : {}),
    ...own,
    ...COMMON_ARRANGEMENT,
  }
  // What gives its place to others has no place of its own to arrange.
  const arrangement = spec.group === 'root' || spec.fillsSlot ? own : placed
  return {
    // The parts of a node are checked against the kind's schemas before anything here sees them.
    ...(spec as unknown as BlockSpec<JsonObject, JsonObject, JsonObject>),
    plural: spec.plural ?? `${spec.title.toLowerCase()}s`,
    arrangement: fields(arrangement),
    slots: spec.slots ?? {},
    rules: spec.rules ?? [],
  }
}

/** The schema of one part of a kind's nodes. */
export function partSchema(definition: BlockDefinition, part: NodePart): ObjectSchema {
  return part === 'sizes' ? definition.arrangement : definition[part]
}

/** The node's words as one line, for lists and sentences; empty when it has none of its own. */
export function firstWords(definition: BlockDefinition, node: PageNode): string {
  return definition.words(node.content).join(' ').replace(/\s+/g, ' ').trim()
}

/** A new node of this kind, with the default of every required field, overlaid by what is given. */
export function newNode(
  definition: BlockDefinition,
  given: Partial<Pick<PageNode, 'content' | 'look' | 'sizes' | 'slots' | 'name' | 'prompts'>> = {},
): PageNode {
  const slots = Object.fromEntries(Object.keys(definition.slots).map((slot) => [slot, [] as NodeId[]]))
  return {
    kind: definition.kind,
    content: { ...requiredDefaults(definition.content), ...given.content },
    look: { ...requiredDefaults(definition.look), ...given.look },
    sizes: given.sizes ?? { base: {} },
    slots: { ...slots, ...given.slots },
    ...(given.name === undefined ? {} : { name: given.name }),
    ...(given.prompts === undefined ? {} : { prompts: given.prompts }),
  }
}

function requiredDefaults(schema: ObjectSchema): JsonObject {
  const values: Record<string, Json> = {}
  for (const key of schema.required) values[key] = schema.properties[key]?.default ?? null
  return values
}
