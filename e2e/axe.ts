/** What axe finds on a screen or a page. */
import AxeBuilder from '@axe-core/playwright'
import axe, { type RunOptions } from 'axe-core'
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
  const violations = judged.withFrames ? await withFrames(page, judged) : await withoutFrames(page, judged)
  return violations.map(
    ({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`,
  )
}

export async function noFindings(page: Page, judged?: Judged): Promise<void> {
  expect(await axeFindings(page, judged)).toEqual([])
}

interface Violation {
  readonly id: string
  readonly nodes: readonly { readonly html: string }[]
}

function optionsOf({ rules, tags, except = [] }: Judged): RunOptions {
  const [values, type] = rules ? [rules, 'rule' as const] : [tags, 'tag' as const]
  return {
    // Axe then leaves out how it came to what it did not object to, which takes most of its time.
    resultTypes: ['violations'],
    rules: Object.fromEntries(except.map((one) => [one, { enabled: false }])),
    ...(values ? { runOnly: { type, values: [...values] } } : {}),
  }
}

/** Axe's own way reads its half a megabyte in every frame of the page, and there can be twenty. */
async function withoutFrames(page: Page, judged: Judged): Promise<readonly Violation[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  const options = { ...optionsOf(judged), iframes: false }
  const context = {
    ...(judged.within === undefined ? {} : { include: [judged.within] }),
    exclude: ['iframe'],
  }
  return page.evaluate(
    async ([where, how]) => {
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(where, how)
      return violations.map(({ id, nodes }) => ({ id, nodes: nodes.map(({ html }) => ({ html })) }))
    },
    [context, options] as const,
  )
}

/** The findings of each frame are put together on a page of their own. */
async function withFrames(page: Page, judged: Judged): Promise<readonly Violation[]> {
  const builder = new AxeBuilder({ page }).options(optionsOf(judged))
  if (judged.within !== undefined) builder.include(judged.within)
  return (await builder.analyze()).violations
}
