import { useState } from 'react'
import { Button as AriaButton, Dialog, DialogTrigger } from 'react-aria-components'
import styled from 'styled-components'
import type { Finding } from '@gullyline/core'
import { seenAt } from '../canvas/shown-ids.ts'
import { ListPop } from '../../ui/list-pop.ts'
import { useStore } from '../session/editor-store.ts'
import { useShownFindings } from './findings-context.tsx'
import { TroubleMark } from './trouble-mark.tsx'
import { counted } from '../../ui/counted.ts'

const Opener = styled(AriaButton)`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: 24px;
  padding: 0 9px;
  border: 0;
  border-radius: 4px;
  background: var(--ochreTint);
  color: var(--ochre);
  font-size: 12px;
  font-weight: 550;
  white-space: nowrap;
  &[data-severity='error'] {
    background: var(--clayTint);
    color: var(--clay);
  }
`
const List = styled.ol`
  margin: 0;
  padding: 6px;
  list-style: none;
  button {
    display: grid;
    grid-template-columns: 14px minmax(0, 1fr);
    gap: 2px 6px;
    align-items: baseline;
    width: 100%;
    padding: 8px 10px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
  }
  button:hover {
    background: var(--panel);
  }
  small {
    grid-column: 2;
    color: var(--quiet);
    font-size: 11.5px;
  }
`

/** How many problems the page has; opens the list, whose every line leads to the spot. */
export function ProblemsButton() {
  const store = useStore()
  const findings = useShownFindings()
  const [isOpen, setOpen] = useState(false)
  const [worst] = findings
  if (!worst) return null
  const goTo = (finding: Finding): void => {
    const { nodeId } = finding
    store.dispatch({ type: 'select', ...(nodeId === undefined ? { id: nodeId } : seenAt(nodeId)) })
    setOpen(false)
  }
  return (
    <DialogTrigger isOpen={isOpen} onOpenChange={setOpen}>
      <Opener data-severity={worst.severity}>
        <TroubleMark severity={worst.severity} />
        {counted(findings.length, 'problem')}
      </Opener>
      <ListPop placement="bottom start">
        <Dialog aria-label="Problems of this page">
          <List>
            {findings.map((finding, index) => (
              <li key={index}>
                <button type="button" onClick={() => goTo(finding)}>
                  <TroubleMark severity={finding.severity} title={finding.severity} />
                  <span>{finding.message}</span>
                  <small>{finding.source}</small>
                </button>
              </li>
            ))}
          </List>
        </Dialog>
      </ListPop>
    </DialogTrigger>
  )
}
