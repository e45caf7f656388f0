import styled from 'styled-components'
import { UploadList } from '../../media/upload-area.tsx'
import { useUploads } from '../../media/uploads.ts'

const Panel = styled.section`
  position: absolute;
  right: 16px;
  bottom: 16px;
  z-index: 6;
  width: 340px;
  max-height: 50%;
  padding: 10px 14px;
  overflow: auto;
  border-radius: 6px;
  background: var(--paper);
  box-shadow:
    0 0 0 1px var(--line),
    0 10px 30px rgb(25 33 30 / 25%);
`

/** Pictures on their way from a paste or a drop: how far they are, how to cancel, and why one was refused. */
export function UploadPanel() {
  const open = useUploads().filter(({ to, state }) => to === 'pictures' && state.type !== 'done')
  if (open.length === 0) return null
  return (
    <Panel aria-label="Uploads">
      <UploadList uploads={open} />
    </Panel>
  )
}
