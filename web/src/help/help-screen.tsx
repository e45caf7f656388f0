import { matchSorter } from 'match-sorter'
import { useEffect, useState } from 'react'
import { useLocation } from 'react-router'
import styled from 'styled-components'
import { COMMAND_IDS, keysOf, type CommandId } from '../editor/commands/command-list.ts'
import { Sheet } from '../site/sheet.ts'
import { SiteScreen } from '../site/site-screen.tsx'
import { FindBox, Keys } from '../ui/controls.tsx'
import { HELP_TOPICS, piecesOf, type HelpTopic } from './topics.ts'

const Topic = styled.section`
  display: grid;
  gap: 6px;
  padding-top: 16px;
  border-top: 1px solid var(--line);
  scroll-margin-top: 20px;
  font-size: 14px;
  h2 {
    font-size: 15px;
  }
  ol {
    display: grid;
    gap: 4px;
    margin: 0;
    padding-left: 20px;
  }
  &:target h2 {
    color: var(--accent);
  }
`
const AllKeys = styled.table`
  border-spacing: 0;
  td {
    padding: 4px 18px 4px 0;
    border-top: 1px solid var(--line);
  }
`

const SEARCH_BY = ['title', 'synonyms', 'steps']

/** The things people come to do, each with its steps and keys, and every key there is. */
export function HelpScreen() {
  const [search, setSearch] = useState('')
  const { hash } = useLocation()
  useEffect(() => {
    if (hash !== '') document.getElementById(hash.slice(1))?.scrollIntoView({ block: 'start' })
  }, [hash])
  const words = search.trim().split(/\s+/).filter(Boolean)
  const found = words.reduceRight<readonly HelpTopic[]>(
    (left, word) => matchSorter(left, word, { keys: SEARCH_BY, threshold: matchSorter.rankings.CONTAINS }),
    HELP_TOPICS,
  )
  return (
    <SiteScreen title="Help">
      <Sheet>
        <div>
          <h1>Help</h1>
          <FindBox label="Search help" placeholder="Search help" value={search} onChange={setSearch} />
          {found.map((topic) => (
            <Topic key={topic.id} id={topic.id} aria-label={topic.title}>
              <h2>{topic.title}</h2>
              <ol>
                {topic.steps.map((step) => (
                  <li key={step}>
                    <Step step={step} />
                  </li>
                ))}
              </ol>
            </Topic>
          ))}
          {found.length === 0 && <p role="status">No help for “{search}”.</p>}
          {words.length === 0 && (
            <Topic id="keys" aria-label="All keys of the editor">
              <h2>All keys of the editor</h2>
              <AllKeys>
                <tbody>
                  {COMMAND_IDS.filter((id) => keysOf(id).keys !== '').map((id) => (
                    <tr key={id}>
                      <td>{keysOf(id).title}</td>
                      <td>
                        <Keys>{keysOf(id).keys}</Keys>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </AllKeys>
            </Topic>
          )}
        </div>
      </Sheet>
    </SiteScreen>
  )
}

function Step({ step }: { step: string }) {
  return piecesOf(step).map((piece, i) =>
    typeof piece === 'string' ? piece : <Keys key={i}>{keysOf(piece.command as CommandId).keys}</Keys>,
  )
}
