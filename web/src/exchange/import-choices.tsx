import styled from 'styled-components'
import useSWR from 'swr'
import type { ImportChoice, ImportChoices, ImportItem, SiteInfo, WaitingImport } from '@gullyline/core'
import { request } from '../api/client.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { fieldBox } from '../ui/controls.tsx'
import { Note, Rows } from '../ui/form-parts.ts'
import { CarriedColours } from './carried-colours.tsx'

const Items = styled.div`
  display: grid;
  gap: 12px;
  max-height: 46vh;
  overflow: auto;
  h3 {
    font-size: 12px;
    font-weight: 600;
  }
  li {
    grid-template-columns: minmax(0, 1fr) 190px;
  }
  select {
    ${fieldBox}
    width: 100%;
  }
  li > small {
    padding-right: 12px;
    text-align: right;
  }
  @media (max-width: 560px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`
const All = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: flex-end;
  font-size: 13px;
  select {
    ${fieldBox}
    width: 190px;
  }
`

const GROUPS = [
  ['settings', 'Site'],
  ['header', 'Site'],
  ['footer', 'Site'],
  ['part', 'Parts'],
  ['page', 'Pages'],
  ['picture', 'Pictures'],
  ['file', 'Files'],
] as const satisfies readonly (readonly [ImportItem['thing'], string])[]

const CHOICE_WORDS: Readonly<Record<ImportChoice, string>> = {
  add: 'Add',
  mine: 'Keep mine',
  theirs: 'Take theirs',
  both: 'Keep both',
}

interface DecidingProps {
  /** Where the site that it comes to is asked for: its look says what colours become there. */
  readonly siteAt: string
  readonly waiting: WaitingImport
  readonly choices: ImportChoices
  readonly onChoose: (choices: ImportChoices) => void
  readonly surfaces: Readonly<Record<string, string>>
  readonly onSurfaces: (surfaces: Readonly<Record<string, string>>) => void
}

/** What a package brings, with what is there already: for each the person says which of the two it is to be. */
export function ImportChoicesList({
  siteAt,
  waiting,
  choices,
  onChoose,
  surfaces,
  onSurfaces,
}: DecidingProps) {
  const { data: site } = useSWR<SiteInfo, Error>(siteAt, () => request<SiteInfo>(siteAt))
  const mayReplaceSettings = useMe().role === 'keeper'
  const { items, surfaces: colours, lostPages } = waiting.plan
  const titles = [...new Set(GROUPS.map(([, title]) => title))]
  const thingsOf = (title: string): readonly string[] =>
    GROUPS.flatMap(([thing, one]) => (one === title ? [thing] : []))
  const choicesOf = ({ thing, choices: all }: ImportItem): readonly ImportChoice[] =>
    thing === 'settings' && !mayReplaceSettings ? ['mine'] : all
  const matched = items.filter((item) => choicesOf(item).length > 1)
  const chooseAll = (choice: ImportChoice): void =>
    onChoose(
      Object.fromEntries(
        matched.flatMap((item) => (choicesOf(item).includes(choice) ? [[item.key, choice]] : [])),
      ),
    )
  return (
    <>
      <p>{countWords(items.length - matched.length, matched.length)}</p>
      {matched.length > 1 && (
        <All>
          All that are here already
          <select
            value={sameForAll(matched, choices) ?? ''}
            onChange={(event) => chooseAll(event.target.value as ImportChoice)}
          >
            <option value="" disabled>
              Different choices
            </option>
            {(['mine', 'theirs', 'both'] as const).map((choice) => (
              <option key={choice} value={choice}>
                {CHOICE_WORDS[choice]}
              </option>
            ))}
          </select>
        </All>
      )}
      <Items>
        {titles.map((title) => {
          const group = items.filter(({ thing }) => thingsOf(title).includes(thing))
          if (group.length === 0) return null
          return (
            <section key={title} aria-label={title}>
              <h3>
                {title} ({group.length})
              </h3>
              <Rows>
                {group.map((item) => (
                  <li key={item.key}>
                    <span>
                      <strong>{item.name}</strong>
                      <small>{matchWords(item)}</small>
                    </span>
                    {choicesOf(item).length === 1 ? (
                      <small>{CHOICE_WORDS[choicesOf(item)[0]!]}</small>
                    ) : (
                      <select
                        aria-label={`What to do with ${item.name}`}
                        value={choices[item.key] ?? item.suggested}
                        onChange={(event) =>
                          onChoose({ ...choices, [item.key]: event.target.value as ImportChoice })
                        }
                      >
                        {choicesOf(item).map((choice) => (
                          <option key={choice} value={choice}>
                            {CHOICE_WORDS[choice]}
                          </option>
                        ))}
                      </select>
                    )}
                  </li>
                ))}
              </Rows>
            </section>
          )
        })}
        {site && colours.length > 0 && (
          <CarriedColours look={site.look} colours={colours} chosen={surfaces} onChoose={onSurfaces} />
        )}
      </Items>
      {lostPages > 0 && (
        <Note>
          {lostPages === 1 ? 'One page is' : `${lostPages} pages are`} linked to and not in the package. Those
          links lead nowhere until you set them; the checks list each one.
        </Note>
      )}
      <Note>
        Nothing here is lost: what is replaced gets a new version. If anything can’t be imported, nothing is.
      </Note>
    </>
  )
}

function countWords(added: number, matched: number): string {
  const things = (count: number): string => (count === 1 ? 'One thing' : `${count} things`)
  if (matched === 0) return `${things(added)}, new on this site.`
  if (added === 0) return `${things(matched)}, on this site already.`
  return `${things(added)} new on this site, ${matched} on it already.`
}

/** What is chosen for all of them that have the choice; undefined where it differs. */
function sameForAll(items: readonly ImportItem[], choices: ImportChoices): ImportChoice | undefined {
  const all = new Set(items.map((item) => choices[item.key] ?? item.suggested))
  return all.size === 1 ? [...all][0] : undefined
}

function matchWords({ match, thing }: ImportItem): string {
  if (!match) return 'New here'
  if (thing === 'settings') return 'This site has its own'
  if (match.isSame) return 'The same as here'
  const by = {
    id: `Came before, differs from “${match.name}”`,
    name: `Same name as “${match.name}”, differs`,
    address: `Same address as a page here: ${match.name}`,
    content: 'The same as here',
    place: 'Differs from the one here',
  }
  return by[match.by]
}
