import { useState } from 'react'
import styled from 'styled-components'
import { mutate } from 'swr'
import type { BinnedPage } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'
import { useBin, refreshPages } from '../api/hooks.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { ActionRows } from '../ui/action-rows.tsx'
import { Button } from '../ui/controls.tsx'
import { useAct } from '../ui/use-act.ts'
import { Waiting } from '../ui/waiting.tsx'
import { when } from '../ui/when.ts'
import { Sheet } from './sheet.ts'
import { SiteScreen } from './site-screen.tsx'

const Trouble = styled.p`
  && {
    color: var(--clay);
  }
`

/** Deleted pages, each with the way back. */
export function BinScreen() {
  const { data, error } = useBin()
  return (
    <SiteScreen title="Bin">
      {data ? (
        <Bin pages={data} />
      ) : (
        <Waiting title={error ? 'The bin can’t be shown' : 'Reading the bin…'}>{error?.message}</Waiting>
      )}
    </SiteScreen>
  )
}

function Bin({ pages }: { pages: readonly BinnedPage[] }) {
  const mayChange = useMe().role !== 'reviewer'
  const [restored, setRestored] = useState<string>()
  return (
    <Sheet>
      <div>
        <h1>Bin</h1>
        <p role="status">{restored ?? 'Deleted pages are kept here with all that was saved of them.'}</p>
        {pages.length === 0 ? (
          <p>The bin is empty.</p>
        ) : (
          <ActionRows>
            {pages.map((page) => (
              <BinnedLine
                key={page.id}
                page={page}
                mayChange={mayChange}
                onRestored={() => setRestored(`Restored “${page.title}”.`)}
              />
            ))}
          </ActionRows>
        )}
      </div>
    </Sheet>
  )
}

interface BinnedLineProps {
  readonly page: BinnedPage
  readonly mayChange: boolean
  readonly onRestored: () => void
}

function BinnedLine({ page, mayChange, onRestored }: BinnedLineProps) {
  const restore = useAct(async () => {
    await request(inSite(`/pages/${page.id}/restore`), { method: 'POST', body: {} })
    onRestored()
    await Promise.all([refreshPages(), mutate(inSite('/bin'))])
  })
  const more =
    page.subPages === 0
      ? ''
      : page.subPages === 1
        ? ', with one sub-page'
        : `, with ${page.subPages} sub-pages`
  return (
    <li>
      <div>
        {page.title}
        <small>
          {page.path}, deleted {when(page.binnedAt)}
          {more}
        </small>
        {restore.trouble && <Trouble role="alert">{restore.trouble}</Trouble>}
      </div>
      {mayChange && (
        <Button aria-label={`Restore ${page.title}`} isDisabled={restore.isBusy} onPress={restore.run}>
          Restore
        </Button>
      )}
    </li>
  )
}
