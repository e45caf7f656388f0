/**
 * A section whose blocks follow each other becomes a grid section with the same look at the widest size, and a grid section
 * becomes one whose blocks follow each other in reading order. Blocks keep their ids and all that they say.
 */
import { newNode, type BlockDefinition } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import { COLUMNS } from '../grid/columns.ts'
import type { GridPlace } from '../grid/placed.ts'
import { cutTree, type CutTree } from '../grid/reading-order.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { getNode, type NodeId, type Page, type PageNode, type SizeKey } from '../page/page.ts'
import { findPlace } from '../page/walk.ts'
import { arrangedGrid } from '../resolve/spots.ts'
import { cascade } from '../sizes/cascade.ts'
import { sizesSet } from '../sizes/size-keys.ts'
import { arrangedAt } from '../grid/arrangement.ts'
import type { NewId } from './compose.ts'
import type { Edit } from './edit-shapes.ts'
import { GRID_KEYS } from './grid-places.ts'

/** The edits, with the id of what the section became; or why it can't become one. */
export type Conversion =
  | { readonly ok: true; readonly edits: readonly Edit[]; readonly id: NodeId }
  | { readonly ok: false; readonly why: string }

/** What a section and a grid section call by the same name, or by another. */
const SHARED_SIZES: Readonly<Record<string, string>> = {
  width: 'width',
  above: 'above',
  below: 'below',
  alignment: 'alignment',
  gap: 'gapDown',
}

/** Whether a section can become a grid section, or the other way round; undefined where it is neither. */
export function convertsTo(page: Page, id: NodeId, registry: Registry): 'grid' | 'flow' | undefined {
  const { placesAs, flowsAs } = getKind(registry, getNode(page, id).kind)
  return placesAs ? 'grid' : flowsAs ? 'flow' : undefined
}

/** Turns a section into a grid section. Each block keeps its box: rows of equally wide blocks are taken apart, all else stays whole. */
export function toGrid(page: Page, id: NodeId, registry: Registry, newId: NewId): Conversion {
  const node = getNode(page, id)
  const kind = getKind(registry, node.kind)
  const place = findPlace(page, id)
  if (!kind.placesAs || !place) return { ok: false, why: 'Only a section can become a grid section' }
  const [slot] = Object.keys(kind.slots)
  const children = node.slots[slot!] ?? []
  const why = lookRefusal(page, node, children, kind, registry)
  if (why !== undefined) return { ok: false, why }
  const target = getKind(registry, kind.placesAs)
  const gridId = newId()
  const gaps = new Set<Json>()
  const edits: Edit[] = []
  let count = 0
  const put = (child: NodeId, at: GridPlace): void => {
    edits.push({
      edit: 'move',
      nodeId: child,
      toParentId: gridId,
      toSlot: placedSlot(target),
      toIndex: count++,
    })
    for (const key of Object.keys(GRID_KEYS) as (keyof GridPlace)[])
      edits.push({ edit: 'set', nodeId: child, at: ['sizes', 'base', GRID_KEYS[key]], value: at[key] })
  }
  for (const [i, child] of children.entries()) {
    const row = i + 1
    const parts = splitRow(page, child, registry)
    if (parts && (gaps.size === 0 || gaps.has(parts.gap))) {
      gaps.add(parts.gap)
      const columns = COLUMNS / parts.inside.length
      for (const [at, one] of parts.inside.entries())
        put(one, { column: at * columns + 1, columns, row, rows: 1 })
      edits.push({ edit: 'remove', nodeId: child })
    } else put(child, { column: 1, columns: COLUMNS, row, rows: 1 })
  }
  const [gapAcross] = gaps
  const sizes = renamed(node.sizes, SHARED_SIZES)
  const base = {
    gapDown: cascade(node, kind.arrangement, 'base').gap!,
    ...sizes.base,
    cells: COLUMNS,
    rowHeight: 'none',
    ...(gapAcross === undefined ? {} : { gapAcross }),
  }
  const grid = newNode(target, { ...carried(node), sizes: { ...sizes, base } })
  return {
    ok: true,
    id: gridId,
    edits: [
      { edit: 'insert', ...place, rootId: gridId, nodes: { [gridId]: grid } },
      ...edits,
      { edit: 'remove', nodeId: id },
    ],
  }
}

/** Turns a grid section into one whose blocks follow each other in reading order; what stands side by side becomes a row. */
export function toFlow(page: Page, id: NodeId, registry: Registry, newId: NewId): Conversion {
  const node = getNode(page, id)
  const kind = getKind(registry, node.kind)
  const place = findPlace(page, id)
  if (!kind.flowsAs || !place) return { ok: false, why: 'Only a grid section can become a section' }
  const target = getKind(registry, kind.flowsAs)
  const { children, sizes: arranged } = arrangedGrid(page, id, registry)
  const sectionId = newId()
  const edits: Edit[] = []
  const fill = { page, registry, newId, edits }
  const { placed, hidden: leftOut } = arrangedAt(arranged, 'base')
  const tree = cutTree(placed)
  let index = tree
    ? putTree(tree, { parentId: sectionId, slot: Object.keys(target.slots)[0]!, index: 0 }, fill)
    : 0
  for (const hidden of leftOut)
    edits.push({
      edit: 'move',
      nodeId: hidden,
      toParentId: sectionId,
      toSlot: Object.keys(target.slots)[0]!,
      toIndex: index++,
    })
  for (const { id: child } of children)
    for (const size of sizesSet(getNode(page, child)))
      for (const key of [...Object.values(GRID_KEYS), 'layer', 'bleed'])
        if (getNode(page, child).sizes[size]?.[key] !== undefined)
          edits.push({ edit: 'set', nodeId: child, at: ['sizes', size, key] })
  const back = Object.fromEntries(Object.entries(SHARED_SIZES).map(([own, other]) => [other, own]))
  const sizes = renamed(node.sizes, back)
  const base = { gap: cascade(node, kind.arrangement, 'base').gapDown!, ...sizes.base }
  const section = newNode(target, { ...carried(node), sizes: { ...sizes, base } })
  return {
    ok: true,
    id: sectionId,
    edits: [
      { edit: 'insert', ...place, rootId: sectionId, nodes: { [sectionId]: section } },
      ...edits,
      { edit: 'remove', nodeId: id },
    ],
  }
}

interface Fill {
  readonly page: Page
  readonly registry: Registry
  readonly newId: NewId
  readonly edits: Edit[]
}

interface Spot {
  readonly parentId: NodeId
  readonly slot: string
  readonly index: number
}

/** Moves what is in a tree to a place, one after the other; gives the index after it. */
function putTree(tree: CutTree, at: Spot, fill: Fill): number {
  const { edits } = fill
  const { parentId, slot } = at
  switch (tree.cut) {
    case 'none':
      edits.push({
        edit: 'move',
        nodeId: tree.child.id,
        toParentId: parentId,
        toSlot: slot,
        toIndex: at.index,
      })
      return at.index + 1
    case 'layered':
      return tree.children.reduce(
        (index, child) => putTree({ cut: 'none', child }, { ...at, index }, fill),
        at.index,
      )
    case 'rows':
      return tree.parts.reduce((index, part) => putTree(part.tree, { ...at, index }, fill), at.index)
    case 'columns': {
      const row = container('row', at, fill)
      for (const [i, part] of tree.parts.entries()) {
        const inRow = { ...row, index: i }
        putTree(part.tree, part.tree.cut === 'none' ? inRow : container('stack', inRow, fill), fill)
      }
      return at.index + 1
    }
  }
}

/** Puts an empty container at a place; gives the beginning of its slot. */
function container(kind: 'row' | 'stack', at: Spot, { registry, newId, edits }: Fill): Spot {
  const definition = getKind(registry, kind)
  const rootId = newId()
  edits.push({ edit: 'insert', ...at, rootId, nodes: { [rootId]: newNode(definition) } })
  return { parentId: rootId, slot: Object.keys(definition.slots)[0]!, index: 0 }
}

/** Why the look of a section can't be kept on a grid. */
function lookRefusal(
  page: Page,
  { content, sizes }: PageNode,
  children: readonly NodeId[],
  { arrangement }: BlockDefinition,
  registry: Registry,
): string | undefined {
  if (content.backdrop !== undefined) return 'A section with a background picture can’t become a grid section'
  if (cascade({ sizes } as PageNode, arrangement, 'base').height !== 'content')
    return 'Set the height of the section to Content first'
  const isBroad = (child: NodeId): boolean => {
    const one = getNode(page, child)
    const { band } = cascade(one, getKind(registry, one.kind).arrangement, 'base')
    return band !== undefined && band !== 'content'
  }
  return children.some(isBroad)
    ? 'A block of the section is wider than the others. Set its width to Content first'
    : undefined
}

/** The blocks of a row that divides its width evenly among as many as divide the columns, and its gap. */
function splitRow(page: Page, id: NodeId, registry: Registry) {
  const node = getNode(page, id)
  const kind = getKind(registry, node.kind)
  const values = cascade(node, kind.arrangement, 'base')
  if (kind.isEvenRow?.(values) !== true) return undefined
  const inside = node.slots[Object.keys(kind.slots)[0]!] ?? []
  const paddings = new Set(inside.map((one) => paddingOf(page, one, registry)))
  const isWhole = inside.length > 1 && COLUMNS % inside.length === 0 && paddings.size === 1
  return isWhole && node.lock === undefined ? { inside, gap: values.gap! } : undefined
}

/** What of a block's look takes width beside its content: blocks of a row that differ in it are not equally wide. */
function paddingOf(page: Page, id: NodeId, registry: Registry): string {
  const node = getNode(page, id)
  const values = cascade(node, getKind(registry, node.kind).arrangement, 'base')
  const insets = Object.entries(values).filter(([key]) => key.startsWith('inset'))
  return JSON.stringify([insets, node.look.border ?? 'none', node.look.surface === undefined])
}

function placedSlot({ slots }: BlockDefinition): string {
  return Object.keys(slots).find((slot) => slots[slot]!.isPlaced === true)!
}

/** What both kinds of section have beside their sizes. */
function carried({ content, look, name }: PageNode): Partial<Pick<PageNode, 'content' | 'look' | 'name'>> {
  return {
    content: content.anchor === undefined ? {} : { anchor: content.anchor },
    look: look.surface === undefined ? {} : { surface: look.surface },
    ...(name === undefined ? {} : { name }),
  }
}

/** Values at each size under their other names; those without one are left out. */
function renamed(sizes: PageNode['sizes'], names: Readonly<Record<string, string>>): PageNode['sizes'] {
  const kept = (values: JsonObject): JsonObject =>
    Object.fromEntries(
      Object.entries(values).flatMap(([key, value]) => (names[key] ? [[names[key], value]] : [])),
    )
  const entries = sizesSet({ sizes }).map((size): [SizeKey, JsonObject] => [size, kept(sizes[size]!)])
  return { base: {}, ...Object.fromEntries(entries) }
}
