import styled from 'styled-components'
import type { NodeId } from '@gullyline/core'
import { useShownFindings } from './findings-context.tsx'
import { TroubleMark } from './trouble-mark.tsx'

const Box = styled.ul`
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 9px 11px;
  border-radius: 5px;
  background: var(--ochreTint);
  color: var(--ochre);
  list-style: none;
  &[data-severity='error'] {
    background: var(--clayTint);
    color: var(--clay);
  }
  li {
    display: grid;
    grid-template-columns: 14px minmax(0, 1fr);
    gap: 6px;
    align-items: baseline;
    font-weight: 550;
  }
`

/** What is wrong with the selected block, told where it can be mended. */
export function NodeProblems({ id }: { id: NodeId }) {
  const findings = useShownFindings().filter((finding) => finding.nodeId === id)
  const [worst] = findings
  if (!worst) return null
  return (
    <Box aria-label="Problems of this block" data-severity={worst.severity}>
      {findings.map((finding, index) => (
        <li key={index} title={finding.source}>
          <TroubleMark severity={finding.severity} title={finding.severity} />
          {finding.message}
        </li>
      ))}
    </Box>
  )
}
