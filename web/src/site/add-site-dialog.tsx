import { useState, type FormEvent } from 'react'
import styled from 'styled-components'
import useSWR from 'swr'
import { languageFault, type NewSiteRequest, type SiteInfo, type SitePerson } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { Button, LineField, MainButton } from '../ui/controls.tsx'
import { Choices, Note, Trouble } from '../ui/form-parts.ts'
import { Dialog } from '../ui/dialog.tsx'
import { useAct } from '../ui/use-act.ts'

const Form = styled.form`
  display: grid;
  gap: 12px;
`

interface AddSiteDialogProps {
  readonly here: SiteInfo
  readonly onClose: () => void
}

/** Adds a site with one empty page, in the look of this one, and goes there. */
export function AddSiteDialog({ here, onClose }: AddSiteDialogProps) {
  const me = useMe()
  const path = inSite('/people')
  const { data: people = [] } = useSWR<SitePerson[], Error>(path, () => request<SitePerson[]>(path))
  const [name, setName] = useState('')
  const [host, setHost] = useState<string>()
  const [language, setLanguage] = useState(here.language)
  const [chosen, setChosen] = useState<readonly string[]>([])
  const wanted = host ?? suggestedHost(name, here)
  const act = useAct(async () => {
    const body: NewSiteRequest = { name, host: wanted, language, like: here.id, people: chosen }
    const { id } = await request<SiteInfo>('/api/sites', { method: 'POST', body })
    window.location.assign(`/sites/${id}/`)
  })
  const fault = languageFault(language.trim())
  const isReady = name.trim() !== '' && wanted.trim() !== '' && fault === undefined && !act.isBusy
  const add = (event?: FormEvent): void => {
    event?.preventDefault()
    if (isReady) act.run()
  }
  return (
    <Dialog
      title="Add a site"
      onClose={onClose}
      isForm
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={!isReady} onPress={() => add()}>
            Add site
          </MainButton>
        </>
      }
    >
      <Form onSubmit={add}>
        <LineField autoFocus label="Site name" value={name} onChange={setName} />
        <LineField label="Address" value={wanted} onChange={setHost} />
        <Note>
          The name that visitors find it under. It must lead to this server; names that end in .localhost do
          on this machine.
        </Note>
        <LineField label="Language" value={language} onChange={setLanguage} />
        {fault && <Note>{fault}</Note>}
        <Choices>
          <legend>People who work on it</legend>
          <span>{me.name} (you)</span>
          {people
            .filter(({ id }) => id !== me.id)
            .map(({ id, name: person }) => (
              <label key={id}>
                <input
                  type="checkbox"
                  checked={chosen.includes(id)}
                  onChange={(event) =>
                    setChosen(event.target.checked ? [...chosen, id] : chosen.filter((one) => one !== id))
                  }
                />
                {person}
              </label>
            ))}
        </Choices>
        <Note>It begins with one empty page, in the look of {here.name}.</Note>
        {/* So that Enter in a field adds it. */}
        <input type="submit" hidden />
      </Form>
      {act.trouble && <Trouble role="alert">{act.trouble}</Trouble>}
    </Dialog>
  )
}

/** The name of the site before the address of this one, as far as letters and digits go. */
function suggestedHost(name: string, { liveOrigin }: SiteInfo): string {
  const word = name
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40)
  return word === '' ? '' : `${word}.${new URL(liveOrigin).hostname}`
}
