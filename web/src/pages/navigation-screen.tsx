import { GripVertical, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Button as AriaButton, GridList, GridListItem, useDragAndDrop } from 'react-aria-components'
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
import { meantAddress } from '../editor/details/meant-address.ts'
import { useDraft } from '../ui/drafts.ts'
import { usePages, useSite } from '../api/hooks.ts'
import { fieldBox, IconButton, LineField, MainButton, mono } from '../ui/controls.tsx'
import { messageOf } from '../ui/message-of.ts'
import { Waiting } from '../ui/waiting.tsx'
import { inTreeOrder } from './page-order.ts'
import { SiteScreen } from './site-screen.tsx'

const Work = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 640px) minmax(260px, 360px);
  gap: 48px;
  align-content: start;
  padding: 28px;
  overflow: auto;
  h2 {
    margin-bottom: 4px;
    font-size: 18px;
  }
  h3 {
    font-size: 14px;
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
const Panel = styled.section`
  display: grid;
  gap: 10px;
  align-content: start;
  label {
    display: grid;
    gap: 4px;
    color: var(--quiet);
    font-size: 12px;
  }
  select {
    ${fieldBox}
  }
`

/** The order of the site's navigation, apart from the tree, and its lines that lead elsewhere. */
export function NavigationScreen() {
  const site = useSite()
  const pages = usePages()
  const error = site.error ?? pages.error
  if (!site.data || !pages.data) {
    if (error) return <Waiting title="The navigation can’t be shown">{error.message}</Waiting>
    return <Waiting title="Reading the navigation…" />
  }
  return <Navigation site={site.data} pages={pages.data} />
}

function Navigation({ site, pages }: { site: SiteInfo; pages: readonly PageSummary[] }) {
  const [trouble, setTrouble] = useState<string>()
  const labelled = inTreeOrder(pages).map(({ page }) => ({
    ...page,
    label: page.more.navigationLabel || page.title,
  }))
  const lines = linesOf(site.navigation, labelled)
  /** True when it was saved; what stands in the way is shown. */
  const keep = async (items: readonly NavigationItem[]): Promise<boolean> => {
    setTrouble(undefined)
    try {
      const next = await request<SiteInfo>('/api/site/navigation', {
        method: 'PUT',
        body: { items, was: site.navigation },
      })
      await mutate('/api/site', next, { revalidate: false })
      return true
    } catch (error) {
      setTrouble(messageOf(error))
      return false
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
    <SiteScreen siteName={site.name} title="Navigation">
      <Work>
        <section aria-label="Lines of the navigation">
          <h2>Navigation</h2>
          <Note>
            Drag lines into order, or press Enter on a handle and go with the arrow keys. Visitors see it at
            once. Which pages are in it is set on each page.
          </Note>
          <List
            aria-label="Lines in their order"
            selectionMode="none"
            dragAndDropHooks={dragAndDropHooks}
            renderEmptyState={() => <Note>No page is in the navigation yet.</Note>}
          >
            {lines.map(({ item, label, path }, i) => (
              <Row key={`${i} ${label} ${path}`} id={i} textValue={label}>
                <Handle slot="drag" aria-label={`Drag ${label}`}>
                  <GripVertical size={15} strokeWidth={1.75} />
                </Handle>
                <strong>{label}</strong>
                <small>{path}</small>
                {!isWholePage(item) && (
                  <IconButton
                    label={`Remove ${label}`}
                    onPress={() => void keep(lines.filter((_line, at) => at !== i).map((line) => line.item))}
                  >
                    <Trash2 size={15} strokeWidth={1.75} />
                  </IconButton>
                )}
              </Row>
            ))}
          </List>
          {trouble && <Note role="alert">{trouble}</Note>}
        </section>
        <AddLine pages={pages} onAdd={(item) => keep([...lines.map((line) => line.item), item])} />
      </Work>
    </SiteScreen>
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
  const [label, address] = [
    useLineDraft('label', 'Text of the link'),
    useLineDraft('address', 'Address of the link'),
  ]
  const meant = meantAddress(address.text)
  const anchor = address.text.replace(/^#/, '').trim()
  const isReady =
    label.text.trim() !== '' &&
    (isPlace ? /^[a-z][a-z0-9-]{0,63}$/.test(anchor) : safeHref(meant) !== undefined && meant !== '')
  const add = async (): Promise<void> => {
    const words = label.text.trim()
    const isSaved = await onAdd(isPlace ? { page, anchor, label: words } : { href: meant, label: words })
    if (!isSaved) return
    label.reset()
    address.reset()
  }
  return (
    <Panel aria-label="Add a line">
      <h3>Add a line that is no page</h3>
      <LineField label="Words" value={label.text} onChange={label.setText} />
      <label>
        Leads to
        <select value={page} onChange={(event) => setPage(event.target.value)}>
          <option value={ELSEWHERE}>An address elsewhere</option>
          {inTreeOrder(pages).map(({ page: one }) => (
            <option key={one.id} value={one.id}>
              A place on {one.title}
            </option>
          ))}
        </select>
      </label>
      <LineField
        label={isPlace ? 'Anchor of the place' : 'Address'}
        placeholder={isPlace ? 'opening-hours' : 'https://…, mailto: or tel:'}
        value={address.text}
        onChange={address.setText}
      />
      <div>
        <MainButton isDisabled={!isReady} onPress={() => void add()}>
          Add the line
        </MainButton>
      </div>
    </Panel>
  )
}
