import { useState } from 'react'
import { messageOf } from './message-of.ts'

export interface Act {
  readonly run: () => void
  readonly isBusy: boolean
  readonly trouble: string | undefined
}

/** An act on the server that may be refused: what is typed stays, and the reason is shown. */
export function useAct(act: () => Promise<void>): Act {
  const [isBusy, setBusy] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const run = (): void => {
    setBusy(true)
    setTrouble(undefined)
    act()
      .catch((error: unknown) => setTrouble(messageOf(error)))
      .finally(() => setBusy(false))
  }
  return { run, isBusy, trouble }
}
