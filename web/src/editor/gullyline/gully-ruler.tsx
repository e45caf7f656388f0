import { Ruler } from '../ruler/ruler.tsx'
import type { GullyRulerProps } from './gully-context.tsx'
import { gullyCode } from './gully-later.ts'

/** The ruler; with the gullies of the page as soon as there is what measures them. */
export function GullyRuler(props: GullyRulerProps) {
  const code = gullyCode.use()
  const { look, width, onChange } = props
  return code ? <code.MeasuredRuler {...props} /> : <Ruler look={look} width={width} onChange={onChange} />
}
