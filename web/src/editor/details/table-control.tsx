import styled from 'styled-components'
import type { Json } from '@gullyline/core'
import { Button } from '../../ui/controls.tsx'

const Acts = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  grid-column: 1 / -1;
`
const Words = styled.p`
  grid-column: 1 / -1;
  color: var(--quiet);
  font-size: 12px;
`

type Rows = readonly (readonly string[])[]
const MOST_ROWS = 200
const MOST_COLUMNS = 12

interface TableControlProps {
  readonly value: Json | undefined
  readonly onChange: (value: Json) => void
}

/** How large a table is. Its words are typed on the page itself. */
export function TableControl({ value, onChange }: TableControlProps) {
  const rows = (Array.isArray(value) ? value : []) as unknown as Rows
  const width = Math.max(1, ...rows.map((row) => row.length))
  const set = (next: Rows): void => onChange(next)
  return (
    <>
      <Words>
        {rows.length} rows of {width}. Edit the text on the page: double-click a cell.
      </Words>
      <Acts role="group" aria-label="Table size">
        <Button
          isDisabled={rows.length >= MOST_ROWS}
          onPress={() => set([...rows, Array.from({ length: width }, () => '')])}
        >
          Add row
        </Button>
        <Button isDisabled={rows.length <= 1} onPress={() => set(rows.slice(0, -1))}>
          Delete last row
        </Button>
        <Button
          isDisabled={width >= MOST_COLUMNS}
          onPress={() => set(rows.map((row) => [...filled(row, width), '']))}
        >
          Add column
        </Button>
        <Button
          isDisabled={width <= 1}
          onPress={() => set(rows.map((row) => filled(row, width).slice(0, -1)))}
        >
          Delete last column
        </Button>
      </Acts>
    </>
  )
}

function filled(row: readonly string[], width: number): readonly string[] {
  return Array.from({ length: width }, (_unused, i) => row[i] ?? '')
}
