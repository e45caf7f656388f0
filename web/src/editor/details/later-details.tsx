import { later } from '../../ui/later.ts'
import type { DetailsProps } from './details.tsx'

/** The pane of details: what it sets is on the page, which is drawn first. */
export const detailsCode = later(() => import('./details.tsx'))

/** The details, or the place of them until their code is there. */
export function LaterDetails(props: DetailsProps) {
  const code = detailsCode.use()
  return code ? <code.Details {...props} /> : <aside />
}
