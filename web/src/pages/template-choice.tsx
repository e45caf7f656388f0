import { useMemo } from 'react'
import styled from 'styled-components'
import {
  screenRegistry,
  layoutOf,
  getNode,
  pageOfTemplate,
  TEMPLATES,
  type Page,
  type SiteContext,
} from '@gullyline/core'
import { useParts, type Site } from '../api/hooks.ts'
import { newId } from '../editor/session/new-id.ts'
import { LivePicture } from '../editor/shelf/live-picture.tsx'
import { today } from '../ui/when.ts'

/** Of each picture, in px. */
const SIZE = { width: 196, height: 128 }
const SCREEN = 1100

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(${SIZE.width}px, 1fr));
  gap: 12px;
`
const Card = styled.label`
  display: grid;
  gap: 4px;
  align-content: start;
  cursor: default;
  input {
    position: absolute;
    opacity: 0;
  }
  strong {
    color: var(--strong);
    font-weight: 600;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
  }
  &:has(:checked) > span {
    border-color: var(--accentBright);
    box-shadow: 0 0 0 2px var(--accentBright);
  }
  &:has(:focus-visible) {
    outline: 2px solid var(--accentBright);
    outline-offset: 4px;
    border-radius: 4px;
  }
`

export interface PictureOption {
  readonly id: string
  readonly title: string
  readonly about: string
  readonly page: Page
}

interface PictureChoiceProps {
  readonly label: string
  readonly options: readonly PictureOption[]
  readonly site: Site
  readonly context: SiteContext
  readonly value: string
  readonly onChange: (id: string) => void
}

/** One of several ways to put a page together, chosen by looking at live pictures of them. */
export function PictureChoice({ label, options, site, context, value, onChange }: PictureChoiceProps) {
  const bare = useMemo(() => ({ ...context, navigation: [] }), [context])
  return (
    <Grid role="radiogroup" aria-label={label}>
      {options.map(({ id, title, about, page }) => (
        <Card key={id}>
          <input
            type="radio"
            name={label}
            value={id}
            aria-label={`${title}. ${about}`}
            checked={id === value}
            onChange={() => onChange(id)}
          />
          <LivePicture
            page={page}
            header={site.header}
            context={layoutOf(getNode(page, page.root).content).header === 'bare' ? bare : context}
            title={title}
            screen={SCREEN}
            size={SIZE}
          />
          <strong>{title}</strong>
          <small>{about}</small>
        </Card>
      ))}
    </Grid>
  )
}

/** Every template as a page that could be made of it: those that the site's keepers made come first. */
export function useTemplateOptions(title: string): readonly PictureOption[] {
  const { data: parts } = useParts()
  const shown = title.trim() === '' ? 'Title of the page' : title.trim()
  return useMemo(() => {
    const said = { title: shown, date: today() }
    const own = (parts ?? []).filter(({ type, binnedAt }) => type === 'template' && binnedAt === null)
    return [
      ...own.map(({ id, name, about, version, document }) => ({
        id,
        title: name,
        about: about || 'Made on this site',
        page: pageOfTemplate(document, { template: id, version }, said, screenRegistry),
      })),
      ...TEMPLATES.map(({ id, title: name, about, build }) => ({
        id,
        title: name,
        about,
        page: build(screenRegistry, newId, said),
      })),
    ]
  }, [parts, shown])
}
