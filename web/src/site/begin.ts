/** Acts of a screen that can be asked for from any other one, such as adding a page. */
import { useEffect, useEffectEvent } from 'react'
import { useLocation, useNavigate } from 'react-router'

/** Given along with the path of a screen: what is to begin there. */
export interface ToBegin {
  readonly begin: 'add-page' | 'add-link'
}

/** Calls `begin` once when the screen was gone to for this act. */
export function useBegin(act: ToBegin['begin'], begin: () => void): void {
  const location = useLocation()
  const navigate = useNavigate()
  const isAsked = (location.state as Partial<ToBegin> | null)?.begin === act
  const start = useEffectEvent(() => {
    begin()
    // Going back or reading the screen again must not begin it another time.
    void navigate(location, { replace: true, state: null })
  })
  useEffect(() => {
    if (isAsked) start()
  }, [isAsked])
}
