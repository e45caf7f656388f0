/** What a change of something shared changes, in words. */
import {
  isFrameName,
  type FrameName,
  type LinkedPart,
  type PageSummary,
  type SharedName,
} from '@gullyline/core'
import type { LinkedParts } from './session.ts'
import { counted } from '../../ui/counted.ts'

const TITLES: Readonly<Record<FrameName, string>> = { header: 'Header', footer: 'Footer' }

interface Surroundings {
  readonly pages: readonly PageSummary[]
  /** Whether all pages of the site are among them. */
  readonly isWhole: boolean
  readonly linked: LinkedParts
}

/** Where a part stands: "on 12 pages, 9 live". */
export function reachOfPart({ reach: { pages, live } }: Pick<LinkedPart, 'reach'>): string {
  // Placed here, and not saved yet.
  if (pages === 0) return 'on this page alone'
  return `on ${counted(pages, 'page')}, ${live} live`
}

/**
 * Says on how many pages something shared stands, and how many of those visitors see: "Header: on 12 pages, 9 live". Of
 * what stands on every page it says no more than that while not all pages are there.
 */
export function reachWords(name: SharedName, { pages, isWhole, linked }: Surroundings): string {
  if (!isFrameName(name)) {
    const part = linked[name]
    return part ? `${part.name}: ${reachOfPart(part)}` : 'Shared section'
  }
  if (!isWhole) return `${TITLES[name]}: on all pages`
  const live = pages.filter(({ liveSince }) => liveSince !== null).length
  return `${TITLES[name]}: ${reachOfPart({ reach: { pages: pages.length, live } })}`
}

/** What something shared is called inside a sentence: "the header", or a part by its name. */
export function sharedTitle(name: SharedName, linked: LinkedParts): string {
  if (isFrameName(name)) return `the ${name}`
  const part = linked[name]
  return part ? `“${part.name}”` : 'a shared section'
}
