import { useCallback, useState } from 'react'
import { useMe } from '../../people/sign-in-gate.tsx'

/** More would be most of what the shelf has. */
const MOST_RECENT = 6

/** What somebody placed last, newest first, remembered in this browser; and a way to add to it. */
export function useRecent(): readonly [recent: readonly string[], remember: (id: string) => void] {
  const key = `gullyline.recent.${useMe().id}`
  const [recent, setRecent] = useState(() => read(key))
  const remember = useCallback(
    (id: string): void => {
      const next = [id, ...read(key).filter((one) => one !== id)].slice(0, MOST_RECENT)
      setRecent(next)
      try {
        localStorage.setItem(key, JSON.stringify(next))
      } catch {
        // Only remembering it fails.
      }
    },
    [key],
  )
  return [recent, remember]
}

function read(key: string): readonly string[] {
  try {
    const ids: unknown = JSON.parse(localStorage.getItem(key) ?? '[]')
    return Array.isArray(ids) ? ids.filter((id): id is string => typeof id === 'string') : []
  } catch {
    return []
  }
}
