/** Rules that kinds draw with on the canvas alone: what has nothing in it yet must be seen there, and can be pressed. */
import type { SizedRule } from './css-rules.ts'

const STRIPES = 'repeating-linear-gradient(135deg,#8883 0 8px,transparent 8px 16px)'

/** A container that holds nothing: room to drop something into. */
export function outlinedEmpty(container: string): SizedRule {
  return {
    selector: `${container}:empty`,
    declarations: { 'min-height': '4rem', border: '1px dashed #888a' },
  }
}

/** The place of a picture that is still to come. */
export function stripedWithout(selector: string): SizedRule {
  return {
    selector,
    declarations: { 'min-height': '9rem', border: '1px dashed #888', background: STRIPES },
  }
}

/** The same behind words that stand on the picture. */
export function stripedBehind(selector: string): SizedRule {
  return { selector, declarations: { 'background-image': STRIPES } }
}

/** Words in the place of what is still to come; `words` is text of the program and has no quotes in it. */
export function toldEmpty(selector: string, words: string): SizedRule {
  return { selector, declarations: { content: `"${words}"`, opacity: '.75' } }
}
