import { createContext, useContext, useState, type ReactNode } from 'react'
import styled from 'styled-components'
import type { Account } from '@gullyline/core'
import { openSite, siteInAddress } from '../api/site-address.ts'
import { isSignedOut, usePerson, useSessionEnded } from '../api/person.ts'
import { contourBackdrop } from '../editor/canvas/contours.ts'
import { Dialog } from '../ui/dialog.tsx'
import { Mark } from '../ui/mark.tsx'
import { Waiting } from '../ui/waiting.tsx'
import { SignInForm } from './sign-in-form.tsx'

const Screen = styled.main`
  display: grid;
  place-content: center;
  height: 100%;
  ${contourBackdrop}
`
const Card = styled.div`
  display: grid;
  gap: 18px;
  width: 340px;
  padding: 28px 30px 26px;
  border-radius: 6px;
  background: var(--paper);
  box-shadow: 0 18px 60px rgb(25 33 30 / 22%);
`
const Name = styled.h1`
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 18px;
`
const Foot = styled.p`
  color: var(--quiet);
  font-size: 12px;
`

const PersonContext = createContext<Account | undefined>(undefined)

/** Who is signed in. */
export function useMe(): Account {
  const person = useContext(PersonContext)
  if (!person) throw new Error('useMe is used outside of the sign-in gate')
  return person
}

/**
 * Shows what is inside to whoever is signed in, and the sign-in to everybody else. When the session ends while
 * somebody works, it is asked for over the screen, which stays as it is.
 */
export function SignInGate({ children }: { children: ReactNode }) {
  const { data, error } = usePerson()
  const hasEnded = useSessionEnded()
  // Who the screen began with: a refusal later must not take the screen away.
  const [me, setMe] = useState<Account>()
  if (data && data.id !== me?.id) {
    // Before anything inside asks for the site.
    openSite(siteInAddress ?? data.sites[0]?.id)
    setMe(data)
  }
  if (!me) {
    if (isSignedOut(error)) return <SignInScreen />
    if (error) return <Waiting title="Gullyline can’t be opened">{error.message}</Waiting>
    return <Waiting title="Opening…" />
  }
  const { sites } = data ?? me
  if (sites.length === 0 || (siteInAddress !== undefined && !sites.some(({ id }) => id === siteInAddress)))
    return <NoSite sites={sites} />
  return (
    <PersonContext value={data ?? me}>
      {children}
      {hasEnded && (
        <Dialog title="Sign in to continue" onClose={() => undefined} mustAnswer acts={null}>
          <p>Your session has ended. Nothing on the screen is lost. Sign in to continue.</p>
          <SignInForm login={me.login} />
        </Dialog>
      )}
    </PersonContext>
  )
}

/** For who has an account and does not work on the site that is asked for. */
function NoSite({ sites: [first] }: Pick<Account, 'sites'>) {
  return (
    <Screen>
      <Card>
        <Name>Site not found</Name>
        <p>You don’t work on this site. Ask its administrator to add you.</p>
        {first && <a href="/">Go to {first.name}</a>}
      </Card>
    </Screen>
  )
}

function SignInScreen() {
  return (
    <Screen>
      <Card>
        <Name>
          <Mark /> Sign in to Gullyline
        </Name>
        <SignInForm />
        <Foot>Ask your site’s administrator for an account.</Foot>
      </Card>
    </Screen>
  )
}
