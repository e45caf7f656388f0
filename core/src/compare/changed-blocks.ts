/** Which blocks differ between two states of a page, with what stands on it. */
import { sameJson, type JsonObject } from '../page/json.ts'
import { findNode, type NodeId, type Page } from '../page/page.ts'
import { findPlace } from '../page/walk.ts'
import { isFrameName, partAt } from '../site/session-page.ts'

/**
 * The ids of blocks that say, look or are arranged otherwise, and of those that came or went; of what came or went in one
 * piece, its outermost. Parts that only one of the two has joined do not count, since joining shows nothing by itself.
 */
export function changedBlocks(before: Page, after: Page): readonly NodeId[] {
  return [...differingIn(after, before), ...onlyIn(before, after)]
}

/** What is other in a page than in another one, or is not there. */
function differingIn(page: Page, other: Page): readonly NodeId[] {
  return Object.keys(page.nodes).filter((id) => {
    const there = findNode(other, id)
    return there ? !isAlike(page, other, id) : isOutermost(page, other, id)
  })
}

function onlyIn(page: Page, other: Page): readonly NodeId[] {
  return Object.keys(page.nodes).filter((id) => !findNode(other, id) && isOutermost(page, other, id))
}

function isAlike(page: Page, other: Page, id: NodeId): boolean {
  const [{ slots: _slots, ...one }, { slots: _others, ...two }] = [page.nodes[id]!, other.nodes[id]!]
  return sameJson(one as unknown as JsonObject, two as unknown as JsonObject)
}

/** Whether a block stands on the page itself, in something that both have. */
function isOutermost(page: Page, other: Page, id: NodeId): boolean {
  const part = partAt(page, id)
  const place = findPlace(page, id)
  if (!place || (part !== 'page' && !isFrameName(part))) return false
  return findNode(other, place.parentId) !== undefined
}
