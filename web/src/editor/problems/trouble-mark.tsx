import styled from 'styled-components'
import type { Finding } from '@gullyline/core'

const Mark = styled.svg`
  flex: none;
  width: 11px;
  height: 8px;
  fill: var(--ochre);
  &[data-severity='error'] {
    fill: var(--clay);
  }
`

/** Trouble is a small gully, pointing down: clay for an error, ochre for a warning. Its words stand beside it. */
export function TroubleMark({
  severity,
  title,
}: {
  readonly severity: Finding['severity']
  readonly title?: string
}) {
  return (
    <Mark
      viewBox="0 0 11 8"
      data-severity={severity}
      role={title === undefined ? 'presentation' : 'img'}
      aria-label={title}
    >
      <path d="M0 0h11L5.5 8z" />
    </Mark>
  )
}
