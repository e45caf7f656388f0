import styled from 'styled-components'
import { Keys } from './controls.tsx'

/** Keys for which there is no room are on a line that is not seen. */
const Line = styled.div`
  display: flex;
  flex: 1 1 0;
  flex-wrap: wrap;
  gap: 0 18px;
  height: 24px;
  overflow: hidden;
  line-height: 22px;
  white-space: nowrap;
`

/** What keys do at the moment, in one line: as many as there is room for. */
export function KeyLine({ keys }: { readonly keys: readonly (readonly [words: string, keys: string])[] }) {
  return (
    <Line>
      {keys.map(([words, key]) => (
        <span key={words}>
          {words} <Keys>{key}</Keys>
        </span>
      ))}
    </Line>
  )
}
