/** Older documents brought up to the format of today, step by step. */
import { PAGE_FORMAT, type Page } from './page.ts'

/** Slots that the root of a page got with format 2. */
const ROOT_SLOTS = ['sections', 'main', 'side', 'aside']

/**
 * A document of any format as one of today's. What is not a document of an older format is given back as it is, for
 * validation to judge; never throws.
 */
export function migratePage(value: unknown): unknown {
  const page = value as { format?: unknown; root?: unknown; nodes?: unknown } | null | undefined
  if (typeof page !== 'object' || page === null || page.format !== 1) return value
  const { root, nodes } = page as { root: string; nodes: Page['nodes'] }
  const known =
    typeof nodes === 'object' && nodes !== null && typeof root === 'string' && Object.hasOwn(nodes, root)
  if (!known) return { ...page, format: PAGE_FORMAT }
  const node = nodes[root]!
  if (node.kind !== 'page') return { ...page, format: PAGE_FORMAT }
  const slots = { ...Object.fromEntries(ROOT_SLOTS.map((slot) => [slot, []])), ...node.slots }
  return { ...page, format: PAGE_FORMAT, nodes: { ...nodes, [root]: { ...node, slots } } }
}
