import { useState } from 'react'
import styled from 'styled-components'
import { ICON_WORDS, iconElement, type IconName } from '@gullyline/core'
import { Button, FindBox } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { elementToReact } from '../canvas/element-to-react.ts'

const Sign = styled.span`
  display: grid;
  svg {
    width: 18px;
    height: 18px;
    fill: none;
    stroke: currentColor;
    stroke-width: 1.6;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
`
const Grid = styled.ul`
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
  button {
    display: grid;
    place-items: center;
    width: 100%;
    height: 44px;
    padding: 0;
    border: 1px solid var(--line);
    border-radius: 5px;
    background: var(--paper);
    color: var(--strong);
  }
  button[aria-pressed='true'] {
    border-color: var(--accentBright);
    box-shadow: 0 0 0 1px var(--accentBright);
  }
  svg {
    width: 22px;
    height: 22px;
  }
`

interface IconFieldProps {
  readonly label: string
  readonly value: string
  readonly onChange: (name: string) => void
}

/** One of the drawn signs, chosen by looking or by typing its name. */
export function IconField({ label, value, onChange }: IconFieldProps) {
  const [isOpen, setOpen] = useState(false)
  const [search, setSearch] = useState('')
  const names = Object.entries(ICON_WORDS).filter(([, words]) =>
    words.toLowerCase().includes(search.trim().toLowerCase()),
  )
  return (
    <>
      <Button onPress={() => setOpen(true)} aria-label={`${label}: change`}>
        <IconSign name={value as IconName} /> {ICON_WORDS[value as IconName]}
      </Button>
      {isOpen && (
        <Dialog
          title="Choose an icon"
          onClose={() => setOpen(false)}
          acts={<Button onPress={() => setOpen(false)}>Cancel</Button>}
        >
          <FindBox
            autoFocus
            label="Find an icon"
            placeholder="Find by name"
            value={search}
            onChange={setSearch}
          />
          <Grid>
            {names.map(([name, words]) => (
              <li key={name}>
                <button
                  type="button"
                  aria-label={words}
                  title={words}
                  aria-pressed={name === value}
                  onClick={() => {
                    onChange(name)
                    setOpen(false)
                  }}
                >
                  <IconSign name={name as IconName} />
                </button>
              </li>
            ))}
          </Grid>
          {names.length === 0 && <p>No icon is called “{search}”.</p>}
        </Dialog>
      )}
    </>
  )
}

function IconSign({ name }: { name: IconName }) {
  return <Sign>{elementToReact(iconElement(name))}</Sign>
}
