/** Taking a page and what was joined to it apart again, to save it: see session-page.ts. */
import { sameJson, type JsonObject } from '../page/json.ts'
import { findNode, getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { subtreeIds } from '../page/walk.ts'
import { sharedNames, sharedRoot, withoutShared, type SessionPart } from './session-page.ts'

/** One document of a tree that was joined, as it is stored. */
export function partOf(session: Page, part: SessionPart): Page {
  if (part !== 'page') {
    const root = sharedRoot(session, part)
    if (root === undefined) throw new RangeError(`The page has no ${part} that was joined to it`)
    const nodes = Object.fromEntries(subtreeIds(session, root).map((id) => [id, getNode(session, id)]))
    return { ...session, root, nodes }
  }
  const nodes: Record<NodeId, PageNode> = { ...session.nodes }
  for (const name of sharedNames(session))
    for (const id of subtreeIds(session, sharedRoot(session, name)!)) delete nodes[id]
  nodes[session.root] = withoutShared(getNode(session, session.root))
  return { ...session, nodes }
}

/** The documents that differ between two states of one session. */
export function changedParts(before: Page, after: Page): readonly SessionPart[] {
  const shared = sharedNames(after).filter((name) => sharedRoot(before, name) !== undefined)
  return ['page', ...shared].filter((part) => !isSame(partOf(before, part), partOf(after, part)))
}

function isSame(a: Page, b: Page): boolean {
  const ids = Object.keys(a.nodes)
  return (
    a.root === b.root &&
    ids.length === Object.keys(b.nodes).length &&
    ids.every((id) => {
      const [one, other] = [a.nodes[id], findNode(b, id)]
      return one === other || sameJson(one as unknown as JsonObject, other as unknown as JsonObject)
    })
  )
}
