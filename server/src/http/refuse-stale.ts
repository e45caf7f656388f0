import { sameJson, type JsonObject, type VersionInfo } from '@gullyline/core'
import { Refused } from './errors.ts'

type Values = Readonly<Record<string, unknown>>

interface StaleCheck {
  /** The values that are stored. */
  readonly now: Values
  /** The values that the sender saw; what is absent is not compared. */
  readonly was: Values
  /** The values that the sender wants. */
  readonly wanted: Values
  /** Who stored what is there now. */
  readonly by: string
  readonly current?: VersionInfo
}

/**
 * Refuses, with `stale-save`, if a stored value is neither the one the sender saw nor the one they want. The refusal says
 * what it is now.
 */
export function refuseStale({ now, was, wanted, by, current }: StaleCheck): void {
  const stale = Object.keys(was).find((key) => !isSame(now[key], was[key]) && !isSame(now[key], wanted[key]))
  if (stale === undefined) return
  const value = now[stale]
  const what = typeof value !== 'string' ? '' : value === '' ? ', and left it empty' : `, to “${value}”`
  throw new Refused(
    'stale-save',
    `${by} changed this meanwhile${what}. Nothing was overwritten; look at it, and change it again if you still want to.`,
    current === undefined ? {} : { current },
  )
}

function isSame(a: unknown, b: unknown): boolean {
  return sameJson(a as JsonObject, b as JsonObject)
}
