import { useState, type ReactNode } from 'react'
import { createPortal } from 'react-dom'
import styled from 'styled-components'

import { FOCUS_HOME } from '../use-kept-focus.ts'

const EMPTY_DOCUMENT =
  '<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>Page</title></head><body></body></html>'

const Frame = styled.iframe`
  display: block;
  border: 0;
  background: #fff;
  transform-origin: 0 0;
`

export interface PageFrameProps {
  readonly title: string
  /** The page's width and height in its own px, before `scale`. */
  readonly width: number
  readonly height: number
  readonly scale: number
  /** What goes into the document's head: its stylesheet. */
  readonly head: ReactNode
  readonly children: ReactNode
  /** Where the focus goes when nothing else has it; see `useKeptFocus`. */
  readonly isFocusHome?: boolean
  /** Called with the frame's document when it is there, and with undefined when it goes. */
  readonly onDocument?: (document: Document | undefined) => void
}

/**
 * A real window of the given width: media queries, viewport units and fixed positions are those of a browser of that
 * size. React renders into it from here; no script runs inside, since the sandbox allows none.
 */
export function PageFrame({
  title,
  width,
  height,
  scale,
  head,
  children,
  isFocusHome,
  onDocument,
}: PageFrameProps) {
  const [inner, setInner] = useState<Document>()
  return (
    <Frame
      title={title}
      sandbox="allow-same-origin"
      // A frame that is still loading hears no keys: until then they stay with the editor's own window.
      {...(isFocusHome && inner ? { [FOCUS_HOME]: '' } : {})}
      srcDoc={EMPTY_DOCUMENT}
      width={width}
      height={height}
      style={{ transform: scale === 1 ? undefined : `scale(${scale})` }}
      onLoad={(event) => {
        const loaded = event.currentTarget.contentDocument ?? undefined
        if (loaded) guardLinks(loaded)
        setInner(loaded)
        onDocument?.(loaded)
      }}
    >
      {inner && createPortal(head, inner.head)}
      {inner && createPortal(children, inner.body)}
    </Frame>
  )
}

/** A link or form of the page must not carry the frame away from the page that is being edited. */
function guardLinks(inner: Document): void {
  for (const type of ['click', 'submit', 'auxclick'])
    inner.addEventListener(type, (event) => event.preventDefault(), true)
}
