/** Copying how blocks are arranged at one size to another, and resetting it: all other sizes stay as they are. */
import { getKind, type Registry } from '../blocks/registry.ts'
import { sameJson, type Json } from '../page/json.ts'
import { getNode, type NodeId, type Page, type SizeKey } from '../page/page.ts'
import { subtreeIds } from '../page/walk.ts'
import { cascadeValue } from '../sizes/cascade.ts'
import { sizesSet } from '../sizes/size-keys.ts'
import type { WithSizes } from '../sizes/site-sizes.ts'
import type { SetValue } from './edit-shapes.ts'
import { GRID_KEYS, gridOf, placeBlocksEdits, placesAt } from './grid-places.ts'
import { applyEdits } from './transaction.ts'

interface Copied {
  readonly registry: Registry
  /** The look of the site, for its sizes. */
  readonly look: WithSizes
  readonly from: SizeKey
  readonly to: SizeKey
}

/** Has some blocks, with all that they hold, be arranged at size `to` as they are at `from`. Nothing changes at any other size of the site. */
export function copyArrangementEdits(
  page: Page,
  ids: readonly NodeId[],
  { registry, look, from, to }: Copied,
): readonly SetValue[] {
  if (from === to) return []
  const all = [...new Set(ids.flatMap((id) => subtreeIds(page, id)))]
  const edits: SetValue[] = []
  let now = page
  /** Has them be at a size as they are on the page as given at another. */
  const make = (size: SizeKey, like: SizeKey): void => {
    // What is derived moves as others are set: again, until nothing is left to set.
    for (let round = 0; round <= all.length; round++) {
      const more = sameAtEdits({ page: now, ids: all, size }, { page, size: like }, registry)
      if (more.length === 0) return
      const applied = applyEdits(now, more, registry)
      if (!applied.ok)
        throw new Error(`What is in force at one size can be set at another: ${applied.message}`)
      edits.push(...more)
      now = applied.page
    }
  }
  make(to, from)
  // What narrower sizes inherited is set there.
  for (const { key } of look.sizes) if (key > to) make(key, key)
  return edits
}

/** Takes away all that some blocks, with what they hold, have of their own at a size: they inherit from the next wider one. */
export function resetArrangementEdits(
  page: Page,
  ids: readonly NodeId[],
  size: SizeKey,
): readonly SetValue[] {
  const all = new Set(ids.flatMap((id) => subtreeIds(page, id)))
  return [...all].flatMap((nodeId) =>
    Object.keys(size === 'base' ? {} : (getNode(page, nodeId).sizes[size] ?? {})).map((key): SetValue => ({
      edit: 'set',
      nodeId,
      at: ['sizes', size, key],
    })),
  )
}

interface AtSize {
  readonly page: Page
  readonly size: SizeKey
}

/** Places and columns have values of their own for what a size derives; all else is inherited. */
const PLACED: ReadonlySet<string> = new Set([...Object.values(GRID_KEYS), 'layer'])

function sameAtEdits(
  here: AtSize & { readonly ids: readonly NodeId[] },
  there: AtSize,
  registry: Registry,
): readonly SetValue[] {
  return here.ids.flatMap((nodeId) => [
    ...valueEdits(nodeId, here, there, registry),
    ...columnEdits(nodeId, here, there, registry),
    ...placeEdits(nodeId, here, there, registry),
  ])
}

function valueEdits(nodeId: NodeId, here: AtSize, there: AtSize, registry: Registry): readonly SetValue[] {
  const [node, other] = [getNode(here.page, nodeId), getNode(there.page, nodeId)]
  const { arrangement } = getKind(registry, node.kind)
  const keys = sizesSet(node, other).flatMap((size) =>
    Object.keys({ ...node.sizes[size], ...other.sizes[size] }),
  )
  return [...new Set(keys)].flatMap((key): SetValue[] => {
    if (PLACED.has(key) || arrangement.properties[key]?.isDerived === true) return []
    const wanted = cascadeValue(other, arrangement, there.size, key).value
    const now = cascadeValue(node, arrangement, here.size, key).value
    return isSame(wanted, now) ? [] : [setAt(nodeId, here.size, key, wanted)]
  })
}

function columnEdits(nodeId: NodeId, here: AtSize, there: AtSize, registry: Registry): readonly SetValue[] {
  if (!getKind(registry, getNode(here.page, nodeId).kind).placeChildren) return []
  const wanted = placesAt(there.page, nodeId, { registry, size: there.size }).columns
  const now = placesAt(here.page, nodeId, { registry, size: here.size }).columns
  return wanted === now ? [] : [setAt(nodeId, here.size, 'cells', wanted)]
}

/** Where a block stands on its grid section. One that is left out stands nowhere. */
function placeEdits(nodeId: NodeId, here: AtSize, there: AtSize, registry: Registry): readonly SetValue[] {
  const gridId = gridOf(here.page, nodeId, registry)
  if (gridId === undefined) return []
  const placeOf = ({ page, size }: AtSize) =>
    placesAt(page, gridId, { registry, size }).placed.find(({ id }) => id === nodeId)
  const [now, wanted] = [placeOf(here), placeOf(there)]
  return wanted ? placeBlocksEdits(now ? [now] : [], [wanted], here.size) : []
}

function setAt(nodeId: NodeId, size: SizeKey, key: string, value: Json | undefined): SetValue {
  const at = ['sizes', size, key] as const
  return value === undefined ? { edit: 'set', nodeId, at } : { edit: 'set', nodeId, at, value }
}

function isSame(a: Json | undefined, b: Json | undefined): boolean {
  return a === b || (a !== undefined && b !== undefined && sameJson(a, b))
}
