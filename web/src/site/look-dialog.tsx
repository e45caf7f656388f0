import { useMemo } from 'react'
import styled from 'styled-components'
import { screenRegistry, type Look, type LookFromTokens } from '@gullyline/core'
import { documentsOf, usePageDocument, usePages, useParts, type Site } from '../api/hooks.ts'
import { viewSite } from '../editor/session/site-view.ts'
import { LivePicture } from '../editor/shelf/live-picture.tsx'
import { Button, MainButton } from '../ui/controls.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { SideBySide } from '../ui/side-by-side.ts'
import { Note } from '../ui/form-parts.ts'

const Values = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
  th,
  td {
    padding: 4px 12px 4px 0;
    text-align: left;
    font-weight: 400;
    overflow-wrap: anywhere;
  }
  thead th {
    color: var(--quiet);
    font-size: 12px;
  }
  tr {
    border-top: 1px solid var(--line);
  }
  i {
    display: inline-block;
    width: 14px;
    height: 14px;
    margin-right: 6px;
    border: 1px solid var(--lineStrong);
    border-radius: 3px;
    vertical-align: -2px;
  }
`
const SIZE = { width: 318, height: 220 }
const SCREEN = 1200

interface LookDialogProps {
  readonly site: Site
  readonly read: LookFromTokens & { readonly name: string }
  readonly onClose: () => void
  readonly onUse: (look: Look) => void
}

/** What a file of design tokens makes of the look: the home page before and after, what each token became, and what was left. */
export function LookDialog({ site, read, onClose, onUse }: LookDialogProps) {
  const { data: home } = usePageDocument(site.homePageId)
  const { data: pages } = usePages()
  const { data: parts } = useParts()
  const looks = useMemo(() => {
    if (!home || !pages) return undefined
    const withParts = { ...site, parts: documentsOf(parts ?? []) }
    const contextIn = (look: Look) =>
      viewSite({ ...withParts, look }, pages, home.summary, screenRegistry).context
    return [
      ['Now', contextIn(site.look)],
      ['With this file', contextIn(read.look)],
    ] as const
  }, [site, read, home, pages, parts])
  const { taken, left } = read
  return (
    <Dialog
      title={`The look of “${read.name}”`}
      isWide
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={taken.length === 0} onPress={() => onUse(read.look)}>
            Use this look
          </MainButton>
        </>
      }
    >
      {looks && home && (
        <SideBySide>
          {looks.map(([words, context]) => (
            <figure key={words}>
              <LivePicture
                page={home.document}
                header={site.header}
                context={context}
                title={home.summary.title}
                screen={SCREEN}
                size={SIZE}
              />
              <figcaption>{words}</figcaption>
            </figure>
          ))}
        </SideBySide>
      )}
      <Note>
        {taken.length === 0
          ? 'Nothing in the file comes near to anything in the look.'
          : 'Visitors see the new look as soon as it is used. It can be undone here until you leave this screen.'}
      </Note>
      {left.length > 0 && (
        <section aria-label="Not taken over">
          <h3>Not taken over ({left.length})</h3>
          <Values>
            <thead>
              <tr>
                <th scope="col">Token</th>
                <th scope="col">Why</th>
              </tr>
            </thead>
            <tbody>
              {left.map(({ path, why }) => (
                <tr key={path}>
                  <th scope="row">{path}</th>
                  <td>{why}</td>
                </tr>
              ))}
            </tbody>
          </Values>
        </section>
      )}
      <section aria-label="Taken over">
        <h3>Taken over ({taken.length})</h3>
        <Values>
          <thead>
            <tr>
              <th scope="col">In the look</th>
              <th scope="col">Value</th>
              <th scope="col">Token</th>
            </tr>
          </thead>
          <tbody>
            {taken.map(({ path, what, value }) => (
              <tr key={what}>
                <th scope="row">{what}</th>
                <td>
                  {typeof value === 'string' && value.startsWith('#') && <i style={{ background: value }} />}
                  {value}
                </td>
                <td>{path}</td>
              </tr>
            ))}
          </tbody>
        </Values>
      </section>
    </Dialog>
  )
}
