/** What readers may set in their browsers without anything getting lost. */
import type { GullyRule, Strain } from '../define-rule.ts'
import type { MeasuredBand } from '../measured-page.ts'
import { coveredText } from './covered-text.ts'
import { cutText } from './cut-text.ts'
import { sideways } from './sideways.ts'

type SettingRule = Omit<GullyRule, 'find'>

/** Text of twice its size. */
export const textResized: SettingRule = {
  rule: 'text-resized',
  title: 'Lost at 200 % text',
  severity: 'error',
  source: 'WCAG 2.2, 1.4.4 Resize Text',
}

/** More room between letters, words, lines and paragraphs. */
export const textSpacing: SettingRule = {
  rule: 'text-spacing',
  title: 'Lost with text spacing',
  severity: 'error',
  source: 'WCAG 2.2, 1.4.12 Text Spacing',
}

/** The styles that 1.4.12 names, and the size of 1.4.4, as rules over those of the page. */
export const SETTING_CSS = {
  plain: '',
  resized: 'html{font-size:200%!important}',
  spaced:
    '*{line-height:1.5!important;letter-spacing:.12em!important;word-spacing:.16em!important}p{margin-bottom:2em!important}',
} as const

/** What can no longer be read or reached. */
export function losesContent(band: MeasuredBand): readonly Strain[] {
  return [sideways, cutText, coveredText].flatMap(({ find }) => find({ band, pixels: {} }))
}
