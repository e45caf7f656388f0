/** What axe finds on a screen or a page. */
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect } from './app.ts'

interface Judged {
  /** What is judged, as a selector; all of it when absent. */
  readonly within?: string
  /** The rules that are judged by, or those with one of the tags; all when absent. */
  readonly rules?: readonly string[]
  readonly tags?: readonly string[]
  readonly except?: readonly string[]
  /** Frames are left out as a rule: the page in one is judged where visitors get it. */
  readonly withFrames?: boolean
}

/** Each rule that is broken, with the beginning of each element that breaks it. */
export async function axeFindings(page: Page, judged: Judged = {}): Promise<readonly string[]> {
  const { within, rules, tags, except = [], withFrames = false } = judged
  // Axe then leaves out how it came to what it did not object to, which takes most of its time.
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] })
  // With frames the findings of each are put together on a page of their own.
  if (!withFrames) axe.setLegacyMode(true).exclude('iframe')
  if (within !== undefined) axe.include(within)
  if (tags) axe.withTags([...tags])
  if (rules) axe.withRules([...rules])
  else axe.disableRules([...except])
  const { violations } = await axe.analyze()
  return violations.map((one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)
}

export async function noFindings(page: Page, judged?: Judged): Promise<void> {
  expect(await axeFindings(page, judged)).toEqual([])
}
