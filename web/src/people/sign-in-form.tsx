import { useState } from 'react'
import styled from 'styled-components'
import { signIn } from '../api/person.ts'
import { LineField, MainButton } from '../ui/controls.tsx'
import { messageOf } from '../ui/message-of.ts'

const Form = styled.form`
  display: grid;
  gap: 14px;
`
const Trouble = styled.p`
  color: var(--clay);
`
const Go = styled(MainButton)`
  justify-self: end;
  min-width: 96px;
`

interface SignInFormProps {
  /** The one who was signed in here, when it is the same session that goes on. */
  readonly login?: string
}

/** Name and password. What was typed stays when it is refused. */
export function SignInForm({ login: known }: SignInFormProps) {
  const [login, setLogin] = useState(known ?? '')
  const [password, setPassword] = useState('')
  const [trouble, setTrouble] = useState<string>()
  const [isBusy, setBusy] = useState(false)
  const isReady = login.trim() !== '' && password !== '' && !isBusy
  const go = (): void => {
    if (!isReady) return
    setBusy(true)
    setTrouble(undefined)
    signIn({ login, password })
      .catch((error: unknown) => setTrouble(messageOf(error)))
      .finally(() => setBusy(false))
  }
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault()
        go()
      }}
    >
      <LineField
        label="Sign-in name"
        value={login}
        onChange={setLogin}
        autoFocus={known === undefined}
        autoComplete="username"
        isReadOnly={known !== undefined}
      />
      <LineField
        label="Password"
        value={password}
        onChange={setPassword}
        autoFocus={known !== undefined}
        autoComplete="current-password"
        type="password"
      />
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <Go type="submit" isDisabled={!isReady}>
        {isBusy ? 'Signing in…' : 'Sign in'}
      </Go>
    </Form>
  )
}
