import styled from 'styled-components'

/** A screen that lists things of the site, with what is known of the one that is selected beside it, or under it. */
export const Panes = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(280px, 340px);
  min-height: 0;
  &[data-single] {
    grid-template-columns: minmax(0, 1fr);
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }
`

export const ListPane = styled.section`
  padding: 24px 28px;
  overflow: auto;
`

/** The name of the screen, and what narrows its list. */
export const ListTop = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  margin-bottom: 14px;
  h1 {
    font-size: 18px;
  }
  > label {
    flex: 0 1 240px;
  }
`

export const SidePane = styled.aside`
  display: grid;
  gap: 12px;
  align-content: start;
  padding: 24px;
  overflow: auto;
  border-left: 1px solid var(--line);
  h2 {
    font-size: 14px;
    overflow-wrap: anywhere;
  }
`
