import { useState, type FormEvent } from 'react'
import styled from 'styled-components'
import useSWR from 'swr'
import type { OpenSession } from '@gullyline/core'
import { request } from '../api/client.ts'
import { ActionRows } from '../ui/action-rows.tsx'
import { Button, LineField, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { messageOf } from '../ui/message-of.ts'
import { when } from '../ui/when.ts'

const Trouble = styled.p`
  color: var(--clay);
`
const Form = styled.form`
  display: grid;
  gap: 12px;
`

/** Another password: asks for the present one, and ends all other sessions. */
export function PasswordDialog({ onClose }: { onClose: () => void }) {
  const [present, setPresent] = useState('')
  const [password, setPassword] = useState('')
  const [trouble, setTrouble] = useState<string>()
  const [state, setState] = useState<'asking' | 'busy' | 'done'>('asking')
  const isReady = present !== '' && password !== '' && state === 'asking'
  const change = async (event?: FormEvent): Promise<void> => {
    event?.preventDefault()
    if (!isReady) return
    setTrouble(undefined)
    setState('busy')
    try {
      await request('/api/session/password', { method: 'PUT', body: { present, password } })
      setState('done')
    } catch (error) {
      setTrouble(messageOf(error))
      setState('asking')
    }
  }
  if (state === 'done')
    return (
      <Dialog
        title="Password changed"
        onClose={onClose}
        acts={<MainButton onPress={onClose}>Close</MainButton>}
      >
        <p>You are signed out on all other devices.</p>
      </Dialog>
    )
  return (
    <Dialog
      title="Change password"
      onClose={onClose}
      isForm
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={!isReady} onPress={() => void change()}>
            Change password
          </MainButton>
        </>
      }
    >
      <Form onSubmit={(event) => void change(event)}>
        <LineField
          autoFocus
          label="Current password"
          type="password"
          autoComplete="current-password"
          value={present}
          onChange={setPresent}
        />
        <LineField
          label="New password"
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={setPassword}
        />
        <p>
          At least 15 characters. Four words that have nothing to do with each other are easy to remember.
        </p>
        {trouble && <Trouble role="alert">{trouble}</Trouble>}
        {/* Enter in a field changes it. */}
        <input type="submit" hidden />
      </Form>
    </Dialog>
  )
}

/** Where somebody is signed in, and the way to end it there. */
export function DevicesDialog({ onClose }: { onClose: () => void }) {
  const { data, error, mutate } = useSWR<OpenSession[], Error>('/api/session/all', (path: string) =>
    request<OpenSession[]>(path),
  )
  const [trouble, setTrouble] = useState<string>()
  const end = async (id: string): Promise<void> => {
    setTrouble(undefined)
    await request(`/api/session/all/${id}`, { method: 'DELETE' }).catch((one: unknown) =>
      setTrouble(messageOf(one)),
    )
    await mutate()
  }
  const told = trouble ?? error?.message
  return (
    <Dialog
      title="Signed-in devices"
      onClose={onClose}
      acts={<MainButton onPress={onClose}>Close</MainButton>}
    >
      {!data && !error && <p>Reading the list…</p>}
      <ActionRows>
        {data?.map(({ id, device, startedAt, usedAt, isThis }) => (
          <li key={id}>
            <div>
              {device}
              {isThis && ' (this device)'}
              <small>
                Signed in {when(startedAt)}, last used {when(usedAt)}
              </small>
            </div>
            {!isThis && (
              <Button aria-label={`Sign out ${device}`} onPress={() => void end(id)}>
                Sign out
              </Button>
            )}
          </li>
        ))}
      </ActionRows>
      {told && <Trouble role="alert">{told}</Trouble>}
    </Dialog>
  )
}
