/** Code that a screen does without when it opens: fetched ahead of need, and used at once where it is there. */
import { ApiError } from '../api/client.ts'
import { useValue, Value } from './value.ts'

export interface Later<T> {
  /** Fetches the code, unless it is there. Rejects with an ApiError when it can't be had; asking again tries again. */
  readonly load: () => Promise<T>
  /** The code, or undefined until it is there. */
  readonly use: () => T | undefined
  /** The same outside of React. */
  readonly get: () => T | undefined
}

const UNREACHABLE = 'Can’t reach the server to load this part of the editor. Nothing was changed. Try again.'

/** `unreachable` is what a person is told when the code can’t be had. */
export function later<T>(fetchCode: () => Promise<T>, unreachable: string = UNREACHABLE): Later<T> {
  const code = new Value<T | undefined>(undefined)
  let loading: Promise<T> | undefined
  const fetchOnce = async (): Promise<T> => {
    try {
      const fetched = await fetchCode()
      code.set(fetched)
      return fetched
    } catch {
      throw new ApiError(unreachable, undefined, { isUnreachable: true })
    } finally {
      loading = undefined
    }
  }
  return {
    load: async () => code.get() ?? (loading ??= fetchOnce()),
    use: () => useValue(code),
    get: code.get,
  }
}

const TRY_AGAIN_MS = 1000

/** Fetches the code, trying again every second for as long as it is wanted. `onFail` is called for the first failure. */
export async function loadAtLast<T>(
  code: Later<T>,
  isWanted: () => boolean,
  onFail?: () => void,
): Promise<void> {
  for (let tries = 0; isWanted(); tries++) {
    try {
      await code.load()
      return
    } catch {
      if (tries === 0) onFail?.()
      await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS))
    }
  }
}
