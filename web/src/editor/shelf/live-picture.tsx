import { useMemo } from 'react'
import styled from 'styled-components'
import { defaultRegistry, renderPage, type Page, type SiteContext } from '@gullyline/core'
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
  iframe {
    position: absolute;
    left: 0;
    top: 0;
    border: 0;
    transform-origin: 0 0;
    pointer-events: none;
  }
`

/** What a picture needs besides: no link to skip to the content, and a place for a picture that is not chosen yet. */
const PREVIEW_CSS =
  '.skip{display:none}main{flex:none}.picture:not(:has(img)),.slide:not(:has(img)),.hero:not(:has(>picture)){min-height:220px;background-color:#8885}'

interface LivePictureProps {
  readonly page: Page
  readonly header?: Page
  readonly context: SiteContext
  readonly title: string
  /** Width in px of the screen that is shown. */
  readonly screen: number
  /** Of the picture, in px. */
  readonly size: { readonly width: number; readonly height: number }
  /** Rules for the picture alone. */
  readonly css?: string
}

/** A page or a part of one, made by the same renderer as the page that is edited, with what is asked for in it, shown small. */
export function LivePicture({ page, header, context, title, screen, size, css = '' }: LivePictureProps) {
  const html = useMemo(() => {
    const parts = { page, title, description: '', ...(header ? { header } : {}) }
    const rendered = renderPage(parts, defaultRegistry, { ...context, purpose: 'canvas' }, 'inline')
    const centre = header ? '' : 'body{justify-content:center}'
    return rendered.html.replace(
      '</head>',
      `<style>${PREVIEW_CSS}${PROMPT_CSS}${centre}${css}</style></head>`,
    )
  }, [page, header, context, title, css])
  const scale = (size.width - 2) / screen
  return (
    <Frame aria-hidden="true" style={{ '--width': `${size.width}px`, '--height': `${size.height}px` }}>
      <iframe
        title={title}
        tabIndex={-1}
        sandbox="allow-same-origin"
        srcDoc={html}
        width={screen}
        height={Math.ceil((size.height - 2) / scale)}
        style={{ transform: `scale(${scale})` }}
      />
    </Frame>
  )
}
