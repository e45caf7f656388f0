import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import useSWR from 'swr'
import { RULES, type LiveGullies, type SweptLivePage } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'
import { rangeOf } from '../editor/gullyline/gully-range.ts'
import { gullyAddress } from '../editor/gullyline/gully-address.ts'
import { TroubleMark } from '../editor/problems/trouble-mark.tsx'
import { useMe } from '../people/sign-in-gate.tsx'
import { Sheet } from '../site/sheet.ts'
import { SiteScreen } from '../site/site-screen.tsx'
import { Button, mono } from '../ui/controls.tsx'
import { Note, Trouble } from '../ui/form-parts.ts'
import { useAct } from '../ui/use-act.ts'
import { Waiting } from '../ui/waiting.tsx'
import { when } from '../ui/when.ts'
import { counted } from '../ui/counted.ts'

const Top = styled.div`
  display: flex;
  gap: 16px;
  align-items: start;
  justify-content: space-between;
  p {
    margin: 6px 0 0;
  }
`
const PageBox = styled.section`
  border-top: 1px solid var(--line);
  padding-top: 14px;
  h2 {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    align-items: baseline;
    margin: 0 0 6px;
    font-size: 14px;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
    font-weight: 450;
  }
  small:last-child {
    margin-left: auto;
  }
  ul {
    display: grid;
    gap: 2px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: 14px 104px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: baseline;
    padding: 5px 0;
  }
  li[data-ignored] {
    color: var(--quiet);
  }
`
const Range = styled.span`
  ${mono}
  font-size: 12px;
`
const Whole = styled.details`
  border-top: 1px solid var(--line);
  padding-top: 14px;
  ul {
    columns: 2;
    margin: 8px 0 0;
    padding: 0;
    list-style: none;
  }
`

/** So often is asked while pages are still being measured. */
const ASKED_EVERY_MS = 2_000

/** The gullies of all live pages, as the server measures them in the background. */
export function GulliesScreen() {
  const { data, error, mutate } = useSWR<LiveGullies, Error>(
    inSite('/gullies'),
    (path: string) => request(path),
    {
      refreshInterval: (known) => (known && pendingOf(known) > 0 ? ASKED_EVERY_MS : 0),
    },
  )
  return (
    <SiteScreen title="Gullies">
      {data ? (
        <Gullies known={data} onAgain={() => mutate()} />
      ) : (
        <Waiting title={error ? 'The gullies can’t be shown' : 'Reading the gullies…'}>
          {error?.message}
        </Waiting>
      )}
    </SiteScreen>
  )
}

/** How many pages are still to be measured as they are now. */
function pendingOf({ measuring, pages }: LiveGullies): number {
  return measuring === 'on' ? pages.filter(({ isCurrent }) => !isCurrent).length : 0
}

const COUNTED: Readonly<Record<LiveGullies['measuring'], string | undefined>> = {
  on: undefined,
  off: 'Live pages are not measured on this server: it was started with GULLYLINE_SWEEP=no. What you see is from before.',
  'no-chromium':
    'Live pages can’t be measured, because Chromium is not installed on this server. Install Debian’s package chromium-headless-shell, then start Gullyline again.',
}

interface GulliesProps {
  readonly known: LiveGullies
  readonly onAgain: () => Promise<unknown>
}

function Gullies({ known, onAgain }: GulliesProps) {
  const mayMeasure = useMe().role !== 'reviewer' && known.measuring === 'on'
  const [isAsked, setAsked] = useState(false)
  const again = useAct(async () => {
    await request(inSite('/gullies'), { method: 'POST', body: {} })
    setAsked(true)
    await onAgain()
  })
  const { pages } = known
  const pending = pendingOf(known)
  const broken = pages.filter((page) => page.gullies === null || page.gullies.length > 0)
  const whole = pages.filter((page) => page.sweptAt !== null && page.gullies?.length === 0)
  return (
    <Sheet>
      <div>
        <Top>
          <div>
            <h1>Gullies</h1>
            <p role="status">
              {pending > 0
                ? `Measuring live pages: ${pages.length - pending} of ${pages.length} done.`
                : isAsked
                  ? `All ${pages.length} live pages were measured again.`
                  : `${countOf(pages.length)} from 320 to 1920 px; measured again when they change.`}
            </p>
          </div>
          {mayMeasure && (
            <Button isDisabled={again.isBusy || pending > 0} onPress={again.run}>
              Measure again
            </Button>
          )}
        </Top>
        {COUNTED[known.measuring] !== undefined && <Note role="note">{COUNTED[known.measuring]}</Note>}
        {again.trouble !== undefined && <Trouble role="alert">{again.trouble}</Trouble>}
        {broken.map((page) => (
          <BrokenPage key={page.pageId} page={page} />
        ))}
        {whole.length > 0 && (
          <Whole open={broken.length === 0}>
            <summary>{counted(whole.length, 'page without gullies', 'pages without gullies')}</summary>
            <ul>
              {whole.map(({ pageId, title }) => (
                <li key={pageId}>
                  <Link to={`/pages/${pageId}`}>{title}</Link>
                </li>
              ))}
            </ul>
          </Whole>
        )}
      </div>
    </Sheet>
  )
}

function countOf(pages: number): string {
  return counted(pages, 'live page')
}

function BrokenPage({ page: { pageId, title, path, sweptAt, isCurrent, gullies } }: { page: SweptLivePage }) {
  return (
    <PageBox aria-label={title}>
      <h2>
        <Link to={`/pages/${pageId}`}>{title}</Link> <small>{path}</small>{' '}
        <small>
          {sweptAt !== null && (isCurrent ? `measured ${when(sweptAt)}` : `changed since ${when(sweptAt)}`)}
        </small>
      </h2>
      {gullies === null ? (
        <Trouble>
          This page could not be measured. Open it to measure it in the editor; the server’s log says more.
        </Trouble>
      ) : (
        <ul>
          {gullies.map((gully) => {
            const { rule, from, to, why, severity, nodeId, ignored } = gully
            const name = RULES.get(rule)?.title ?? rule
            return (
              <li key={`${rule} ${nodeId} ${from}`} data-ignored={ignored === undefined ? undefined : ''}>
                <TroubleMark severity={severity} title={severity === 'error' ? 'Error' : 'Warning'} />
                <Range>{rangeOf(gully)}</Range>
                <span>
                  <b>{name}</b>: {why}
                  {ignored !== undefined && ` Ignored: ${ignored}`}
                </span>
                <Link
                  to={gullyAddress(pageId, gully)}
                  aria-label={`Open ${title} at ${Math.round((from + to) / 2)} pixels: ${name}`}
                >
                  Open
                </Link>
              </li>
            )
          })}
        </ul>
      )}
    </PageBox>
  )
}
