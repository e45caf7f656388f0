import { Value } from '../../ui/value.ts'

const KEY = 'gullyline.measuring'

/** Whether pages are measured while they are edited: as this browser was told last. Slow machines have other things to do. */
export const isMeasuring = new Value(localStorage.getItem(KEY) !== 'off')

export function setMeasuring(wanted: boolean): void {
  isMeasuring.set(wanted)
  try {
    if (wanted) localStorage.removeItem(KEY)
    else localStorage.setItem(KEY, 'off')
  } catch {
    // Only remembering it fails.
  }
}
