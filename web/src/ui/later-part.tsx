import { useCallback, useEffect, useState, type ReactNode } from 'react'
import styled from 'styled-components'
import { Button } from './controls.tsx'
import { Dialog } from './dialog.tsx'
import { useEarlyKeys } from './early-keys.ts'
import type { Later } from './later.ts'
import { messageOf } from './message-of.ts'

const Note = styled.div`
  display: grid;
  justify-items: start;
  gap: 6px;
  min-height: 30px;
  color: var(--quiet);
  font-size: 12px;
`

/** Carried by a part of the screen whose code is on its way. */
const ON_ITS_WAY = { 'data-on-its-way': '' }

/** The code, fetched from now on if it is not there. `again` tries once more after it could not be had. */
function useLaterCode<T>({ use, load }: Later<T>) {
  const code = use()
  const [trouble, setTrouble] = useState<string>()
  const [tries, setTries] = useState(0)
  const again = useCallback(() => {
    setTrouble(undefined)
    setTries((count) => count + 1)
  }, [])
  useEffect(() => {
    load().catch((error: unknown) => setTrouble(messageOf(error)))
  }, [load, tries])
  return { code, trouble, again }
}

interface LaterPartProps<T> {
  readonly code: Later<T>
  readonly children: (code: T) => ReactNode
}

/** A part of a pane whose code comes when the part is first shown. */
export function LaterPart<T>({ code: later, children }: LaterPartProps<T>) {
  const { code, trouble, again } = useLaterCode(later)
  if (code !== undefined) return children(code)
  return trouble !== undefined ? (
    <Note role="alert">
      {trouble}
      <Button onPress={again}>Try again</Button>
    </Note>
  ) : (
    <Note {...ON_ITS_WAY} aria-busy />
  )
}

interface LaterDialogProps<T> extends LaterPartProps<T> {
  readonly onClose: () => void
}

/** A dialog whose code comes when it is first opened. */
export function LaterDialog<T>({ code: later, children, onClose }: LaterDialogProps<T>) {
  const { code, trouble, again } = useLaterCode(later)
  if (code !== undefined) return children(code)
  return trouble !== undefined ? (
    <Dialog
      title="Not loaded"
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Close</Button>
          <Button onPress={again}>Try again</Button>
        </>
      }
    >
      <p role="alert">{trouble}</p>
    </Dialog>
  ) : null
}

interface LaterTypedDialogProps<T> extends LaterDialogProps<T> {
  /** False while the dialog lacks what its keys act on. */
  readonly isReady?: boolean
}

/** A dialog that is typed into at once: what is typed before its code is there and it is ready is typed into it then, and Escape takes the wish back. */
export function LaterTypedDialog<T>({ isReady = true, ...props }: LaterTypedDialogProps<T>) {
  const isThere = props.code.use() !== undefined
  useEarlyKeys(isThere && isReady, props.onClose)
  return <LaterDialog {...props} />
}
