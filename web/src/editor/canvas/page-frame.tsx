import { useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import { createPortal } from 'react-dom'
import styled from 'styled-components'
import { EMPTY_PAGE, PAGE_SANDBOX } from '../../ui/framed-page.ts'
import { TAKES_FOCUS } from './focus-canvas.ts'

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
  /** Where the focus goes when nothing else has it; see `useFocusOnCanvas`. */
  readonly isFocusHome?: boolean
  /** Called with the frame's document as soon as it is there. */
  readonly onDocument?: (document: Document) => void
}

/**
 * A real window of the given width: media queries, viewport units and fixed positions are those of a browser of that
 * size. React renders into it from here; nothing of the page runs inside.
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
  const frame = useRef<HTMLIFrameElement>(null)
  const [inner, setInner] = useState<Document>()
  useLayoutEffect(() => {
    const made = frame.current?.contentDocument
    if (!made || made === inner) return
    writeEmpty(made)
    setInner(made)
    onDocument?.(made)
  }, [inner, onDocument])
  return (
    <Frame
      ref={frame}
      title={title}
      sandbox={PAGE_SANDBOX}
      // A frame without its document hears no keys: until then they stay with the editor's own window.
      {...(isFocusHome && inner ? { [TAKES_FOCUS]: '' } : {})}
      width={width}
      height={height}
      style={{ transform: scale === 1 ? undefined : `scale(${scale})` }}
    >
      {inner && createPortal(head, inner.head)}
      {inner && createPortal(children, inner.body)}
    </Frame>
  )
}

/**
 * Written into the document that a frame has from the start, so that the page is there when the frame is: a document
 * that is loaded, even an empty one, comes a task later, after the screen was laid out and painted without it.
 */
function writeEmpty(made: Document): void {
  made.open()
  made.write(EMPTY_PAGE)
  made.close()
  guardLinks(made)
}

/** A link or form of the page must not carry the frame away from the page that is being edited. */
function guardLinks(inner: Document): void {
  for (const type of ['click', 'submit', 'auxclick'])
    inner.addEventListener(type, (event) => event.preventDefault(), true)
}
