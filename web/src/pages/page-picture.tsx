import { useMemo } from 'react'
import styled from 'styled-components'
import { pageSheet } from '../ui/page-sheet.ts'
import { useRoom } from '../ui/use-room.ts'
import type { PageSummary } from '@gullyline/core'
import { usePageDocument, type Site } from '../api/hooks.ts'
import { savedHtml } from './saved-html.ts'

const SCREEN = 1280

const Sheet = styled.div`
  min-height: 0;
  ${pageSheet}
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
    return data && savedHtml({ site, pages, page, opened: data })
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
