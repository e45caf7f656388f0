import { cascade, SIZE_KEYS } from '../sizes/cascade.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { fluidCss, type Look } from '../look/look.ts'
import { getNode, type NodeId, type Page, type SizeKey } from '../page/page.ts'
import { ancestry, findPlace } from '../page/walk.ts'
import type { JsonObject } from '../page/json.ts'
import type { SpotFact } from '../blocks/define-block.ts'
import { anchorAt, outlineOf, type OutlineEntry } from './outline.ts'

/** What a node must know of the place where it stands; only what its kind asks for. */
export interface Spot {
  /** The `sizes` attribute for the node's own picture. */
  readonly pictureSizes?: string
  /** True when the node stands so high on the page that its pictures should load at once. */
  readonly early?: boolean
  /** What holds the node, and the node's number among those it holds. */
  readonly holder?: Holder
  /** The anchor of a heading that has none of its own. */
  readonly anchor?: string
  /** The headings of the page, in reading order. */
  readonly outline?: readonly OutlineEntry[]
}

export interface Holder {
  readonly id: NodeId
  readonly kind: string
  readonly content: JsonObject
  readonly look: JsonObject
  readonly index: number
}

/** Whether two spots are certainly alike. */
export function sameSpot(a: Spot, b: Spot): boolean {
  return (
    a === b ||
    (a.pictureSizes === b.pictureSizes &&
      a.early === b.early &&
      a.anchor === b.anchor &&
      a.outline === b.outline &&
      sameHolder(a.holder, b.holder))
  )
}

function sameHolder(a: Holder | undefined, b: Holder | undefined): boolean {
  return (
    a === b || (a?.id === b?.id && a?.content === b?.content && a?.look === b?.look && a?.index === b?.index)
  )
}

/** Sections from the top whose pictures load at once: what the first screen is likely to show. */
const EARLY_SECTIONS = 1

/** For kinds that render alike wherever they stand. */
export const ANY_SPOT: Spot = {}

/** What a node must know of the place where it stands on this page. */
export function spotOf(page: Page, id: NodeId, registry: Registry, look: Look): Spot {
  const facts = getKind(registry, getNode(page, id).kind).usesSpot
  if (!facts) return ANY_SPOT
  const [first, ...more] = facts
  if (first === undefined) return ANY_SPOT
  const spot = FACTS[first](page, id, registry, look)
  return more.reduce((known, fact) => ({ ...known, ...FACTS[fact](page, id, registry, look) }), spot)
}

type FindFact = (page: Page, id: NodeId, registry: Registry, look: Look) => Spot

const FACTS: Readonly<Record<SpotFact, FindFact>> = {
  width: (page, id, registry, look) => ({
    pictureSizes: pictureSizes(page, chainOf(page, id, registry), registry, look),
  }),
  early: (page, id, registry) => ({ early: isEarly(page, chainOf(page, id, registry)) }),
  holder: (page, id) => ({ holder: holderOf(page, id) }),
  anchor: (page, id, registry) => ({ anchor: anchorAt(page, id, registry) }),
  outline: (page, _id, registry) => ({ outline: outlineOf(page, registry) }),
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
  const [wide, medium, narrow] = SIZE_KEYS.map((size) => widthAt(page, chain, { registry, look, size }))
  const list = [
    ...(narrow === medium ? [] : [`(width<${look.bounds.medium}px) ${narrow}`]),
    ...(medium === wide ? [] : [`(width<${look.bounds.wide}px) ${medium}`]),
    `${wide}`,
  ]
  return list.join(', ')
}

interface WidthQuery {
  readonly registry: Registry
  readonly look: Look
  readonly size: SizeKey
}

function widthAt(page: Page, chain: readonly NodeId[], { registry, look, size }: WidthQuery): string {
  let width = '100vw'
  for (let at = chain.length - 1; at > 0; at--) {
    const parent = getNode(page, chain[at]!)
    const definition = getKind(registry, parent.kind)
    const place = findPlace(page, chain[at - 1]!)!
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
