/** What a block is mostly set by carries this attribute in the details: its picture, or where it leads. */
export const MAIN_SETTING = { 'data-main-setting': '' }

/** Opens that of the block whose details are shown, or goes to the box that finds a setting. False when there is neither. */
export function openMainSetting(): boolean {
  const pane = document.querySelector('[aria-label="Details"]')
  const main = pane?.querySelector<HTMLElement>('[data-main-setting]')
  const control = main ?? pane?.querySelector<HTMLElement>('input[aria-label="Find a setting"]')
  control?.focus()
  // A button has its choices behind it; a list has them in it.
  if (control instanceof HTMLButtonElement) control.click()
  return control != null
}
