import styled from 'styled-components'
import type { CarriedSurface, Look } from '@gullyline/core'
import { fieldBox } from '../ui/controls.tsx'

const Swatch = styled.i`
  display: inline-block;
  flex: none;
  width: 16px;
  height: 16px;
  border: 1px solid var(--control);
  border-radius: 3px;
  vertical-align: -3px;
`
const Pair = styled.span`
  display: flex;
  gap: 8px;
  align-items: center;
`
const Choice = styled.span`
  display: flex;
  gap: 8px;
  align-items: center;
  select {
    ${fieldBox}
    min-width: 0;
  }
`

interface CarriedColoursProps {
  readonly look: Look
  readonly colours: readonly CarriedSurface[]
  /** The name here for each name of the package. */
  readonly chosen: Readonly<Record<string, string>>
  readonly onChoose: (chosen: Readonly<Record<string, string>>) => void
}

/** The colours of a package that are other ones here, each with the colour of this site that stands for it. */
export function CarriedColours({ look, colours, chosen, onChoose }: CarriedColoursProps) {
  return (
    <section aria-label="Colours">
      <h3>Colours ({colours.length})</h3>
      <ul>
        {colours.map(({ name, title, background, here }) => {
          const value = chosen[name] ?? here
          return (
            <li key={name}>
              <Pair>
                <Swatch aria-hidden="true" style={{ background }} />
                <strong>{title}</strong>
                <small>{background}</small>
              </Pair>
              <Choice>
                <Swatch aria-hidden="true" style={{ background: look.surfaces[value]?.background }} />
                <select
                  aria-label={`Colour here for ${title}`}
                  value={value}
                  onChange={(event) => onChoose({ ...chosen, [name]: event.target.value })}
                >
                  {Object.entries(look.surfaces).map(([key, surface]) => (
                    <option key={key} value={key}>
                      {surface.title}
                    </option>
                  ))}
                </select>
              </Choice>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
