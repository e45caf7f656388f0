import { useState } from 'react'
import styled from 'styled-components'
import { RULES, shownIdOf, type NodeId, type ShownId } from '@gullyline/core'
import { Button } from '../../ui/controls.tsx'
import { FixDialogLater } from '../gullyline/fix-dialog-later.tsx'
import { useShownGullies, type ShownGully } from '../gullyline/gully-context.tsx'
import { rangeOf } from '../gullyline/gully-range.ts'
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
  button {
    grid-column: 2;
    justify-self: start;
  }
`

/** What is wrong with the selected block, told where it can be mended. */
export function NodeProblems({ id }: { id: NodeId }) {
  const store = useStore()
  const around = useEditor((state) => state.around)
  const all = useShownFindings()
  const shown = shownIdOf(store.state.page, id, around, store.registry)
  // Of what an instance shows, the instance says it.
  const isIts = ({ nodeId }: { readonly nodeId?: ShownId }) =>
    nodeId === shown || nodeId?.startsWith(`${shown}/`)
  const findings = all.filter(isIts)
  const gullies = useShownGullies().filter((one) => one.ignored === undefined && isIts(one))
  const [mended, setMended] = useState<ShownGully>()
  if (findings.length === 0 && gullies.length === 0) return null
  const isError = [...findings, ...gullies].some(({ severity }) => severity === 'error')
  return (
    <>
      <Box aria-label="Problems of this block" data-severity={isError ? 'error' : 'warning'}>
        {findings.map((finding, index) => (
          <li key={index} title={finding.source}>
            <TroubleMark severity={finding.severity} title={finding.severity} />
            {finding.message}
          </li>
        ))}
        {gullies.map((gully) => (
          <li key={`${gully.rule} ${gully.nodeId} ${gully.from}`} title={gully.source}>
            <TroubleMark severity={gully.severity} title={gully.severity} />
            <span>
              {RULES.get(gully.rule)!.title}, {rangeOf(gully)}: {gully.why}
            </span>
            <Button aria-label={`Fix ${RULES.get(gully.rule)!.title}`} onPress={() => setMended(gully)}>
              Fix…
            </Button>
          </li>
        ))}
      </Box>
      <FixDialogLater gully={mended} onClose={() => setMended(undefined)} />
    </>
  )
}
