import { useMemo } from 'react'
import styled from 'styled-components'
import { BoxedPage } from '../ui/boxed-page.tsx'
import { pageSheet } from '../ui/page-sheet.ts'
import { useRoom } from '../ui/use-room.ts'
import type { PageSummary } from '@gullyline/core'
import { usePageDocument, type Site } from '../api/hooks.ts'
import { savedHtml } from './saved-html.ts'

const SCREEN = 1280

const Sheet = styled.div`
  position: relative;
  min-height: 0;
  ${pageSheet}
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
    <Sheet ref={ref} role="img" aria-label={`Picture of ${page.title}`}>
      {html !== undefined && scale > 0 && (
        <BoxedPage
          html={html}
          screen={{ width: SCREEN, height: Math.ceil(room.height / scale) }}
          scale={scale}
        />
      )}
    </Sheet>
  )
}
