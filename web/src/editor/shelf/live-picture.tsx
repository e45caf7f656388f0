import { useMemo, useRef } from 'react'
import styled from 'styled-components'
import { canvasCss, renderPage, screenRegistry, type Page, type SiteContext } from '@gullyline/core'
import { BoxedPage } from '../../ui/boxed-page.tsx'
import { useSeen } from '../../ui/use-seen.ts'
import { PROMPT_CSS } from '../canvas/prompt-css.ts'

const Frame = styled.span`
  position: relative;
  display: block;
  width: var(--width);
  height: var(--height);
  overflow: hidden;
  border: 1px solid var(--lineStrong);
  border-radius: 4px;
  background: #fff;
`

/** What a picture needs besides: no link to skip to the content, and a place for what is not chosen yet. */
const PREVIEW_CSS = `.skip{display:none}main{flex:none}${canvasCss(screenRegistry)}${PROMPT_CSS}`
const PART_CSS = `${PREVIEW_CSS}body{justify-content:center}`

interface LivePictureProps {
  readonly page: Page
  readonly header?: Page
  readonly context: SiteContext
  readonly title: string
  /** Width in px of the screen that is shown. */
  readonly screen: number
  /** Of the picture, in px. */
  readonly size: { readonly width: number; readonly height: number }
}

/**
 * A page or a part of one, made by the same renderer as the page that is edited, with what is asked for in it, shown
 * small. Each is as much work as a page, so it is made when it comes into view.
 */
export function LivePicture({ page, header, context, title, screen, size }: LivePictureProps) {
  const frame = useRef<HTMLSpanElement>(null)
  const isSeen = useSeen(frame)
  const html = useMemo(() => {
    if (!isSeen) return undefined
    const parts = { page, title, description: '', ...(header ? { header } : {}) }
    return renderPage(parts, screenRegistry, { ...context, purpose: 'canvas' }, 'inline').html
  }, [isSeen, page, header, context, title])
  const scale = (size.width - 2) / screen
  return (
    <Frame
      ref={frame}
      aria-hidden="true"
      style={{ '--width': `${size.width}px`, '--height': `${size.height}px` }}
    >
      {html !== undefined && (
        <BoxedPage
          html={html}
          besides={header ? PREVIEW_CSS : PART_CSS}
          screen={{ width: screen, height: Math.ceil((size.height - 2) / scale) }}
          scale={scale}
        />
      )}
    </Frame>
  )
}
