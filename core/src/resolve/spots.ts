import { cascade } from '../sizes/cascade.ts'
import { sizesSet } from '../sizes/size-keys.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { fluidCss, type Look } from '../look/look.ts'
import {
  arrangedAt,
  arrangeGrid,
  bleedAt,
  type ArrangedGrid,
  type GridChild,
  type PlaceValues,
} from '../grid/arrangement.ts'
import { columnsOf } from '../grid/columns.ts'
import { getNode, type NodeId, type Page, type PageNode, type SizeKey } from '../page/page.ts'
import { sameJson, type JsonObject } from '../page/json.ts'
import { ancestry, findPlace } from '../page/walk.ts'
import type { Holder, OutlineEntry, Spot, SpotFact } from '../kit/spot.ts'
import { anchorAt, outlineOf } from './outline.ts'

/** Whether two spots are certainly alike. */
export function sameSpot(a: Spot, b: Spot): boolean {
  return (
    a === b ||
    (a.pictureSizes === b.pictureSizes &&
      a.early === b.early &&
      a.anchor === b.anchor &&
      sameOutline(a.outline, b.outline) &&
      a.bare === b.bare &&
      sameChildren(a.children, b.children) &&
      sameHolder(a.holder, b.holder))
  )
}

function sameOutline(a: Spot['outline'], b: Spot['outline']): boolean {
  if (a === b) return true
  if (!a || !b || a.length !== b.length) return false
  return a.every((one, i) => one === b[i] || sameEntry(one, b[i]!))
}

function sameChildren(a: Spot['children'], b: Spot['children']): boolean {
  if (a === b) return true
  if (!a || !b || a.length !== b.length) return false
  return a.every(
    (one, i) => one.id === b[i]!.id && sameValues(one.places as JsonObject, b[i]!.places as JsonObject),
  )
}

function sameEntry(a: OutlineEntry, b: OutlineEntry): boolean {
  return a.id === b.id && a.anchor === b.anchor && a.text === b.text && a.level === b.level
}

function sameHolder(a: Holder | undefined, b: Holder | undefined): boolean {
  if (a === b) return true
  if (!a || !b || a.id !== b.id || a.index !== b.index) return false
  // Setting a value that was set already makes a new object with the same values.
  return sameValues(a.content, b.content) && sameValues(a.look, b.look)
}

function sameValues(a: JsonObject, b: JsonObject): boolean {
  return a === b || sameJson(a, b)
}

/** Sections from the top whose pictures load at once: what the first screen is likely to show. */
const EARLY_SECTIONS = 1

/** For kinds that render alike wherever they stand. */
export const ANY_SPOT: Spot = {}

/** Where a node is looked for: on a page, in a site's look. */
export interface Surroundings {
  readonly page: Page
  readonly registry: Registry
  readonly look: Look
  /** See `Spot`. */
  readonly isBare?: boolean
}

/** What a node must know of the place where it stands on this page. */
export function spotOf(at: Surroundings, id: NodeId): Spot {
  const facts = getKind(at.registry, getNode(at.page, id).kind).usesSpot
  if (!facts) return ANY_SPOT
  const [first, ...more] = facts
  if (first === undefined) return ANY_SPOT
  const spot = FACTS[first](at, id)
  return more.reduce((known, fact) => ({ ...known, ...FACTS[fact](at, id) }), spot)
}

type FindFact = (at: Surroundings, id: NodeId) => Spot

const FACTS: Readonly<Record<SpotFact, FindFact>> = {
  width: ({ page, registry, look }, id) => ({
    pictureSizes: pictureSizes(page, chainOf(page, id, registry), registry, look),
  }),
  early: ({ page, registry }, id) => ({ early: isEarly(page, chainOf(page, id, registry)) }),
  holder: ({ page }, id) => ({ holder: holderOf(page, id) }),
  anchor: ({ page, registry }, id) => ({ anchor: anchorAt(page, id, registry) }),
  outline: ({ page, registry }) => ({ outline: outlineOf(page, registry) }),
  bare: ({ isBare = false }) => ({ bare: isBare }),
  children: ({ page, registry }, id) => ({ children: childrenOf(page, id, registry) }),
}

/** A grid with where its children stand. */
export interface GridOfPage {
  readonly children: readonly GridChild[]
  readonly sizes: ArrangedGrid
}

/** Each picture in a grid asks for the same arrangement. */
const arranged = new WeakMap<Page, Map<NodeId, GridOfPage>>()

/** Returns a grid of a page as it is arranged; the same object for the same page. */
export function arrangedGrid(page: Page, id: NodeId, registry: Registry): GridOfPage {
  let ofPage = arranged.get(page)
  if (!ofPage) arranged.set(page, (ofPage = new Map<NodeId, GridOfPage>()))
  let known = ofPage.get(id)
  if (!known) {
    const children = childrenOf(page, id, registry)
    const sizes = arrangeGrid(children, columnsOf(getNode(page, id), children))
    ofPage.set(id, (known = { children, sizes }))
  }
  return known
}

/** How many columns of a grid a child spans at a size, and of how many; all of them where the child is left out there. */
function spanOf({ children, sizes }: GridOfPage, id: NodeId, size: SizeKey) {
  const { columns: of, placed } = arrangedAt(sizes, size)
  const isIt = (one: { readonly id: NodeId }): boolean => one.id === id
  const place = placed.find(isIt)
  const sides = place ? bleedAt(children.find(isIt)!, place, { size, columns: of }) : []
  return { columns: place?.columns ?? of, of, bleeds: sides.filter(Boolean).length }
}

/** The blocks in the placed slot of a node, each with what is set of its place at each size. */
function childrenOf(page: Page, id: NodeId, registry: Registry): readonly GridChild[] {
  const { kind, slots } = getNode(page, id)
  const placed = Object.entries(getKind(registry, kind).slots).filter(([, one]) => one.isPlaced === true)
  return placed.flatMap(([slot]) =>
    (slots[slot] ?? []).map((child) => ({ id: child, places: placesOf(getNode(page, child)) })),
  )
}

/** Under which keys of its arrangement a block has what of its place. */
const PLACE_KEYS = {
  column: 'gridColumn',
  row: 'gridRow',
  columns: 'gridColumns',
  rows: 'gridRows',
  layer: 'layer',
  bleed: 'bleed',
} as const

function placesOf({ sizes }: Pick<PageNode, 'sizes'>): GridChild['places'] {
  const places: Partial<Record<SizeKey, PlaceValues>> = {}
  for (const size of sizesSet({ sizes })) {
    const values = sizes[size]!
    const said = Object.entries(PLACE_KEYS).filter(([, key]) => values[key] !== undefined)
    const { shown } = values
    const place = {
      ...Object.fromEntries(said.map(([name, key]) => [name, values[key]])),
      ...(typeof shown === 'boolean' ? { hidden: !shown } : {}),
    }
    if (Object.keys(place).length > 0) places[size] = place
  }
  return places
}

/** A node and what it stands in, up to the root of its document: a shared section is one by itself wherever it stands. */
function chainOf(page: Page, id: NodeId, registry: Registry): readonly NodeId[] {
  const chain = ancestry(page, id)
  const end = chain.findIndex((one) => getKind(registry, getNode(page, one).kind).group === 'root')
  return end < 0 ? chain : chain.slice(0, end + 1)
}

function holderOf(page: Page, id: NodeId): Holder | undefined {
  const place = findPlace(page, id)
  if (!place) return undefined
  const { kind, content, look } = getNode(page, place.parentId)
  return { id: place.parentId, kind, content, look, index: place.index }
}

function isEarly(page: Page, chain: readonly NodeId[]): boolean {
  const section = chain.at(-2)
  return section !== undefined && (findPlace(page, section)?.index ?? EARLY_SECTIONS) < EARLY_SECTIONS
}

/**
 * The `sizes` attribute (HTML standard, "Images": source size lists) for the picture of a node: each container on the way
 * down says how much of its width a child gets, at each size, and the node how much of that its picture takes.
 */
function pictureSizes(page: Page, chain: readonly NodeId[], registry: Registry, look: Look): string {
  const widths = look.sizes.map(({ key }) => widthAt(page, chain, { registry, look, size: key }))
  const list = widths.flatMap((width, i) => {
    if (i === 0) return [width]
    return width === widths[i - 1] ? [] : [`(width<${look.sizes[i - 1]!.from}px) ${width}`]
  })
  return list.reverse().join(', ')
}

interface WidthQuery {
  readonly registry: Registry
  readonly look: Look
  readonly size: SizeKey
}

function widthAt(page: Page, chain: readonly NodeId[], { registry, look, size }: WidthQuery): string {
  let width = '100vw'
  for (let i = chain.length - 1; i > 0; i--) {
    const parent = getNode(page, chain[i]!)
    const definition = getKind(registry, parent.kind)
    const place = findPlace(page, chain[i - 1]!)!
    width =
      definition.childWidth?.({
        width,
        values: cascade(parent, definition.arrangement, size),
        content: parent.content,
        look: parent.look,
        size,
        slot: place.slot,
        childCount: parent.slots[place.slot]!.length,
        childIndex: place.index,
        ...(definition.slots[place.slot]?.isPlaced === true
          ? { placeOf: (at: SizeKey) => spanOf(arrangedGrid(page, chain[i]!, registry), chain[i - 1]!, at) }
          : {}),
        childValues: () =>
          parent.slots[place.slot]!.map((child) => {
            const node = getNode(page, child)
            return cascade(node, getKind(registry, node.kind).arrangement, size)
          }),
      }) ?? width
  }
  const own = getNode(page, chain[0]!)
  const { arrangement, ownWidth } = getKind(registry, own.kind)
  width = ownWidth?.({ width, values: cascade(own, arrangement, size) }) ?? width
  const share = ownShare(page, chain, { registry, look, size })
  if (share !== 1) width = `(${width})*${Math.round(share * 1000) / 1000}`
  return width === '100vw' ? width : `calc(${withTokenValues(width, look)})`
}

function ownShare(page: Page, [id, parentId]: readonly NodeId[], { registry, size }: WidthQuery): number {
  const node = getNode(page, id!)
  const { arrangement, pictureShare } = getKind(registry, node.kind)
  if (!pictureShare) return 1
  const parent = parentId === undefined ? undefined : getNode(page, parentId)
  const holder = parent && getKind(registry, parent.kind)
  return pictureShare({
    values: cascade(node, arrangement, size),
    content: node.content,
    look: node.look,
    ratio: parent && holder?.childRatio?.(cascade(parent, holder.arrangement, size)),
  })
}

/** The `sizes` attribute is read before the stylesheet, so custom properties are written out. */
function withTokenValues(width: string, look: Look): string {
  return width.replace(/var\(--([a-z]+)(?:-([a-z]+))?\)/g, (_all, name: string, step = '') => {
    if (name === 'gutter') return fluidCss(look.gutter)
    if (name === 'width') return `${look.widths[step as keyof Look['widths']]}px`
    return fluidCss(look.space[step as keyof Look['space']])
  })
}
