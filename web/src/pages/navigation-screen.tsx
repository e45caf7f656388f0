import { EyeOff, GripVertical, Trash2 } from 'lucide'
import { useRef, useState } from 'react'
import { Button as AriaButton, GridList, GridListItem, useDragAndDrop } from 'react-aria-components'
import { Link } from 'react-router'
import styled from 'styled-components'
import { mutate } from 'swr'
import {
  navigationOf,
  safeHref,
  type NavigationItem,
  type NavigationPage,
  type PageSummary,
  type SiteInfo,
} from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'
import { meantAddress } from '../editor/details/meant-address.ts'
import { useDraft } from '../ui/drafts.ts'
import { refreshPages, refreshSite, usePages, useSiteInfo } from '../api/hooks.ts'
import { IconButton, LineField, MainButton, mono } from '../ui/controls.tsx'
import { messageOf } from '../ui/message-of.ts'
import { Waiting } from '../ui/waiting.tsx'
import { inTreeOrder } from './page-order.ts'
import { useBegin } from '../site/begin.ts'
import { SiteScreen } from '../site/site-screen.tsx'
import { Picker } from '../ui/picker.tsx'
import { Icon } from '../ui/icon.tsx'

const Work = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 640px) minmax(260px, 360px);
  gap: 48px;
  align-content: start;
  padding: 28px;
  overflow: auto;
  h1 {
    margin-bottom: 4px;
    font-size: 18px;
  }
  h2 {
    font-size: 14px;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 640px);
    gap: 28px;
  }
`
const Note = styled.p`
  margin-bottom: 14px;
  color: var(--quiet);
  font-size: 12px;
  &[role='alert'] {
    color: var(--clay);
  }
`
const List = styled(GridList)`
  border: 1px solid var(--line);
  border-radius: 5px;
  .react-aria-DropIndicator[data-drop-target] {
    outline: 1.5px solid var(--accentBright);
  }
`
const Row = styled(GridListItem)`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  padding: 0 8px;
  border-top: 1px solid var(--line);
  cursor: default;
  &:first-child {
    border-top: 0;
  }
  &[data-focus-visible] {
    outline: 2px solid var(--accentBright);
    outline-offset: -2px;
  }
  &[data-dragging] {
    opacity: 0.5;
  }
  strong {
    color: var(--strong);
    font-weight: 600;
  }
  small {
    ${mono}
    color: var(--quiet);
  }
  small:last-of-type {
    margin-right: auto;
  }
`
const Handle = styled(AriaButton)`
  display: grid;
  place-items: center;
  width: 24px;
  height: 28px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--quiet);
  cursor: grab;
`
const Panels = styled.div`
  display: grid;
  gap: 28px;
  align-content: start;
`
const Panel = styled.form`
  display: grid;
  gap: 10px;
  align-content: start;
`

/** The order of the site's navigation, apart from the tree, and its links that are no pages. */
export function NavigationScreen() {
  const site = useSiteInfo()
  const pages = usePages()
  const error = site.error ?? pages.error
  return (
    <SiteScreen title="Navigation">
      {site.data && pages.data && pages.isWhole ? (
        <Navigation site={site.data} pages={pages.data} />
      ) : (
        <Waiting title={error ? 'The navigation can’t be shown' : 'Reading the navigation…'}>
          {error?.message}
        </Waiting>
      )}
    </SiteScreen>
  )
}

function Navigation({ site, pages }: { site: SiteInfo; pages: readonly PageSummary[] }) {
  const [trouble, setTrouble] = useState<string>()
  const [shown, setShown] = useState<Shown>()
  const labelled = inTreeOrder(pages).map(({ page }) => ({
    ...page,
    label: page.more.navigationLabel || page.title,
  }))
  const lines = linesOf(site.navigation, labelled)
  /** True when it was saved; what stands in the way is shown. */
  const keep = async (items: readonly NavigationItem[]): Promise<boolean> => {
    setTrouble(undefined)
    try {
      const next = await request<SiteInfo>(inSite('/navigation'), {
        method: 'PUT',
        body: { items, was: site.navigation },
      })
      await mutate(inSite(''), next, { revalidate: false })
      return true
    } catch (error) {
      setTrouble(messageOf(error))
      return false
    }
  }
  /** Part of the page's own settings, so visitors have it when the page is published. */
  const show = async (page: PageSummary, inNavigation: boolean): Promise<void> => {
    setTrouble(undefined)
    try {
      const body = { inNavigation, was: { inNavigation: !inNavigation } }
      await request(inSite(`/pages/${page.id}`), { method: 'PATCH', body })
      await Promise.all([refreshPages(), refreshSite()])
      setShown({ page, inNavigation })
    } catch (error) {
      setTrouble(messageOf(error))
    }
  }
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const [moved] = [...keys].map(Number)
      if (moved === undefined) return
      const rest = lines.filter((_line, i) => i !== moved)
      const at = rest.indexOf(lines[Number(target.key)]!) + (target.dropPosition === 'after' ? 1 : 0)
      void keep(rest.toSpliced(at, 0, lines[moved]!).map(({ item }) => item))
    },
  })
  return (
    <Work>
      <section aria-label="Navigation links">
        <h1>Navigation</h1>
        <Note>
          Drag links into order, or press Enter on a handle and use the arrow keys. Changes of order and links
          are live at once; a page comes and goes when it is published.
        </Note>
        <List
          aria-label="Navigation links in order"
          selectionMode="none"
          dragAndDropHooks={dragAndDropHooks}
          renderEmptyState={() => <Note>No links in the navigation yet.</Note>}
        >
          {lines.map(({ item, label, path }, i) => (
            <Row key={`${i} ${label} ${path}`} id={i} textValue={label}>
              <Handle slot="drag" aria-label={`Drag ${label}`}>
                <Icon of={GripVertical} size={15} strokeWidth={1.75} />
              </Handle>
              <strong>{label}</strong>
              <small>{path}</small>
              {isWholePage(item) ? (
                <IconButton
                  label={`Hide ${label}`}
                  onPress={() => {
                    const page = pages.find(({ id: one }) => 'page' in item && one === item.page)
                    if (page) void show(page, false)
                  }}
                >
                  <Icon of={EyeOff} size={15} strokeWidth={1.75} />
                </IconButton>
              ) : (
                <IconButton
                  label={`Delete ${label}`}
                  onPress={() => void keep(lines.filter((_line, at) => at !== i).map((line) => line.item))}
                >
                  <Icon of={Trash2} size={15} strokeWidth={1.75} />
                </IconButton>
              )}
            </Row>
          ))}
        </List>
        {trouble && <Note role="alert">{trouble}</Note>}
        <Note role="status">{shown && <ShownNote {...shown} />}</Note>
      </section>
      <Panels>
        <AddPage
          pages={pages.filter(({ id }) => id !== site.notFoundPageId)}
          onAdd={(page) => void show(page, true)}
        />
        <AddLine pages={pages} onAdd={(item) => keep([...lines.map((line) => line.item), item])} />
      </Panels>
    </Work>
  )
}

/** A page that was just put into the navigation, or taken out of it. */
interface Shown {
  readonly page: PageSummary
  readonly inNavigation: boolean
}

function ShownNote({ page, inNavigation }: Shown) {
  return (
    <>
      {inNavigation
        ? `Visitors see “${page.title}” in the navigation once the page is published.`
        : `Visitors see the navigation without “${page.title}” once the page is published.`}{' '}
      <Link to={`/pages/${page.id}`}>Open page</Link>
    </>
  )
}

interface AddPageProps {
  readonly pages: readonly PageSummary[]
  readonly onAdd: (page: PageSummary) => void
}

/** Puts a page into the navigation as soon as it is chosen. */
function AddPage({ pages, onAdd }: AddPageProps) {
  const others = inTreeOrder(pages).filter(({ page }) => !page.inNavigation)
  return (
    <Panel as="section" aria-label="Add a page">
      <h2>Add a page</h2>
      <Picker
        label="Page"
        isLabelShown
        placeholder={others.length === 0 ? 'All pages are in the navigation' : 'Type a page’s name'}
        isDisabled={others.length === 0}
        options={others.map(({ page }) => ({ id: page.id, title: page.title, detail: page.path }))}
        value=""
        onChange={(id) => {
          const page = pages.find((one) => one.id === id)
          if (page) onAdd(page)
        }}
      />
    </Panel>
  )
}

function isWholePage(item: NavigationItem): boolean {
  return 'page' in item && item.anchor === undefined
}

interface NavigationLine {
  readonly item: NavigationItem
  readonly label: string
  readonly path: string
}

/** All lines that are shown, each as what the site would keep of it: what is not named yet comes after what is. */
function linesOf(items: readonly NavigationItem[], pages: readonly NavigationPage[]): NavigationLine[] {
  const named = items.flatMap((item): NavigationLine[] => {
    const [entry] = navigationOf([item], pages, '')
    const isShown =
      !isWholePage(item) || pages.find((page) => 'page' in item && page.id === item.page)?.inNavigation
    return entry && isShown ? [{ item, label: entry.label, path: entry.path }] : []
  })
  const all = navigationOf(items, pages, '')
  const rest = all.slice(named.length).flatMap((entry): NavigationLine[] => {
    const page = pages.find(({ path }) => path === entry.path)
    return page ? [{ item: { page: page.id }, label: entry.label, path: entry.path }] : []
  })
  return [...named, ...rest]
}

interface AddLineProps {
  readonly pages: readonly PageSummary[]
  /** True when it was saved. */
  readonly onAdd: (item: NavigationItem) => Promise<boolean>
}

const ELSEWHERE = ''

/** A field of a line that is not added yet: nothing but adding it saves it. */
function useLineDraft(name: string, label: string) {
  return useDraft({ name: `navigation.${name}`, label, saved: '', save: () => Promise.resolve(false) })
}

function AddLine({ pages, onAdd }: AddLineProps) {
  const [page, setPage] = useState(ELSEWHERE)
  const isPlace = page !== ELSEWHERE
  const [label, address] = [useLineDraft('label', 'Link text'), useLineDraft('address', 'Link address')]
  const meant = meantAddress(address.text)
  const anchor = address.text.replace(/^#/, '').trim()
  const isReady =
    label.text.trim() !== '' &&
    (isPlace ? /^[a-z][a-z0-9-]{0,63}$/.test(anchor) : safeHref(meant) !== undefined && meant !== '')
  const text = useRef<HTMLInputElement>(null)
  useBegin('add-link', () => text.current?.focus())
  const add = async (): Promise<void> => {
    if (!isReady) return
    const words = label.text.trim()
    const isSaved = await onAdd(isPlace ? { page, anchor, label: words } : { href: meant, label: words })
    if (!isSaved) return
    label.taken(label.text)
    address.taken(address.text)
  }
  return (
    <Panel
      aria-label="Add a link"
      onSubmit={(event) => {
        event.preventDefault()
        void add()
      }}
    >
      <h2>Add a link</h2>
      <LineField label="Text" inputRef={text} value={label.text} onChange={label.setText} />
      <Picker
        label="Link"
        isLabelShown
        options={[
          { id: ELSEWHERE, title: 'Web address', synonyms: ['URL', 'external', 'https'] },
          ...inTreeOrder(pages).map(({ page: one }) => ({
            id: one.id,
            title: `Heading on ${one.title}`,
            detail: one.path,
          })),
        ]}
        value={page}
        onChange={setPage}
      />
      <LineField
        label={isPlace ? 'Anchor' : 'Address'}
        placeholder={isPlace ? 'opening-hours' : 'https://…, mailto: or tel:'}
        value={address.text}
        onChange={address.setText}
      />
      <div>
        <MainButton type="submit" isDisabled={!isReady}>
          Add link
        </MainButton>
      </div>
    </Panel>
  )
}
