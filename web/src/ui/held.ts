/** Whether somebody holds something in the hand: each frame of that is drawn before anything that can wait. */
import { Value } from './value.ts'

const held = new Value(0)

/** To be called as something is taken into the hand; returns what is to be called, once, when it is let go. */
export function hold(): () => void {
  held.set(held.get() + 1)
  return () => held.set(held.get() - 1)
}

/** Settles at once where nothing is held, and otherwise when all is let go. */
export async function untilLetGo(): Promise<void> {
  if (held.get() === 0) return
  await new Promise<void>((resolve) => {
    const end = held.subscribe(() => {
      if (held.get() > 0) return
      end()
      resolve()
    })
  })
}
