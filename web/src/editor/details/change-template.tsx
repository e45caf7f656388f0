import { useMemo, useState } from 'react'
import {
  applyEdits,
  ASIDE,
  changeFrameEdits,
  FRAMES,
  frameOf,
  getNode,
  type Edit,
  type FrameName,
  type Page,
} from '@gullyline/core'
import { PictureChoice } from '../../pages/template-choice.tsx'
import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { newId, useStore } from '../editor-store.ts'
import { useSiteView } from '../site-view.ts'

interface Result {
  readonly page: Page
  readonly edits: readonly Edit[]
  /** Blocks that the template has no place for. */
  readonly aside: number
}

/** Shows the page in every template, with its own content carried over, before any of them is applied. */
export function ChangeTemplateDialog({ onClose }: { onClose: () => void }) {
  const store = useStore()
  const { site, renderer } = useSiteView()
  const [page] = useState(() => store.state.page)
  const now = frameName(page)
  const [chosen, setChosen] = useState<FrameName>(now)
  const results = useMemo(() => {
    const entries = Object.keys(FRAMES).map((name): readonly [string, Result] => {
      const frame = name as FrameName
      const edits = frame === now ? [] : changeFrameEdits(page, frame, store.registry, newId)
      const applied = applyEdits(page, edits, store.registry)
      const next = applied.ok ? applied.page : page
      return [frame, { page: next, edits, aside: asideCount(next) - asideCount(page) }]
    })
    return new Map(entries)
  }, [page, now, store])
  const { edits, aside } = results.get(chosen)!
  const apply = (): void => {
    store.do(`Changed the template to ${FRAMES[chosen].title.toLowerCase()}`, edits)
    store.dispatch({ type: 'select', id: undefined })
    onClose()
  }
  return (
    <Dialog
      title="Template of this page"
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
        label="Template of this page"
        options={Object.entries(FRAMES).map(([id, { title, about }]) => ({
          id,
          title: id === now ? `${title} (now)` : title,
          about,
          page: results.get(id)!.page,
        }))}
        site={site}
        context={renderer.context}
        value={chosen}
        onChange={(id) => setChosen(id as FrameName)}
      />
      <p role="status">{asideWords(aside)}</p>
    </Dialog>
  )
}

function frameName(page: Page): FrameName {
  const frame = frameOf(getNode(page, page.root).content)
  return (Object.entries(FRAMES).find(([, one]) => one === frame)?.[0] ?? 'plain') as FrameName
}

function asideCount(page: Page): number {
  return getNode(page, page.root).slots[ASIDE]?.length ?? 0
}

function asideWords(aside: number): string {
  if (aside <= 0) return 'Everything on the page has a place in it.'
  return `${aside === 1 ? 'One part of the page has' : `${aside} parts of the page have`} no place in it: kept aside, in the spine, and not published.`
}
