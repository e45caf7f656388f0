import { useEffect, useRef } from 'react'
import styled from 'styled-components'

const Bar = styled.div`
  position: absolute;
  top: var(--top);
  right: 0;
  bottom: 0;
  z-index: 1;
  overflow: hidden scroll;
  > div {
    width: 1px;
    height: var(--length);
  }
`

interface PageScrollbarProps {
  /** The page that it scrolls. */
  readonly inner: Document
  /** Of the page, in px of the screen for one of its own. */
  readonly scale: number
  /** How far it begins below the top of its parent, in px. */
  readonly top: number
}

/**
 * The scrollbar of a page, beside it, where the system has scrollbars that take room; nothing elsewhere. Keys scroll the
 * page itself, so it takes no focus and is not read out: what is typed goes on where it was.
 */
export function PageScrollbar({ inner, scale, top }: PageScrollbarProps) {
  const bar = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const own = bar.current
    const view = inner.defaultView
    if (!own || !view || own.offsetWidth <= 1) return
    /** Where each was put by the other. The event of that may come when that other has gone on: it is no wish. */
    const put = { own: NaN, page: NaN }
    const follow = (): void => {
      own.scrollTop = view.scrollY * scale
      put.own = own.scrollTop
    }
    const fit = (): void => {
      own.style.setProperty('--length', `${inner.documentElement.scrollHeight * scale}px`)
      own.style.visibility = own.scrollHeight > own.clientHeight ? 'visible' : 'hidden'
      follow()
    }
    const onPageScroll = (): void => {
      if (Math.abs(view.scrollY - put.page) < 1) return
      put.page = NaN
      follow()
    }
    const onOwnScroll = (): void => {
      if (Math.abs(own.scrollTop - put.own) < 1) return
      put.own = NaN
      view.scrollTo({ top: own.scrollTop / scale, behavior: 'instant' })
      put.page = view.scrollY
    }
    const observer = new ResizeObserver(fit)
    observer.observe(inner.documentElement)
    observer.observe(own)
    view.addEventListener('scroll', onPageScroll, { passive: true })
    own.addEventListener('scroll', onOwnScroll, { passive: true })
    return () => {
      observer.disconnect()
      view.removeEventListener('scroll', onPageScroll)
      own.removeEventListener('scroll', onOwnScroll)
    }
  }, [inner, scale])
  return (
    <Bar
      ref={bar}
      aria-hidden
      tabIndex={-1}
      style={{ '--top': `${top}px` }}
      onMouseDown={(event) => event.preventDefault()}
    >
      <div />
    </Bar>
  )
}
