import { useState } from 'react'
import styled from 'styled-components'
import {
  layoutOf,
  getNode,
  LONGEST_DESCRIPTION,
  LONGEST_NAVIGATION_LABEL,
  LONGEST_TITLE,
  settingsOf,
  type Json,
  type PageSummary,
  type SettingField,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import { refreshPages, refreshSite } from '../../api/hooks.ts'
import { inSite } from '../../api/site-address.ts'
import { Button, fieldBox } from '../../ui/controls.tsx'
import { usePage, useStore } from '../session/editor-store.ts'
import { useDraft } from '../../ui/drafts.ts'
import { later } from '../../ui/later.ts'
import { LaterDialog, LaterPart } from '../../ui/later-part.tsx'
import { messageOf } from '../../ui/message-of.ts'
import { useSiteView } from '../session/site-view.ts'
import { focusCanvas } from '../canvas/focus-canvas.ts'
import { MAIN_SETTING } from './main-setting.ts'
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
const Acts = styled.div`
  display: flex;
  gap: 6px;
`

const changeTemplate = later(() => import('./change-template.tsx'))
const templateActs = later(() => import('./template-acts.tsx'))

/** As an address can have it: see `slugOf` of the server. */
const LONGEST_SLUG = 80

/** Title, description, navigation and the like: part of the page, saved and undone with it. The address is not. */
export function PageSettings() {
  const { site } = useSiteView()
  const store = useStore()
  const settings = usePage(settingsOf)
  const root = usePage((page) => page.root)
  const set = (field: SettingField, title: string, value: Json | undefined, isTyped = false): boolean =>
    store.do(
      `Changed ${title}`,
      [{ edit: 'set', nodeId: root, at: ['content', field], ...(value === undefined ? {} : { value }) }],
      isTyped ? { joinKey: `${root}/content.${field}` } : {},
    )
  const type = (field: SettingField, title: string) => (typed: string) =>
    set(field, title, typed === '' ? undefined : typed, true)
  const isLocked = !store.mayChange
  return (
    <Group aria-label="Page settings">
      <Title>Page settings</Title>
      <Words
        label="Title"
        value={settings.title}
        longest={LONGEST_TITLE}
        isMain
        isLocked={isLocked}
        onType={type('pageTitle', 'the title of the page')}
      />
      <Words
        label="Description, for search and sharing"
        value={settings.description}
        longest={LONGEST_DESCRIPTION}
        isLong
        isLocked={isLocked}
        onType={type('description', 'the description of the page')}
      />
      <Flag>
        <input
          type="checkbox"
          checked={settings.inNavigation}
          disabled={isLocked}
          onChange={(event) =>
            set('inNavigation', 'whether the page is in the navigation', event.target.checked || undefined)
          }
        />
        Show in navigation
      </Flag>
      {settings.inNavigation && (
        <Words
          label="Navigation label"
          value={settings.navigationLabel}
          placeholder={settings.title}
          longest={LONGEST_NAVIGATION_LABEL}
          isLocked={isLocked}
          onType={type('navigationLabel', 'the navigation label')}
        />
      )}
      <Address isLocked={isLocked} />
      <Field>
        Theme
        <select
          value={settings.theme ?? ''}
          disabled={isLocked}
          onChange={(event) => set('theme', 'the theme of the page', event.target.value || undefined)}
        >
          <option value="">Site default</option>
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
          checked={settings.isListed}
          disabled={isLocked}
          onChange={(event) =>
            set('isListed', 'whether search results show the page', event.target.checked ? undefined : false)
          }
        />
        Show in search results
      </Flag>
      <Field as="div">
        Sharing picture
        <MediaField
          label="Sharing picture"
          value={settings.sharePicture === null ? undefined : { id: settings.sharePicture }}
          onChange={(value) =>
            set(
              'sharePicture',
              'the sharing picture',
              typeof value?.id === 'string' ? { id: value.id } : undefined,
            )
          }
        />
      </Field>
      {store.mayChange && <TemplateButton />}
      {store.mayChange && <LaterPart code={templateActs}>{({ TemplateActs }) => <TemplateActs />}</LaterPart>}
      <Note>Visitors see changes of these when the page is published.</Note>
    </Group>
  )
}

/** The page's own part of the address: changed at once, for visitors too, once it is confirmed. */
function Address({ isLocked }: { isLocked: boolean }) {
  const { summary, site } = useSiteView()
  const { dispatch } = useStore()
  const [trouble, setTrouble] = useState<string>()
  const draft = useDraft({
    name: `address.${summary.id}`,
    label: 'Address',
    saved: summary.slug,
    save: async (slug) => {
      setTrouble(undefined)
      if (slug.trim() === '') {
        setTrouble('An address needs at least one letter or digit. It was not changed.')
        return false
      }
      try {
        await request<PageSummary>(inSite(`/pages/${summary.id}`), { method: 'PATCH', body: { slug } })
        await Promise.all([refreshPages(), refreshSite()])
        dispatch({ type: 'tell', words: 'Changed the address; the old one leads to it', tone: 'done' })
        return true
      } catch (error) {
        setTrouble(messageOf(error))
        return false
      }
    },
  })
  const isHome = summary.id === site.homePageId
  const under = summary.path.slice(0, -summary.slug.length - 1) || '/'
  return (
    <>
      <Field>
        {isHome ? 'Address' : `Address: ${under}…`}
        <input
          value={isHome ? summary.path : draft.text}
          readOnly={isLocked || isHome}
          maxLength={LONGEST_SLUG}
          onChange={(event) => draft.setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void draft.save()
            if (event.key === 'Escape') focusCanvas()
          }}
        />
      </Field>
      {draft.isChanged && (
        <Acts>
          <Button onPress={() => void draft.save()}>Change address</Button>
          <Button
            onPress={() => {
              setTrouble(undefined)
              draft.reset()
            }}
          >
            Reset
          </Button>
        </Acts>
      )}
      {trouble && <Note role="alert">{trouble}</Note>}
    </>
  )
}

/** The template in use, and the way to another. */
function TemplateButton() {
  const [isOpen, setOpen] = useState(false)
  const title = usePage((page) => layoutOf(getNode(page, page.root).content).title)
  return (
    <>
      <Button onPress={() => setOpen(true)}>Template: {title}…</Button>
      {isOpen && (
        <LaterDialog code={changeTemplate} onClose={() => setOpen(false)}>
          {({ ChangeTemplateDialog }) => <ChangeTemplateDialog onClose={() => setOpen(false)} />}
        </LaterDialog>
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
  /** Gone to by the key for settings. */
  readonly isMain?: boolean
  readonly isLocked: boolean
  readonly onType: (value: string) => boolean
}

function Words(props: WordsProps) {
  const { label, value, longest, placeholder = '', isLong = false, isMain = false, isLocked, onType } = props
  const typing = useTyped(value, onType)
  const Box = isLong ? 'textarea' : 'input'
  const tooMany = typing.value.length - longest
  return (
    <Field>
      {label}
      <Box {...(isMain ? MAIN_SETTING : {})} placeholder={placeholder} readOnly={isLocked} {...typing} />
      {tooMany > 0 && (
        <Note role="alert">
          {tooMany === 1 ? 'One character' : `${tooMany} characters`} too many: at most {longest} are saved.
          The page still has what stood here before.
        </Note>
      )}
    </Field>
  )
}
