import type { NodeId } from '@gullyline/core'

/** What a block is mostly set by carries this attribute in the details: its picture, or where it leads. */
export const MAIN_SETTING = { 'data-main-setting': '' }

/** A pane that is not there after so many frames does not come. */
const MOST_FRAMES = 60

/** Opens that of a block as soon as the details show it, or goes to the box that finds a setting. */
export function openMainSetting(id: NodeId | undefined, frames = 0): void {
  const pane = document.querySelector<HTMLElement>('[aria-label="Details"]')
  if (!pane || pane.dataset.shows !== id) {
    if (frames < MOST_FRAMES) requestAnimationFrame(() => openMainSetting(id, frames + 1))
    return
  }
  const main = pane.querySelector<HTMLElement>('[data-main-setting]')
  const control = main ?? pane.querySelector<HTMLElement>('input[aria-label="Search settings"]')
  control?.focus()
  // A button has its choices behind it; a list has them in it.
  if (control instanceof HTMLButtonElement) control.click()
}
