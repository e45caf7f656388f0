import { useState } from 'react'
import styled from 'styled-components'
import type { Role } from '@gullyline/core'
import { signOut } from '../api/person.ts'
import { Button, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { later } from '../ui/later.ts'
import { LaterDialog } from '../ui/later-part.tsx'
import { messageOf } from '../ui/message-of.ts'
import { Face, initialsOf } from './face.tsx'
import { useMe } from './sign-in-gate.tsx'

const accountDialogs = later(() => import('./account-dialogs.tsx'))

const MAY: Readonly<Record<Role, string>> = {
  editor: 'Editors can change, save and publish pages.',
  reviewer:
    'Reviewers can preview pages at every width and publish them. Changing a page needs the role of editor.',
  keeper: 'Administrators can do everything, including settings and accounts.',
}

const FaceButton = styled(Button)`
  padding: 0;
  border: 0;
  border-radius: 50%;
  width: 28px;
  height: 28px;
  background: none;
`
const Acts = styled.div`
  display: flex;
  gap: 8px;
`
const Trouble = styled.p`
  color: var(--clay);
`

/** Who is working here, what they may do, and the way out. */
export function MeButton() {
  const me = useMe()
  const [open, setOpen] = useState<'account' | 'password' | 'devices'>()
  const close = (): void => setOpen(undefined)
  const [trouble, setTrouble] = useState<string>()
  const leave = (): void => {
    signOut().catch((error: unknown) => setTrouble(messageOf(error)))
  }
  return (
    <>
      <FaceButton aria-label={`You are ${me.name}. Account`} onPress={() => setOpen('account')}>
        <Face aria-hidden="true" data-me="">
          {initialsOf(me.name)}
        </Face>
      </FaceButton>
      {(open === 'password' || open === 'devices') && (
        <LaterDialog code={accountDialogs} onClose={close}>
          {({ PasswordDialog, DevicesDialog }) =>
            open === 'password' ? <PasswordDialog onClose={close} /> : <DevicesDialog onClose={close} />
          }
        </LaterDialog>
      )}
      {open === 'account' && (
        <Dialog
          title={me.name}
          onClose={close}
          acts={
            <>
              <Button onPress={leave}>Sign out</Button>
              <MainButton onPress={close}>Close</MainButton>
            </>
          }
        >
          <p>
            You signed in as <b>{me.login}</b>. {MAY[me.role]}
          </p>
          <Acts>
            <Button onPress={() => setOpen('password')}>Change password…</Button>
            <Button onPress={() => setOpen('devices')}>Signed-in devices…</Button>
          </Acts>
          {trouble && <Trouble role="alert">{trouble}</Trouble>}
        </Dialog>
      )}
    </>
  )
}
