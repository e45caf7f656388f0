import { Strip } from '../ruler/strip.ts'
import type { GullyRulerProps } from './gully-context.tsx'
import { gullyCode } from './gully-later.ts'

/** The ruler with the gullies of the page, as soon as its code is there. */
export function GullyRuler(props: GullyRulerProps) {
  const code = gullyCode.use()
  return code ? <code.MeasuredRuler {...props} /> : <Strip />
}
