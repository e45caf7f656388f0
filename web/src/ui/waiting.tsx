import type { ReactNode } from 'react'
import styled from 'styled-components'

const Middle = styled.main`
  display: grid;
  gap: 8px;
  place-content: center;
  justify-items: center;
  height: 100%;
  padding: 24px;
  text-align: center;
`

/** A whole screen with nothing to show yet, or with the reason why there is nothing. */
export function Waiting({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <Middle>
      <h1 style={{ fontSize: 15 }}>{title}</h1>
      {children && <p role="alert">{children}</p>}
      {children && <a href="/">Go to Pages</a>}
    </Middle>
  )
}
