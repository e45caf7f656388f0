/** The page as it was, beside the page as it is: what each shows, and which blocks differ. */
import { useMemo } from 'react'
import { changedBlocks, type Page } from '@gullyline/core'
import { framedPage } from '../../ui/framed-page.ts'
import { MeasuredHtml } from '../gullyline/measured-html.ts'
import { usePage, useStore } from '../session/editor-store.ts'
import { usePageBefore, type Before } from '../session/page-before.ts'
import { useRenderer } from '../session/site-view.ts'

export interface Compared {
  readonly before: string
  readonly now: string
  /** How many blocks differ. */
  readonly differing: number
}

/** Returns both as HTML once the earlier one is read. `isMarked` outlines the blocks that differ. */
export function useCompared(
  before: Before,
  isMarked: boolean,
): { readonly compared: Compared | undefined; readonly error: Error | undefined } {
  const { registry } = useStore()
  const { context } = useRenderer()
  const now = usePage((page) => page)
  const { session, error } = usePageBefore(before)
  const compared = useMemo(() => {
    if (!session) return undefined
    const differing = changedBlocks(session, now)
    const marks = isMarked ? markCss(differing) : ''
    const shown = { ...context, purpose: 'measure' } as const
    const html = (page: Page): string => {
      const { body, sheet } = new MeasuredHtml(registry, shown).write(page)
      return framedPage({ ...sheet, rules: sheet.rules + marks }, body)
    }
    return { before: html(session), now: html(now), differing: differing.length }
  }, [session, now, isMarked, registry, context])
  return { compared, error }
}

function markCss(ids: readonly string[]): string {
  // On the page itself, and within an instance, where the ids of those around come before.
  const selectors = ids.flatMap((id) => [
    `[data-node="${CSS.escape(id)}"]`,
    `[data-node$="/${CSS.escape(id)}"]`,
  ])
  return selectors.length === 0 ? '' : `${selectors.join()}{outline:3px dashed #a84b2f;outline-offset:2px}`
}
