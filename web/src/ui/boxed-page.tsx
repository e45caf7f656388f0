import { useLayoutEffect, useRef } from 'react'
import styled from 'styled-components'
import type { FixedScreen } from '@gullyline/core'
import { boxed } from './boxed.ts'
import { declareFonts, sharedSheet, styleSheet } from './style-sheet.ts'

const Box = styled.span`
  position: absolute;
  left: 0;
  top: 0;
  display: block;
  overflow: hidden;
  contain: strict;
  transform-origin: 0 0;
`

interface BoxedPageProps {
  /** A whole document with its stylesheet inside, as `renderPage` makes it. */
  readonly html: string
  /** Rules that are in force besides, and win; of these texts there are few. */
  readonly besides?: string
  /** The screen that it stands on. */
  readonly screen: FixedScreen
  /** How large it is shown. */
  readonly scale: number
}

/**
 * A page that is only looked at, within this document and out of reach of its styles. A frame would cost several times as
 * much: each makes a document, and the browser tells all its processes. Its place and its name are its parent's.
 */
export function BoxedPage({ html, besides = '', screen, scale }: BoxedPageProps) {
  const box = useRef<HTMLSpanElement>(null)
  const shadow = useRef<ShadowRoot>(undefined)
  const { width, height } = screen
  useLayoutEffect(() => {
    // Closed: what is searched for on the screen is not found in pictures of it.
    shadow.current ??= box.current!.attachShadow({ mode: 'closed' })
    const { page, css, fonts } = boxed(html, { width, height })
    shadow.current.adoptedStyleSheets = [styleSheet(css), sharedSheet(besides)]
    shadow.current.replaceChildren(page)
    declareFonts(fonts)
  }, [html, besides, width, height])
  return (
    <Box
      ref={box}
      data-picture=""
      aria-hidden="true"
      inert
      style={{ width, height, transform: `scale(${scale})` }}
    />
  )
}
