import { useMemo } from 'react'
import styled from 'styled-components'
import { useRoom } from '../ui/use-room.ts'
import { screenRegistry, renderPage, type PageSummary } from '@gullyline/core'
import { usePageDocument, type Site } from '../api/hooks.ts'
import { viewSite } from '../editor/session/site-view.ts'

const SCREEN = 1280

const Sheet = styled.div`
  min-height: 0;
  overflow: hidden;
  background: #fff;
  box-shadow:
    0 0 0 1px rgb(25 33 30 / 12%),
    0 10px 30px rgb(25 33 30 / 18%);
  iframe {
    border: 0;
    transform-origin: 0 0;
  }
`

interface PagePictureProps {
  readonly site: Site
  readonly pages: readonly PageSummary[]
  readonly page: PageSummary
}

/** A page as it was last saved, rendered live on a wide screen and shown small. */
export function PagePicture({ site, pages, page }: PagePictureProps) {
  const { data } = usePageDocument(page.id)
  const { ref, room } = useRoom()
  const html = useMemo(() => {
    if (!data) return undefined
    const shown = Object.entries(data.around.parts).map(([id, { document }]) => [id, document] as const)
    const withParts = { ...site, parts: Object.fromEntries(shown) }
    const { context } = viewSite(withParts, pages, page, screenRegistry)
    const parts = {
      page: data.document,
      header: site.header,
      footer: site.footer,
      title: page.title,
      description: page.description,
    }
    return renderPage(parts, screenRegistry, { ...context, purpose: 'publish' }, 'inline').html
  }, [data, site, pages, page])
  const scale = room.width / SCREEN
  return (
    <Sheet ref={ref}>
      {html !== undefined && scale > 0 && (
        <iframe
          title={`Picture of ${page.title}`}
          tabIndex={-1}
          sandbox="allow-same-origin"
          srcDoc={html}
          width={SCREEN}
          height={Math.ceil(room.height / scale)}
          style={{ transform: `scale(${scale})` }}
        />
      )}
    </Sheet>
  )
}
