import { matchSorter } from 'match-sorter'
import { useMemo, useState, type KeyboardEvent } from 'react'
import {
  Autocomplete,
  Dialog,
  Header,
  Input,
  Menu,
  MenuItem,
  MenuSection,
  Modal,
  ModalOverlay,
  SearchField,
} from 'react-aria-components'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { useLibrary, usePages, useParts } from '../api/hooks.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { fieldBox, Keys, mono } from '../ui/controls.tsx'
import {
  actItems,
  helpItems,
  mediaItems,
  partItems,
  pageItems,
  screenItems,
  type SearchGroup,
  type SearchItem,
} from './search-items.ts'
import { useTextHits } from './use-text-hits.ts'

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 50;
  display: grid;
  justify-items: center;
  align-items: start;
  padding-top: min(12vh, 90px);
  background: rgb(25 33 30 / 35%);
`
const Panel = styled(Modal)`
  width: min(560px, calc(100vw - 32px));
  border-radius: 6px;
  background: var(--paper);
  color: var(--plain);
  box-shadow:
    0 0 0 1px var(--line),
    0 18px 60px rgb(0 0 0 / 35%);
`
const Body = styled(Dialog)`
  display: grid;
  gap: 8px;
  padding: 14px;
  outline: none;
`
const Quick = styled.div`
  display: contents;
`
const Box = styled(Input)`
  ${fieldBox}
  height: 34px;
`
const Scroller = styled.div`
  max-height: min(56vh, 520px);
  overflow: auto;
`
const List = styled(Menu)`
  outline: none;
`
const Group = styled(MenuSection)`
  header {
    padding: 8px 10px 3px;
    color: var(--quiet);
    font-size: 12px;
  }
`
const Item = styled(MenuItem)`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 14px;
  min-height: 32px;
  padding: 3px 10px;
  border-radius: 4px;
  outline: none;
  &[data-focused],
  &[data-hovered] {
    background: var(--accentTint);
    color: var(--accent);
  }
  > span {
    min-width: 0;
  }
  small {
    display: block;
    overflow: hidden;
    color: var(--quiet);
    font-size: 12px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`
const Path = styled.span`
  ${mono}
  flex: none;
  max-width: 45%;
  overflow: hidden;
  color: var(--quiet);
  text-overflow: ellipsis;
  white-space: nowrap;
`
const None = styled.p`
  padding: 6px 10px 10px;
  color: var(--quiet);
`

/** Shown of each group while something is searched for. */
const MOST_OF_GROUP = 8

interface SearchDialogProps {
  /** What can be done on this screen, first in the list. */
  readonly commands?: readonly SearchItem[]
  readonly onClose: () => void
}

/** Everything by its name: commands, pages with their path, text on pages, media, settings and help. */
export function SearchDialog({ commands = [], onClose }: SearchDialogProps) {
  const navigate = useNavigate()
  const [search, setSearch] = useState('')
  const known = useKnownItems(commands)
  const text = useTextHits(search)
  const groups = useMemo(() => groupsFor(known, text, search), [known, text, search])
  const run = (id: string): void => {
    const item = groups.flatMap(({ items }) => items).find((one) => one.id === id)
    if (!item) return
    onClose()
    if (item.run) item.run()
    else if (item.path !== undefined) void navigate(item.path, { state: item.toBegin ?? null })
  }
  // Enter takes the first line when it is pressed before the list has marked that line.
  const runFirst = (event: KeyboardEvent): void => {
    const first = groups[0]?.items[0]
    const isMarked = (event.target as Element).hasAttribute('aria-activedescendant')
    if (event.key !== 'Enter' || search.trim() === '' || isMarked || !first) return
    event.preventDefault()
    event.stopPropagation()
    run(first.id)
  }
  return (
    <Veil isOpen isDismissable onOpenChange={(open) => !open && onClose()}>
      <Panel>
        <Body aria-label="Search everything">
          <Quick onKeyDownCapture={runFirst}>
            <Autocomplete inputValue={search} onInputChange={setSearch}>
              <SearchField aria-label="Search everything" autoFocus>
                <Box placeholder="Search commands, pages, text, media, settings" />
              </SearchField>
              {/* Reached by Tab, so that it can be scrolled without a pointer; the arrow keys work from the field. */}
              <Scroller tabIndex={0} role="group" aria-label="Results">
                <List aria-label="Results" onAction={(id) => run(String(id))}>
                  {groups.map(({ title, items }) => (
                    <Group key={title}>
                      <Header>{title}</Header>
                      {items.map((item) => (
                        <Item key={item.id} id={item.id} textValue={item.title}>
                          <span>
                            {item.title}
                            {item.about && <small>{item.about}</small>}
                          </span>
                          {item.keys && <Keys>{item.keys}</Keys>}
                          {item.address && <Path>{item.address}</Path>}
                        </Item>
                      ))}
                    </Group>
                  ))}
                </List>
                {groups.length === 0 && <None role="status">Nothing found for “{search}”.</None>}
              </Scroller>
            </Autocomplete>
          </Quick>
        </Body>
      </Panel>
    </Veil>
  )
}

function useKnownItems(commands: readonly SearchItem[]): readonly SearchGroup[] {
  const { role } = useMe()
  const { data: library } = useLibrary()
  const { data: parts } = useParts()
  const { data: pages } = usePages()
  return useMemo(
    () => [
      { title: 'Commands', items: [...commands, ...actItems(role)] },
      { title: 'Pages', items: pageItems(pages ?? []) },
      { title: 'Screens and settings', items: screenItems(role) },
      { title: 'Media', items: library ? mediaItems(library) : [] },
      { title: 'Library', items: partItems(parts ?? []) },
      { title: 'Help', items: helpItems() },
    ],
    [commands, pages, role, library, parts],
  )
}

/** Names before synonyms before descriptions; every word that was typed is found. */
function groupsFor(
  known: readonly SearchGroup[],
  text: readonly SearchItem[],
  search: string,
): readonly SearchGroup[] {
  const words = search.trim().split(/\s+/).filter(Boolean)
  const found = known.map(({ title, items }) => ({
    title,
    items: words
      .reduceRight<readonly SearchItem[]>((left, word) => matchSorter(left, word, OPTIONS), items)
      .slice(0, words.length === 0 && title === 'Commands' ? undefined : MOST_OF_GROUP),
  }))
  const all = [...found, { title: 'Text on pages', items: text }]
  // Before anything is typed the list is short: what can be done here, and where one can go.
  return all.filter(({ items, title }) => items.length > 0 && (words.length > 0 || !ONLY_SEARCHED.has(title)))
}

const KEYS = [
  'title',
  { key: (item: SearchItem) => [...(item.synonyms ?? [])], maxRanking: matchSorter.rankings.STARTS_WITH },
  {
    key: (item: SearchItem) => [item.address ?? '', item.about ?? ''],
    maxRanking: matchSorter.rankings.CONTAINS,
    threshold: matchSorter.rankings.CONTAINS,
  },
]
/** Letters that only occur in order somewhere would find nearly everything. */
const OPTIONS = { keys: KEYS, threshold: matchSorter.rankings.CONTAINS }
const ONLY_SEARCHED = new Set(['Media', 'Library', 'Help'])
