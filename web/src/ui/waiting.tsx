import { base } from '../api/site-address.ts'
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

interface WaitingProps {
  readonly title: string
  /** The screen whose frame is there already; see `first-frame.css`. */
  readonly frame?: 'page'
  readonly children?: ReactNode
}

/** A whole screen with nothing to show yet, or with the reason why there is nothing. */
export function Waiting({ title, frame, children }: WaitingProps) {
  return (
    <Middle data-frame={frame}>
      <h1 style={{ fontSize: 15 }}>{title}</h1>
      {children && <p role="alert">{children}</p>}
      {children && <a href={`${base}/`}>Go to Pages</a>}
    </Middle>
  )
}
