import { useState } from 'react'
import styled from 'styled-components'
import type { Role } from '@gullyline/core'
import { signOut } from '../api/person.ts'
import { Button, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { Face, initialsOf } from './face.tsx'
import { useMe } from './sign-in-gate.tsx'

const MAY: Readonly<Record<Role, string>> = {
  editor: 'As an editor you change pages, save them and publish them.',
  reviewer: 'As a reviewer you look at pages at every width and publish them. Changing them is for editors.',
  keeper: 'As the site’s keeper you may do all that editors and reviewers may.',
}

const FaceButton = styled(Button)`
  padding: 0;
  border: 0;
  border-radius: 50%;
  width: 28px;
  height: 28px;
  background: none;
`
const Trouble = styled.p`
  color: var(--clay);
`

/** Who is working here, what they may do, and the way out. */
export function MeButton() {
  const me = useMe()
  const [isOpen, setOpen] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const leave = (): void => {
    signOut().catch((error: unknown) => setTrouble(error instanceof Error ? error.message : String(error)))
  }
  return (
    <>
      <FaceButton aria-label={`You are ${me.name}. Account`} onPress={() => setOpen(true)}>
        <Face aria-hidden="true" data-me="">
          {initialsOf(me.name)}
        </Face>
      </FaceButton>
      {isOpen && (
        <Dialog
          title={me.name}
          onClose={() => setOpen(false)}
          acts={
            <>
              <Button onPress={leave}>Sign out</Button>
              <MainButton onPress={() => setOpen(false)}>Go on</MainButton>
            </>
          }
        >
          <p>
            You signed in as <b>{me.login}</b>. {MAY[me.role]}
          </p>
          {trouble && <Trouble role="alert">{trouble}</Trouble>}
        </Dialog>
      )}
    </>
  )
}
