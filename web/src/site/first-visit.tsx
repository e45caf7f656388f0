import { X } from 'lucide'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useMe } from '../people/sign-in-gate.tsx'
import { IconButton } from '../ui/controls.tsx'
import { Icon } from '../ui/icon.tsx'

const Line = styled.aside`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  padding: 6px 6px 6px 12px;
  border-left: 3px solid var(--accentBright);
  border-radius: 0 5px 5px 0;
  background: var(--panel);
  font-size: 13px;
`
const Words = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
`

interface FirstVisitProps {
  /** The page to begin with. */
  readonly home: { readonly id: string; readonly title: string } | undefined
}

/** Where to begin, for who is here for the first time; once closed it does not come again. */
export function FirstVisit({ home }: FirstVisitProps) {
  const { id, role } = useMe()
  const key = `gullyline.begun.${id}`
  const [isClosed, setClosed] = useState(() => localStorage.getItem(key) !== null)
  if (isClosed) return null
  const close = (): void => {
    setClosed(true)
    try {
      localStorage.setItem(key, '1')
    } catch {
      // With no room left in the browser the line comes again, which harms nobody.
    }
  }
  return (
    <Line aria-label="Where to begin">
      <Words>
        <strong>First time here?</strong>
        {home && (
          <span>
            {role === 'reviewer' ? 'Look at' : 'Open'} <Link to={`/pages/${home.id}`}>{home.title}</Link>
            {role === 'reviewer' ? ' at every width.' : ' and press any text to change it.'}
          </span>
        )}
        <span>
          <Link to="/help">Help</Link> has the twenty things people come to do.
        </span>
      </Words>
      <IconButton label="Close where to begin" onPress={close}>
        <Icon of={X} size={14} strokeWidth={1.75} />
      </IconButton>
    </Line>
  )
}
