/** Parts that documents show, and the shown ids of what stands in them. */
import type { Registry } from '../blocks/registry.ts'
import { JOINED_PARTS } from '../page/joined.ts'
import { findNode, getNode, type NodeId, type Page } from '../page/page.ts'
import { findPlace, subtreeIds } from '../page/walk.ts'
import { originOf, linkedPart, type ShownId } from '../resolve/expand.ts'
import { slotOfFill } from '../resolve/instance-slots.ts'
import { partAt } from '../site/session-page.ts'

/** The parts that a document shows itself, each once. */
export function partsShownBy(
  document: Pick<Page, 'nodes'>,
  ids: Iterable<NodeId>,
  registry: Registry,
): readonly string[] {
  const parts = new Set<string>()
  for (const id of ids) {
    const part = linkedPart(getNode(document, id), registry)
    if (part !== undefined) parts.add(part)
  }
  return [...parts]
}

/**
 * The parts of a ring, each shown by the one before it and the first by the last, or undefined where there is none.
 * `shows` gives the parts that a part shows.
 */
export function findRing(
  parts: Iterable<string>,
  shows: (part: string) => readonly string[],
): readonly string[] | undefined {
  const done = new Set<string>()
  const follow = (part: string, way: readonly string[]): readonly string[] | undefined => {
    const at = way.indexOf(part)
    if (at >= 0) return way.slice(at)
    if (done.has(part)) return undefined
    for (const next of shows(part)) {
      const ring = follow(next, [...way, part])
      if (ring) return ring
    }
    done.add(part)
    return undefined
  }
  for (const part of parts) {
    const ring = follow(part, [])
    if (ring) return ring
  }
  return undefined
}

/** The ring that parts joined to a session would stand in; undefined where there is none. */
export function ringIn(session: Page, registry: Registry): readonly string[] | undefined {
  const joined = getNode(session, session.root).slots[JOINED_PARTS] ?? []
  return findRing(joined, (part) =>
    joined.includes(part) ? partsShownBy(session, subtreeIds(session, part), registry) : [],
  )
}

/** The parts that a session's page, header and footer show now, at whatever depth. */
export function shownParts(session: Page, registry: Registry): readonly string[] {
  return [...instancesIn(session, registry).keys()]
}

/** The ids of the instances that a shown node stands in, from the outside in, and then its own. */
export function stepsOf(shown: ShownId): readonly NodeId[] {
  return shown.split('/')
}

/** What a shown node stands in, as the shown id of the innermost instance; empty for what stands on the page itself. */
export function instanceAround(shown: ShownId): ShownId {
  return shown.slice(0, Math.max(0, shown.lastIndexOf('/')))
}

/**
 * The shown id of a node of a session. Where its part is shown several times, it is the one in the instance `around`, or
 * else the first on the page; its own id where it is not shown at all.
 */
export function shownIdOf(session: Page, id: NodeId, around: ShownId, registry: Registry): ShownId {
  const part = partAt(session, id)
  if (!getNode(session, session.root).slots[JOINED_PARTS]?.includes(part)) return id
  const last = around === '' ? undefined : findNode(session, originOf(around))
  const instance =
    last && linkedPart(last, registry) === part ? around : firstInstance(session, part, registry)
  return instance === undefined ? id : `${instance}/${id}`
}

/** The shown id of the block that a node of a session is seen as: of what fills a slot, the block that the slot is. */
export function seenIdOf(session: Page, id: NodeId, around: ShownId, registry: Registry): ShownId {
  const filled = slotOfFill(session, id, registry)
  if (!filled) return shownIdOf(session, id, around, registry)
  const instance = shownIdOf(session, findPlace(session, id)!.parentId, around, registry)
  return `${instance}/${filled.slot.node}`
}

const firsts = new WeakMap<Page['nodes'], Map<string, ShownId>>()

/** The shown id of the first instance of a part; undefined where there is none on the page. */
function firstInstance(session: Page, part: string, registry: Registry): ShownId | undefined {
  return instancesIn(session, registry).get(part)
}

function instancesIn(session: Page, registry: Registry): ReadonlyMap<string, ShownId> {
  const known = firsts.get(session.nodes) ?? listInstances(session, registry)
  firsts.set(session.nodes, known)
  return known
}

function listInstances(session: Page, registry: Registry): Map<string, ShownId> {
  const found = new Map<string, ShownId>()
  const { [JOINED_PARTS]: joined = [], ...slots } = getNode(session, session.root).slots
  const look = (id: NodeId, within: string): void => {
    for (const one of subtreeIds(session, id)) {
      const part = linkedPart(getNode(session, one), registry)
      if (part === undefined || found.has(part)) continue
      found.set(part, within + one)
      if (joined.includes(part)) look(part, `${within}${one}/`)
    }
  }
  for (const id of Object.values(slots).flat()) look(id, '')
  return found
}
