import styled from 'styled-components'

/** A person as a disc with initials. The one at this screen is filled, others are drawn as a ring. */
export const Face = styled.span`
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  border: 2px solid var(--moss);
  border-radius: 50%;
  background: var(--paper);
  color: var(--moss);
  font-size: 11px;
  font-weight: 650;
  &[data-me] {
    background: #4c6c30;
    border-color: #4c6c30;
    color: #fff;
  }
`

/** The first letters of the first two words of a name. */
export function initialsOf(name: string): string {
  const letters = name.split(/\s+/).map((word) => [...word][0] ?? '')
  return letters.slice(0, 2).join('').toUpperCase()
}
