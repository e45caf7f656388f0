import styled from 'styled-components'
import { Button } from '../../ui/controls.tsx'

const Deleted = styled.div`
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 8px 14px;
  background: var(--clayTint);
  color: var(--clay);
`

/** Somebody deleted the page that is being edited. */
export function DeletedBar({ onRestore }: { onRestore: () => Promise<void> }) {
  return (
    <Deleted role="alert" data-deleted="">
      This page was deleted. Your edits are not lost, and can be saved once it is restored.
      <Button onPress={() => void onRestore()}>Restore page and save</Button>
    </Deleted>
  )
}
