import styled from 'styled-components'
import { shownIdOf, type NodeId } from '@gullyline/core'
import { useEditor, useStore } from '../session/editor-store.ts'
import { useShownFindings } from './findings-context.tsx'
import { TroubleMark } from './trouble-mark.tsx'

/**
 * At the foot of the pane, always in sight: problems come and go a moment after what made them, and anything above them
 * would move under the pointer that is just pressing it.
 */
const Box = styled.ul`
  position: sticky;
  bottom: -24px;
  flex: none;
  display: grid;
  gap: 6px;
  /* Over the pane's own padding, to its edges. */
  margin: auto -14px -24px;
  padding: 11px 14px 13px;
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
  const store = useStore()
  const around = useEditor((state) => state.around)
  const all = useShownFindings()
  const shown = shownIdOf(store.state.page, id, around, store.registry)
  // Of what an instance shows, the instance says it.
  const findings = all.filter(({ nodeId }) => nodeId === shown || nodeId?.startsWith(`${shown}/`))
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
