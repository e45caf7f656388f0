import { useState } from 'react'
import styled from 'styled-components'
import { Button, LineField, MainButton } from './controls.tsx'
import type { DraftField } from './drafts.ts'
import { messageOf } from './message-of.ts'

const Line = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  > :first-child {
    flex: 1 1 220px;
  }
`
const Trouble = styled.p`
  && {
    color: var(--clay);
  }
`

interface DraftLineProps {
  readonly label: string
  readonly draft: DraftField
  /** What is saved. */
  readonly saved: string
  readonly isReadOnly: boolean
  /** Whether it may be empty. */
  readonly isOptional?: boolean
  /** What is wrong with a text, if anything. */
  readonly fault?: ((text: string) => string | undefined) | undefined
}

/** A line of text outside of pages, which is saved by a button; what keeps it from being saved stands under it. */
export function DraftLine({ label, draft, saved, isReadOnly, isOptional = false, fault }: DraftLineProps) {
  const [trouble, setTrouble] = useState<string>()
  const [isBusy, setBusy] = useState(false)
  const text = draft.text.trim()
  const found = text === '' ? undefined : fault?.(text)
  const isChanged = text !== saved && (text !== '' || isOptional)
  const save = (): void => {
    setBusy(true)
    setTrouble(undefined)
    draft
      .save()
      .catch((error: unknown) => setTrouble(messageOf(error)))
      .finally(() => setBusy(false))
  }
  return (
    <>
      <Line
        onSubmit={(event) => {
          event.preventDefault()
          if (isChanged && !found) save()
        }}
      >
        <LineField label={label} value={draft.text} onChange={draft.setText} isReadOnly={isReadOnly} />
        {isChanged && !isReadOnly && (
          <>
            <Button onPress={draft.reset}>Cancel</Button>
            <MainButton type="submit" isDisabled={isBusy || found !== undefined}>
              Save {label.toLowerCase()}
            </MainButton>
          </>
        )}
      </Line>
      {draft.theirs !== undefined && (
        <Trouble role="alert">Someone else changed it to “{draft.theirs}”.</Trouble>
      )}
      {(found ?? trouble) && <Trouble role="alert">{found ?? trouble}</Trouble>}
    </>
  )
}
