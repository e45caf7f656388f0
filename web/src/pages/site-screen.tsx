import { ChevronRight } from 'lucide-react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { Bar, Crumbs } from '../editor/top-bar.tsx'
import { MeButton } from '../people/me-button.tsx'
import { DraftGuard } from '../ui/leave-guard.tsx'
import { Mark } from '../ui/mark.tsx'

const Screen = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
`

interface SiteScreenProps {
  readonly siteName: string
  /** What is shown of the site; absent for the site itself. */
  readonly title?: string
  /** Beside the name. */
  readonly beside?: ReactNode
  readonly children: ReactNode
}

/** A screen about the whole site, under the bar that says where one is. */
export function SiteScreen({ siteName, title, beside, children }: SiteScreenProps) {
  return (
    <Screen>
      <Bar>
        <Mark />
        <Crumbs aria-label="Where you are">
          {title === undefined ? (
            <h1>{siteName}</h1>
          ) : (
            <>
              <Link to="/">{siteName}</Link>
              <ChevronRight size={15} color="var(--quiet)" aria-hidden="true" />
              <h1>{title}</h1>
            </>
          )}
        </Crumbs>
        {beside}
        <div style={{ marginLeft: 'auto' }}>
          <MeButton />
        </div>
      </Bar>
      {children}
      <DraftGuard />
    </Screen>
  )
}
