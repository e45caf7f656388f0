import styled from 'styled-components'

/** Settings that belong together in the details, under their title. */
export const Group = styled.section`
  display: grid;
  gap: 8px;
`
export const GroupTitle = styled.h3`
  color: var(--quiet);
  font-size: 12px;
  font-weight: 450;
`
/** Words about what is shown, not part of it. */
export const Quiet = styled.p`
  color: var(--quiet);
  font-size: 12px;
`
