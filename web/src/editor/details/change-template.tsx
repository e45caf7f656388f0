import { useMemo, useState } from 'react'
import {
  applyEdits,
  ASIDE,
  changeLayoutEdits,
  LAYOUTS,
  layoutOf,
  getNode,
  type Edit,
  type LayoutName,
  type Page,
} from '@gullyline/core'
import { PictureChoice } from '../../pages/template-choice.tsx'
import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { useStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { useRenderer, useSiteView } from '../session/site-view.ts'

interface Result {
  readonly page: Page
  readonly edits: readonly Edit[]
  /** Blocks that the template has no place for. */
  readonly aside: number
}

/** Shows the page in every template, with its own content carried over, before any of them is applied. */
export function ChangeTemplateDialog({ onClose }: { onClose: () => void }) {
  const store = useStore()
  const { site } = useSiteView()
  const renderer = useRenderer()
  const [page] = useState(() => store.state.page)
  const now = layoutName(page)
  const [chosen, setChosen] = useState<LayoutName>(now)
  const results = useMemo(() => {
    const entries = Object.keys(LAYOUTS).map((name): readonly [string, Result] => {
      const layout = name as LayoutName
      const edits = layout === now ? [] : changeLayoutEdits(page, layout, store.registry, newId)
      const applied = applyEdits(page, edits, store.registry)
      const next = applied.ok ? applied.page : page
      return [layout, { page: next, edits, aside: asideCount(next) - asideCount(page) }]
    })
    return new Map(entries)
  }, [page, now, store])
  const { edits, aside } = results.get(chosen)!
  const apply = (): void => {
    store.do(`Changed the template to ${LAYOUTS[chosen].title.toLowerCase()}`, edits)
    store.dispatch({ type: 'select', id: undefined })
    onClose()
  }
  return (
    <Dialog
      title="Page template"
      isWide
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={chosen === now} onPress={apply}>
            Use this template
          </MainButton>
        </>
      }
    >
      <PictureChoice
        label="Page template"
        options={Object.entries(LAYOUTS).map(([id, { title, about }]) => ({
          id,
          title: id === now ? `${title} (now)` : title,
          about,
          page: results.get(id)!.page,
        }))}
        site={site}
        context={renderer.context}
        value={chosen}
        onChange={(id) => setChosen(id as LayoutName)}
      />
      <p role="status">{asideWords(aside)}</p>
    </Dialog>
  )
}

function layoutName(page: Page): LayoutName {
  const layout = layoutOf(getNode(page, page.root).content)
  return (Object.entries(LAYOUTS).find(([, one]) => one === layout)?.[0] ?? 'plain') as LayoutName
}

function asideCount(page: Page): number {
  return getNode(page, page.root).slots[ASIDE]?.length ?? 0
}

function asideWords(aside: number): string {
  if (aside <= 0) return 'Everything on the page fits this template.'
  return `${aside === 1 ? 'One part of the page has' : `${aside} parts of the page have`} no place in it: set aside in the spine, and not published.`
}
