import { useCallback, useState } from 'react'
import { useMe } from '../people/sign-in-gate.tsx'

function read(key: string): ReadonlySet<string> {
  try {
    const ids: unknown = JSON.parse(localStorage.getItem(key) ?? '[]')
    return new Set(Array.isArray(ids) ? ids.filter((id): id is string => typeof id === 'string') : [])
  } catch {
    return new Set()
  }
}

/** The pages whose sub-pages somebody has collapsed, remembered in this browser. */
export function useCollapsed(): {
  readonly collapsed: ReadonlySet<string>
  readonly setCollapsed: (id: string, isCollapsed: boolean) => void
} {
  const key = `gullyline.collapsed.${useMe().id}`
  const [collapsed, set] = useState(() => read(key))
  const setCollapsed = useCallback(
    (id: string, isCollapsed: boolean): void =>
      set((before) => {
        const next = new Set(before)
        if (isCollapsed) next.add(id)
        else next.delete(id)
        try {
          localStorage.setItem(key, JSON.stringify([...next]))
        } catch {
          // Only remembering it fails.
        }
        return next
      }),
    [key],
  )
  return { collapsed, setCollapsed }
}
