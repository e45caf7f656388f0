import { withoutSilent } from '../resolve/left-out.ts'
import type { Registry } from '../blocks/registry.ts'
import { shownIds } from '../resolve/shown.ts'
import { isPageLink } from '../page/link.ts'
import type { Page } from '../page/page.ts'
import { CONTENT_ID } from '../kit/ids.ts'
import { outlineOf } from '../resolve/outline.ts'
import { alternativeText } from './alternative-text.ts'
import { brokenLink } from './broken-link.ts'
import { contrast } from './contrast.ts'
import { checkedNodes, type Check, type CheckedSite, type Finding } from './define-check.ts'
import { emptyItem } from './empty-item.ts'
import { emptyWords } from './empty-words.ts'
import { headingLevels } from './heading-levels.ts'
import { mainHeading } from './main-heading.ts'
import { missingField } from './missing-field.ts'
import { missingPart } from './missing-part.ts'
import { missingPicture } from './missing-picture.ts'
import { linkWords } from './link-words.ts'
import { ownValues, strayValues } from './own-values.ts'
import { pageDescription } from './page-description.ts'
import { pageTitle } from './page-title.ts'
import { readingOrder } from './reading-order.ts'
import { sameAnchor } from './same-anchor.ts'
import { showsNothing } from './shows-nothing.ts'
import { strangeKind } from './strange-kind.ts'
import { unchangedCopy } from './unchanged-copy.ts'

/** Every check there is. A test fails when a file of this folder is missing here. */
export const CHECKS: readonly Check[] = [
  alternativeText,
  brokenLink,
  contrast,
  emptyItem,
  emptyWords,
  headingLevels,
  linkWords,
  mainHeading,
  missingField,
  missingPart,
  missingPicture,
  ownValues,
  pageDescription,
  pageTitle,
  readingOrder,
  sameAnchor,
  showsNothing,
  strangeKind,
  strayValues,
  unchangedCopy,
]

/** Everything the checks find on a page, errors first, each group in reading order. */
export function runChecks(written: Page, site: CheckedSite, registry: Registry): readonly Finding[] {
  return run(CHECKS, written, site, registry)
}

/** What the checks find on a section that pages share, such as the footer: what is asked of whole pages is left out. */
export function runSectionChecks(written: Page, site: CheckedSite, registry: Registry): readonly Finding[] {
  const checks = CHECKS.filter(({ isOfPage }) => isOfPage !== true)
  return run(checks, written, site, registry)
}

function run(
  checks: readonly Check[],
  written: Page,
  site: CheckedSite,
  registry: Registry,
): readonly Finding[] {
  const page = withoutSilent(written, written.root, registry)
  const anchors = new Set([CONTENT_ID, ...anchorsOf(page, registry)])
  const input = { page, written, site, registry, anchors, nodes: checkedNodes(page, registry) }
  const order = new Map(shownIds(written, written.root, registry).map((id, index) => [id, index]))
  const findings = checks.flatMap(({ rule, severity, source, find }) =>
    find(input).map(({ nodeId, message }): Finding => ({
      rule,
      severity,
      ...(nodeId === undefined ? {} : { nodeId }),
      message,
      source,
    })),
  )
  const rank = (finding: Finding) => (finding.severity === 'error' ? 0 : 1)
  const place = (finding: Finding) => (finding.nodeId === undefined ? -1 : (order.get(finding.nodeId) ?? -1))
  return findings.sort((a, b) => rank(a) - rank(b) || place(a) - place(b))
}

/** Ids of the pages of which a page links to a certain place: their anchors must be known to judge it. */
export function pagesLinkedInto(page: Page, registry: Registry): readonly string[] {
  const links = checkedNodes(page, registry).flatMap(({ facts }) => facts.links ?? [])
  return [
    ...new Set(links.flatMap(({ link }) => (link && isPageLink(link) && link.anchor ? [link.page] : []))),
  ]
}

/** The anchors on a page, for links that point to them. */
export function anchorsOf(page: Page, registry: Registry): string[] {
  const made = outlineOf(page, registry).map(({ anchor }) => anchor)
  const given = checkedNodes(page, registry).flatMap(({ facts }) => facts.anchor ?? [])
  return [...new Set([...given, ...made])]
}
