import type { NodeId } from '@gullyline/core'
import { giveToField, collectAllKeys } from '../../ui/early-keys.ts'

/** What a block is mostly set by carries this attribute in the details: its picture, or where it leads. */
export const MAIN_SETTING = { 'data-main-setting': '' }
const MAIN = '[data-main-setting]'

/** A pane that is not there after so many frames does not come. */
const MOST_FRAMES = 60

/** Opens that of a block as soon as the details show it, or goes to the box that finds a setting. What is typed meanwhile goes there. `code` is that of the pane. */
export async function openMainSetting(id: NodeId | undefined, code: Promise<unknown>): Promise<void> {
  const early = collectAllKeys(() => early.drop())
  // Where it can’t be had, there is no pane, and nothing to type into.
  await code.catch(() => undefined)
  const pane = await detailsOf(id)
  const main = pane?.querySelector<HTMLElement>(MAIN)
  const control = main ?? pane?.querySelector<HTMLElement>('input[aria-label="Search settings"]')
  if (!control) return early.drop()
  const before = document.activeElement
  control.focus()
  // A button has its choices behind it; a list has them in it.
  if (control instanceof HTMLButtonElement) control.click()
  await giveToField(early, control instanceof HTMLInputElement ? null : before)
}

/** The details once they show what this block is mostly set by, or else all of it; undefined when they don't come. */
async function detailsOf(id: NodeId | undefined): Promise<HTMLElement | undefined> {
  for (let frames = 0; frames < MOST_FRAMES; frames++) {
    const pane = document.querySelector<HTMLElement>('[aria-label="Details"]')
    const isOfBlock = pane?.dataset.shows === (id ?? '')
    if (isOfBlock && (pane.querySelector(MAIN) !== null || !pane.querySelector('[data-on-its-way]')))
      return pane
    await new Promise((resolve) => requestAnimationFrame(resolve))
  }
  return undefined
}
