import type { Facts } from '../blocks/define-block.ts'
import { getKind, type Registry } from '../blocks/registry.ts'
import type { Look } from '../look/look.ts'
import { getNode, type NodeId, type Page, type PageNode } from '../page/page.ts'
import { shownIds } from '../resolve/shown.ts'

export type Severity = 'error' | 'warning'

/** One thing found on a page, in words for the person who can mend it. */
export interface Finding {
  /** Stable, for programs. */
  readonly rule: string
  readonly severity: Severity
  /** Where; absent for what concerns the page as a whole. */
  readonly nodeId?: NodeId
  readonly message: string
  /** The standard that asks for it, or "common practice, no source". */
  readonly source: string
}

/** What checks need to know of the site around the page. */
export interface CheckedSite {
  readonly title: string
  readonly description: string
  readonly look: Look
  /** For each page that can be linked to, the anchors on it; undefined where they are not known. */
  readonly pages: Readonly<Record<string, readonly string[] | undefined>>
  /** Alternative texts of the library's pictures by id; a picture that is gone is absent. */
  readonly pictures: Readonly<Record<string, { readonly alt: string; readonly isDecoration?: boolean }>>
  /** The library's files by id. */
  readonly files: Readonly<Record<string, unknown>>
}

/** A node with what its kind says about it. */
export interface CheckedNode {
  readonly id: NodeId
  readonly node: PageNode
  readonly facts: Facts
}

export interface CheckInput {
  /** The page as visitors get it: what says nothing is left out, and nothing else is wrong with it. */
  readonly page: Page
  /** The page as it was written. */
  readonly written: Page
  /** All nodes of `page` in reading order. */
  readonly nodes: readonly CheckedNode[]
  /** Every place on the page that a link can lead to. */
  readonly anchors: ReadonlySet<string>
  readonly site: CheckedSite
  readonly registry: Registry
}

/** What a check reports: where, and what. Rule, severity and source are the check's. */
export interface Found {
  readonly nodeId?: NodeId
  readonly message: string
}

export interface Check {
  readonly rule: string
  readonly severity: Severity
  readonly source: string
  /** True for what is asked of a page as a whole, and not of a header or footer, which stands on many. */
  readonly isOfPage?: true
  readonly find: (input: CheckInput) => readonly Found[]
}

/** All nodes of a page in reading order, each with what its kind says about it. */
export function checkedNodes(page: Page, registry: Registry): CheckedNode[] {
  return shownIds(page, page.root, registry).map((id) => {
    const node = getNode(page, id)
    return { id, node, facts: getKind(registry, node.kind).facts?.(node.content) ?? {} }
  })
}
