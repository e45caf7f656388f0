import { Search } from 'lucide'
import { useEffect, useState, type ReactNode } from 'react'
import { Link, NavLink } from 'react-router'
import styled from 'styled-components'
import { useBin, useLibrary, usePages, useParts, useSiteInfo } from '../api/hooks.ts'
import { MeButton } from '../people/me-button.tsx'
import { useMe } from '../people/sign-in-gate.tsx'
import { SearchDialog } from '../search/search-dialog.tsx'
import { Keys } from '../ui/controls.tsx'
import { DraftGuard } from '../ui/leave-guard.tsx'
import { Mark } from '../ui/mark.tsx'
import { SEARCH_KEYS, isSearchKey } from '../search/search-keys.ts'
import { SiteSwitch } from './site-switch.tsx'
import { screensFor, type SiteScreenInfo } from './screens.ts'
import { Icon } from '../ui/icon.tsx'

const Screen = styled.div`
  display: grid;
  grid-template: auto minmax(0, 1fr) / 196px minmax(0, 1fr);
  height: 100%;
  @media (max-width: 860px) {
    grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  }
`
const Bar = styled.header`
  display: flex;
  grid-column: 1 / -1;
  align-items: center;
  gap: 12px;
  height: 48px;
  padding: 0 14px 0 12px;
  border-bottom: 1px solid var(--line);
  background: var(--paper);
`
const SiteName = styled(Link)`
  overflow: hidden;
  min-width: 60px;
  color: var(--strong);
  font-size: 14.5px;
  font-weight: 650;
  text-decoration: none;
  text-overflow: ellipsis;
  white-space: nowrap;
`
const SearchButton = styled.button`
  display: flex;
  flex: 0 1 330px;
  align-items: center;
  gap: 8px;
  min-width: 0;
  height: 30px;
  margin-left: 12px;
  padding: 0 8px 0 10px;
  border: 1px solid var(--control);
  border-radius: 5px;
  background: var(--paper);
  color: var(--quiet);
  text-align: left;
  svg {
    flex: none;
  }
  span {
    flex: 1;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  @media (max-width: 700px) {
    kbd {
      display: none;
    }
  }
`
const Right = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  margin-left: auto;
  white-space: nowrap;
`
const List = styled.nav`
  display: flex;
  flex-direction: column;
  gap: 1px;
  padding: 14px 0 10px;
  overflow: auto;
  border-right: 1px solid var(--line);
  background: var(--panel);
  h2 {
    margin: 16px 18px 4px;
    color: var(--quiet);
    font-size: 12px;
    font-weight: 450;
  }
  h2:first-child {
    margin-top: 0;
  }
  a {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    min-height: 30px;
    padding: 0 18px;
    border-left: 3px solid transparent;
    color: var(--strong);
    font-size: 14px;
    font-weight: 550;
    text-decoration: none;
  }
  a:hover {
    background: var(--line);
  }
  a[aria-current] {
    border-left-color: var(--accent);
    background: var(--accentTint);
    color: var(--accent);
  }
  small {
    color: var(--quiet);
    font-size: 12px;
    font-weight: 450;
  }
  @media (max-width: 860px) {
    flex-flow: row wrap;
    padding: 4px 6px;
    border-right: 0;
    border-bottom: 1px solid var(--line);
    h2,
    span[data-space] {
      display: none;
    }
    a {
      padding: 0 10px;
      border-left: 0;
      border-radius: 4px;
    }
  }
`
const Space = styled.span`
  flex: 1;
`

interface SiteScreenProps {
  /** Of the screen; also the title of the browser's tab. */
  readonly title: string
  readonly children: ReactNode
}

/** What every screen of the site has around it: the bar, and the list of all screens. */
export function SiteScreen({ title, children }: SiteScreenProps) {
  const { data: site } = useSiteInfo()
  const [isSearching, setSearching] = useState(false)
  useEffect(() => {
    document.title = site ? `${title} · ${site.name}` : title
  }, [title, site])
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent): void => {
      if (!isSearchKey(event) || document.querySelector('[role="dialog"], [role="alertdialog"]')) return
      event.preventDefault()
      setSearching(true)
    }
    document.addEventListener('keydown', onKeyDown)
    return () => document.removeEventListener('keydown', onKeyDown)
  }, [])
  return (
    <Screen>
      <Bar>
        <Mark />
        <SiteName to="/">{site?.name ?? ''}</SiteName>
        <SiteSwitch />
        <SearchButton type="button" onClick={() => setSearching(true)}>
          <Icon of={Search} size={15} strokeWidth={1.75} aria-hidden="true" />
          <span>Search everything</span> <Keys>{SEARCH_KEYS}</Keys>
        </SearchButton>
        <Right>
          {site && (
            <a href={site.liveOrigin} target="_blank" rel="noreferrer">
              View live site
            </a>
          )}
          <MeButton />
        </Right>
      </Bar>
      <Screens />
      {children}
      <DraftGuard />
      {isSearching && <SearchDialog onClose={() => setSearching(false)} />}
    </Screen>
  )
}

function Screens() {
  const { role } = useMe()
  const counts = useCounts()
  const screens = screensFor(role)
  const groups = ['Build', 'Shape', undefined] as const
  return (
    <List aria-label="Screens">
      {groups.map((group) => [
        group === undefined ? <Space key="space" data-space="" /> : <h2 key={group}>{group}</h2>,
        ...screens
          .filter((screen) => screen.group === group)
          .map((screen) => <ScreenLink key={screen.path} screen={screen} count={counts[screen.path]} />),
      ])}
    </List>
  )
}

function ScreenLink({ screen, count }: { screen: SiteScreenInfo; count: number | undefined }) {
  return (
    <NavLink to={screen.path} end>
      {screen.title} {count !== undefined && count > 0 && <small>{count}</small>}
    </NavLink>
  )
}

/** How much there is on each screen; what has not been read yet is left out. */
function useCounts(): Readonly<Record<string, number | undefined>> {
  const { data: library } = useLibrary()
  const { data: pages, isWhole } = usePages()
  const { data: bin } = useBin()
  const { data: parts } = useParts()
  return {
    '/': isWhole ? pages?.length : undefined,
    '/media-library': library && Object.keys(library.pictures).length + Object.keys(library.files).length,
    '/library': parts?.filter(({ binnedAt }) => binnedAt === null).length,
    '/bin': bin?.length,
  }
}
