import { useState } from 'react'
import styled from 'styled-components'
import { useStore } from '../session/editor-store.ts'
import { later } from '../../ui/later.ts'
import { LaterDialog } from '../../ui/later-part.tsx'
import { useSetAside } from '../session/set-aside.ts'

const setAsideDialog = later(() => import('./set-aside-dialog.tsx'))

const Opener = styled.button`
  padding: 2px 0;
  border: 0;
  background: none;
  color: var(--ochre);
  font-weight: 550;
`
/** The way to text that did not make it into the page. Nothing when there is none. */
export function SetAsideButton() {
  const { journal } = useStore()
  const items = useSetAside(journal.owner)
  const [isOpen, setOpen] = useState(false)
  if (items.length === 0) return null
  return (
    <>
      <Opener type="button" onClick={() => setOpen(true)}>
        Set aside: {items.length}
      </Opener>
      {isOpen && (
        <LaterDialog code={setAsideDialog} onClose={() => setOpen(false)}>
          {({ SetAsideDialog }) => <SetAsideDialog items={items} onClose={() => setOpen(false)} />}
        </LaterDialog>
      )}
    </>
  )
}
