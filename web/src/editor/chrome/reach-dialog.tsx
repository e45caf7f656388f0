import { useMemo, useState } from 'react'
import useSWR from 'swr'
import styled from 'styled-components'
import {
  partOf,
  screenRegistry,
  type OpenedPage,
  type PartPage,
  type Parts,
  type SharedName,
  type SizeKey,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import { inSite } from '../../api/site-address.ts'
import { Button, MainButton, Tabs } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { SideBySide } from '../../ui/side-by-side.ts'
import { useValue } from '../../ui/value.ts'
import { rulerSizes } from '../ruler/ruler-scale.ts'
import { useStore } from '../session/editor-store.ts'
import { reachWords } from '../session/reach.ts'
import { useSiteView, viewSite } from '../session/site-view.ts'
import type { Saving } from '../session/use-save.ts'
import { LivePicture } from '../shelf/live-picture.tsx'

const Part = styled.section`
  display: grid;
  gap: 6px;
  h3 {
    padding: 3px 0 3px 10px;
    border-left: 5px double var(--control);
    font-size: 13px;
  }
`
const List = styled.ul`
  display: grid;
  gap: 2px;
  max-height: 180px;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
  li {
    display: flex;
    gap: 10px;
    align-items: center;
    min-height: 28px;
    padding: 0 4px;
  }
  li > :last-child {
    margin-left: auto;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
  }
`
const Sides = styled(SideBySide)`
  > :first-child {
    grid-column: 1 / -1;
  }
`
const PICTURE = { width: 320, height: 300 }

interface ReachDialogProps {
  readonly parts: readonly SharedName[]
  readonly saving: Saving
}

/** Says where the shared sections stand that are about to be saved, and shows any of those pages before and after. */
export function ReachDialog({ parts, saving }: ReachDialogProps) {
  const store = useStore()
  const view = useSiteView()
  const linked = useValue(store.linked)
  const [compared, setCompared] = useState<PartPage>()
  return (
    <Dialog
      title={parts.length === 1 ? 'Save the shared section, too?' : 'Save the shared sections, too?'}
      isWide
      onClose={saving.dismiss}
      acts={
        <>
          <Button onPress={saving.dismiss}>Cancel</Button>
          <MainButton
            onPress={() => {
              saving.dismiss()
              void saving.save(true)
            }}
          >
            Save everywhere
          </MainButton>
        </>
      }
    >
      <p>
        Your change is seen on every page that shows it. Visitors see it once it is published with one of
        them.
      </p>
      {parts.map((part) => (
        <Part key={part} aria-label={linked[part]?.name}>
          <h3>{reachWords(part, { ...view, linked })}</h3>
          <Affected part={part} compared={compared} onCompare={setCompared} />
        </Part>
      ))}
      {compared && <BeforeAfter key={compared.pageId} page={compared} parts={parts} />}
    </Dialog>
  )
}

interface AffectedProps {
  readonly part: SharedName
  readonly compared: PartPage | undefined
  readonly onCompare: (page: PartPage) => void
}

function Affected({ part, compared, onCompare }: AffectedProps) {
  const { data, error } = useSWR<PartPage[], Error>(inSite(`/parts/${part}/pages`), (path: string) =>
    request<PartPage[]>(path),
  )
  if (error) return <p role="alert">{error.message}</p>
  return (
    <List>
      {data?.map((page) => (
        <li key={page.pageId}>
          {page.title} <small>{page.isLive ? `${page.path} · live` : page.path}</small>
          <Button
            aria-label={`Compare ${page.title}`}
            aria-pressed={compared?.pageId === page.pageId}
            onPress={() => onCompare(page)}
          >
            Compare
          </Button>
        </li>
      ))}
    </List>
  )
}

interface BeforeAfterProps {
  readonly page: PartPage
  readonly parts: readonly SharedName[]
}

/** A page as it was saved last, with what is shared as it was and as it is now. */
function BeforeAfter({ page, parts }: BeforeAfterProps) {
  const store = useStore()
  const { site, pages } = useSiteView()
  const sizes = rulerSizes(site.look)
  const [size, setSize] = useState<SizeKey>('base')
  const path = inSite(`/pages/${page.pageId}`)
  const { data, error } = useSWR<OpenedPage, Error>(path, (asked: string) => request<OpenedPage>(asked))
  const sides = useMemo(() => {
    if (!data) return undefined
    const known = Object.entries(data.around.parts).map(([id, { document }]) => [id, document] as const)
    const before: Parts = Object.fromEntries(known)
    const changed = parts.map((part) => [part, partOf(store.state.page, part)] as const)
    const after: Parts = { ...before, ...Object.fromEntries(changed) }
    const pictures = { ...site.pictures, ...data.around.pictures }
    const files = { ...site.files, ...data.around.files }
    const contextOf = (shown: Parts) =>
      viewSite({ ...site, pictures, files, parts: shown }, pages, data.summary, screenRegistry).context
    return [
      { title: 'As it is', context: contextOf(before) },
      { title: 'With your change', context: contextOf(after) },
    ]
  }, [data, parts, store, site, pages])
  if (error) return <p role="alert">{error.message}</p>
  if (!data || !sides) return <p>Reading {page.title}…</p>
  return (
    <Sides>
      <Tabs
        label="Width"
        value={size}
        options={sizes.map((one) => [one.size, one.title] as const)}
        onChange={setSize}
      />
      {sides.map(({ title, context }) => (
        <figure key={title}>
          <figcaption>
            {page.title}: {title.toLowerCase()}
          </figcaption>
          <LivePicture
            page={data.document}
            header={site.header}
            context={context}
            title={`${page.title}: ${title.toLowerCase()}`}
            screen={sizes.find((one) => one.size === size)!.sample}
            size={PICTURE}
          />
        </figure>
      ))}
    </Sides>
  )
}
