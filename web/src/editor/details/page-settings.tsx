import { lazy, Suspense, useState } from 'react'
import { mutate } from 'swr'
import styled from 'styled-components'
import { frameOf, getNode, type PageSettingsRequest, type PageSummary } from '@gullyline/core'
import { request } from '../../api/client.ts'
import { Button, fieldBox } from '../../ui/controls.tsx'
import { usePage, useStore } from '../editor-store.ts'
import { useSiteView } from '../site-view.ts'
import { MediaField } from './media-field.tsx'
import { useTyped } from './use-typed.ts'

const Group = styled.section`
  display: grid;
  gap: 10px;
`
const Title = styled.h3`
  color: var(--quiet);
  font-size: 12px;
  font-weight: 450;
`
const Field = styled.label`
  display: grid;
  gap: 4px;
  color: var(--quiet);
  font-size: 12px;
  input,
  select,
  textarea {
    ${fieldBox}
    font-size: 13px;
  }
  textarea {
    height: auto;
    min-height: 72px;
    padding: 6px 9px;
    resize: vertical;
  }
`
const Flag = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
`
const Note = styled.p`
  color: var(--quiet);
  font-size: 12px;
  &[role='alert'] {
    color: var(--clay);
  }
`

const ChangeTemplateDialog = lazy(async () => ({
  default: (await import('./change-template.tsx')).ChangeTemplateDialog,
}))

/** As in the database. */
const LONGEST_TITLE = 200
const LONGEST_DESCRIPTION = 500
const LONGEST_LABEL = 80
const LONGEST_SLUG = 80

/** Title, description and navigation of the page: kept as soon as a field is left, and live with the next publish. */
export function PageSettings() {
  const { summary, site } = useSiteView()
  const { more } = summary
  const { dispatch, mayChange } = useStore()
  const [trouble, setTrouble] = useState<string>()
  const keep = async (settings: PageSettingsRequest, words: string): Promise<void> => {
    setTrouble(undefined)
    try {
      await request<PageSummary>(`/api/pages/${summary.id}`, { method: 'PATCH', body: settings })
      await mutate('/api/pages')
      if (settings.slug !== undefined) await mutate('/api/site')
      dispatch({ type: 'tell', words, tone: 'done' })
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error))
    }
  }
  const isLocked = !mayChange
  return (
    <Group aria-label="Page settings">
      <Title>Page settings</Title>
      <Words
        key={`title ${summary.title}`}
        label="Title"
        value={summary.title}
        longest={LONGEST_TITLE}
        isLocked={isLocked}
        onKeep={(title) => {
          if (title !== '') void keep({ title }, 'Changed the title of the page')
        }}
      />
      <Words
        key={`description ${summary.description}`}
        label="Description, for search and sharing"
        value={summary.description}
        longest={LONGEST_DESCRIPTION}
        isLong
        isLocked={isLocked}
        onKeep={(description) => void keep({ description }, 'Changed the description of the page')}
      />
      <Flag>
        <input
          type="checkbox"
          checked={summary.inNavigation}
          disabled={isLocked}
          onChange={(event) => {
            const inNavigation = event.target.checked
            const words = inNavigation
              ? 'The page is in the navigation'
              : 'The page is no longer in the navigation'
            void keep({ inNavigation }, words)
          }}
        />
        In the site’s navigation
      </Flag>
      {summary.inNavigation && (
        <Words
          key={`label ${more.navigationLabel}`}
          label="What the navigation calls it"
          value={more.navigationLabel}
          placeholder={summary.title}
          longest={LONGEST_LABEL}
          isLocked={isLocked}
          onKeep={(navigationLabel) =>
            void keep({ more: { navigationLabel } }, 'Changed what the navigation calls the page')
          }
        />
      )}
      <Words
        key={`slug ${summary.slug}`}
        label={`Address: ${summary.path.slice(0, -summary.slug.length - 1) || '/'}…`}
        value={summary.slug}
        longest={LONGEST_SLUG}
        isLocked={isLocked || summary.id === site.homePageId}
        onKeep={(slug) => {
          if (slug !== '') void keep({ slug }, 'Changed the address; the old one leads to it')
        }}
      />
      <Field>
        Page theme
        <select
          value={more.theme ?? ''}
          disabled={isLocked}
          onChange={(event) =>
            void keep({ more: { theme: event.target.value || null } }, 'Changed the theme of the page')
          }
        >
          <option value="">The site’s own</option>
          {Object.entries(site.look.themes ?? {}).map(([name, { title }]) => (
            <option key={name} value={name}>
              {title}
            </option>
          ))}
        </select>
      </Field>
      <Flag>
        <input
          type="checkbox"
          checked={more.isListed}
          disabled={isLocked}
          onChange={(event) => {
            const isListed = event.target.checked
            const words = isListed
              ? 'Search engines may list the page'
              : 'Search engines are asked not to list the page'
            void keep({ more: { isListed } }, words)
          }}
        />
        Search engines may list it
      </Flag>
      <Field as="div">
        Picture where it is shared
        <MediaField
          label="Picture where it is shared"
          value={more.sharePicture === null ? undefined : { id: more.sharePicture }}
          onChange={(value) =>
            void keep(
              { more: { sharePicture: typeof value?.id === 'string' ? value.id : null } },
              'Changed the picture where the page is shared',
            )
          }
        />
      </Field>
      {mayChange && <TemplateButton />}
      {trouble && <Note role="alert">{trouble}</Note>}
      <Note>Kept at once, apart from the page’s edits; visitors see it when the page is published.</Note>
    </Group>
  )
}

/** The template in use, and the way to another. */
function TemplateButton() {
  const [isOpen, setOpen] = useState(false)
  const title = usePage((page) => frameOf(getNode(page, page.root).content).title)
  return (
    <>
      <Button onPress={() => setOpen(true)}>Template: {title}…</Button>
      {isOpen && (
        <Suspense>
          <ChangeTemplateDialog onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}

interface WordsProps {
  readonly label: string
  readonly value: string
  readonly longest: number
  readonly placeholder?: string
  readonly isLong?: boolean
  readonly isLocked: boolean
  readonly onKeep: (value: string) => void
}

function Words({ label, value, longest, placeholder = '', isLong = false, isLocked, onKeep }: WordsProps) {
  const typing = useTyped(value, (typed) => {
    if (typed.trim() !== value) onKeep(typed.trim())
  })
  const Box = isLong ? 'textarea' : 'input'
  return (
    <Field>
      {label}
      <Box placeholder={placeholder} maxLength={longest} readOnly={isLocked} {...typing} />
    </Field>
  )
}
