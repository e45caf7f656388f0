import { useMemo, useState } from 'react'
import useSWR from 'swr'
import styled from 'styled-components'
import {
  diffPages,
  madeFromOf,
  partOf,
  screenRegistry,
  takeOver,
  templateChanges,
  type PartVersion,
  type SavedPart,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import { inSite } from '../../api/site-address.ts'
import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { messageOf } from '../../ui/message-of.ts'
import { useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'

const Changes = styled.ul`
  display: grid;
  gap: 12px;
  margin: 0;
  padding: 0;
  list-style: none;
  label {
    display: flex;
    gap: 8px;
    align-items: baseline;
    color: var(--strong);
    font-weight: 600;
  }
  ul {
    margin: 4px 0 0;
    padding-left: 42px;
  }
`

interface TemplateNewsDialogProps {
  readonly template: SavedPart
  readonly onClose: () => void
}

/** What changed in the template of the page since the page took it over last: each section is taken over or left. */
export function TemplateNewsDialog({ template, onClose }: TemplateNewsDialogProps) {
  const store = useStore()
  const { look } = useSiteView().site
  const [since] = useState(() => madeFromOf(store.state.page)!.version)
  const path = inSite(`/parts/${template.id}/versions/${since}`)
  const { data, error } = useSWR<PartVersion, Error>(path, () => request<PartVersion>(path))
  const changes = useMemo(
    () => data && templateChanges(data.document, template.document, screenRegistry, look),
    [data, template, look],
  )
  const [left, setLeft] = useState<readonly string[]>([])
  const chosen = (changes ?? []).map(({ key }) => key).filter((key) => !left.includes(key))
  const take = (): void => {
    // As it is now: others may have saved it since the dialog was opened.
    const page = partOf(store.state.page, 'page')
    const versions = { page, base: data!.document, newest: template.document }
    const taken = takeOver(versions, { chosen, version: template.version }, screenRegistry)
    const edits = diffPages(page, taken.page, screenRegistry)
    // What the template fixed, the template may change.
    const isDone = store.do(`Took over the page template “${template.name}”`, edits, { locks: 'passed' })
    if (!isDone) return
    const stays = taken.conflicts.length > 0 ? '. Where the page says something of its own, that stays' : ''
    const words =
      chosen.length === 0
        ? 'The page stays as it is. These changes are not offered again'
        : `Took over ${chosen.length === 1 ? 'one change' : `${chosen.length} changes`} of “${template.name}”${stays}`
    store.dispatch({ type: 'tell', words, tone: 'done' })
    onClose()
  }
  return (
    <Dialog
      title={`What changed in “${template.name}”`}
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={changes === undefined} onPress={take}>
            {chosen.length === 0 ? 'Leave the page as it is' : 'Take over'}
          </MainButton>
        </>
      }
    >
      {error && <p role="alert">{messageOf(error)}</p>}
      {!error && !changes && <p role="status">Comparing…</p>}
      {changes?.length === 0 && <p>Nothing that is on a page changed.</p>}
      {changes && changes.length > 0 && (
        <>
          <p>What is taken over becomes part of this page, and can be undone. Texts of the page stay.</p>
          <Changes aria-label="Changes of the template">
            {changes.map(({ key, title, sentences }) => (
              <li key={key}>
                <label>
                  <input
                    type="checkbox"
                    checked={!left.includes(key)}
                    onChange={(event) =>
                      setLeft(event.target.checked ? left.filter((one) => one !== key) : [...left, key])
                    }
                  />
                  {title}
                </label>
                <ul>
                  {sentences.map((sentence) => (
                    <li key={sentence}>{sentence}</li>
                  ))}
                </ul>
              </li>
            ))}
          </Changes>
        </>
      )}
    </Dialog>
  )
}
