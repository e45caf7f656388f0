import { useState } from 'react'
import styled from 'styled-components'
import useSWR, { mutate } from 'swr'
import type { Role, SiteInfo, SiteName, SitePerson } from '@gullyline/core'
import { request } from '../api/client.ts'
import { useSiteInfo } from '../api/hooks.ts'
import { addressOfSite, inSite } from '../api/site-address.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { exportPackage } from '../exchange/export-package.ts'
import { ImportDialog } from '../exchange/import-dialog.tsx'
import { Button } from '../ui/controls.tsx'
import { Acts, Rows, Trouble } from '../ui/form-parts.ts'
import { DraftLine } from '../ui/draft-line.tsx'
import { useDraft } from '../ui/drafts.ts'
import { useAct } from '../ui/use-act.ts'
import { messageOf } from '../ui/message-of.ts'
import { Waiting } from '../ui/waiting.tsx'
import { AddSiteDialog } from './add-site-dialog.tsx'
import { Sheet } from './sheet.ts'
import { SiteScreen } from './site-screen.tsx'

const Part = styled.section`
  display: grid;
  gap: 10px;
  padding-top: 18px;
  border-top: 1px solid var(--line);
  h2 {
    font-size: 14px;
  }
  p {
    color: var(--quiet);
    font-size: 12px;
  }
`

const Works = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 13px;
`

/** The sites of the installation that somebody works on, and who else works on this one. */
export function SitesScreen() {
  const { data: site, error } = useSiteInfo()
  return (
    <SiteScreen title="Sites and people">
      {site ? (
        <Sheet>
          <div>
            <h1>Sites and people</h1>
            <Sites here={site} />
            {site.host !== null && <Address site={site} host={site.host} />}
            <Carrying site={site} />
            <People site={site} />
          </div>
        </Sheet>
      ) : (
        <Waiting title={error ? 'The sites can’t be shown' : 'Reading the sites…'}>{error?.message}</Waiting>
      )}
    </SiteScreen>
  )
}

function Sites({ here }: { readonly here: SiteInfo }) {
  const { sites } = useMe()
  const [isAdding, setAdding] = useState(false)
  return (
    <Part aria-label="Sites">
      <h2>Sites</h2>
      <p>
        Each site has its own pages, media, library, look, people and address. Parts can be carried from one
        to another.
      </p>
      <Rows aria-label="Sites that you work on">
        {sites.map((one) => (
          <li key={one.id}>
            <span>
              <strong>{one.name}</strong>
              <small>{whereIs(one, here)}</small>
            </span>
            {one.id === here.id ? (
              <small>This site</small>
            ) : (
              <a href={addressOfSite(one.id, sites[0]!.id)}>Open {one.name}</a>
            )}
          </li>
        ))}
      </Rows>
      <div>
        <Button onPress={() => setAdding(true)}>Add a site…</Button>
      </div>
      {isAdding && <AddSiteDialog here={here} onClose={() => setAdding(false)} />}
    </Part>
  )
}

/** Everything of the site as one file, and the way for such files to come in. */
function Carrying({ site }: { readonly site: SiteInfo }) {
  const [isImporting, setImporting] = useState(false)
  const [told, setTold] = useState('')
  const act = useAct(async () => setTold(await exportPackage('all', site.name)))
  return (
    <Part aria-label="Export and import">
      <h2>Export and import</h2>
      <p>
        A package holds all saved pages, parts, pictures and files of this site, in open formats. It can be
        imported into another site, here or elsewhere. Single parts are exported from the library, pages from
        the list of pages.
      </p>
      <Acts>
        <Button isDisabled={act.isBusy} onPress={act.run}>
          Export whole site
        </Button>
        <Button onPress={() => setImporting(true)}>Import a package…</Button>
      </Acts>
      <p role="status">{told}</p>
      {act.trouble && <Trouble role="alert">{act.trouble}</Trouble>}
      {isImporting && <ImportDialog onClose={() => setImporting(false)} />}
    </Part>
  )
}

/** Where visitors find a site. */
function whereIs({ id, host }: SiteName, here: SiteInfo): string {
  if (id === here.id) return here.liveOrigin
  return host ?? 'The main address of this installation'
}

function Address({ site, host }: { readonly site: SiteInfo; readonly host: string }) {
  const draft = useDraft({
    name: 'site.host',
    label: 'Address',
    saved: host,
    save: async (text) => {
      const body = { host: text }
      await mutate(inSite(''), request<SiteInfo>(inSite('/host'), { method: 'PUT', body }), {
        revalidate: false,
      })
      await mutate('/api/session')
      return true
    },
  })
  return (
    <Part aria-label="Address">
      <DraftLine label="Address" draft={draft} saved={host} isReadOnly={false} />
      <p>
        Visitors find this site at {site.liveOrigin}. Saving another name updates the live site; the old name
        then leads to the main site. The name must lead to this server.
      </p>
    </Part>
  )
}

const ROLE_WORDS: Readonly<Record<Role, string>> = {
  editor: 'Editor',
  reviewer: 'Reviewer',
  keeper: 'Administrator',
}

function People({ site }: { readonly site: SiteInfo }) {
  const path = inSite('/people')
  const { data, error, mutate: renew } = useSWR<SitePerson[], Error>(path, () => request<SitePerson[]>(path))
  const [trouble, setTrouble] = useState<string>()
  const change = (person: SitePerson, isHere: boolean): void => {
    setTrouble(undefined)
    const asked = isHere ? { method: 'PUT', body: {} } : { method: 'DELETE' }
    renew(request<SitePerson[]>(`${path}/${person.id}`, asked), {
      // Shown at once, and as it was where it is refused.
      optimisticData: (people = []) => people.map((one) => (one.id === person.id ? { ...one, isHere } : one)),
      revalidate: false,
    }).catch((failure: unknown) => setTrouble(messageOf(failure)))
  }
  return (
    <Part aria-label="People">
      <h2>People who work on {site.name}</h2>
      <p>A role is the same on every site. Accounts are made on the server, with “npm run account”.</p>
      {error && <Trouble role="alert">{error.message}</Trouble>}
      <Rows aria-label="People with an account">
        {data?.map((person) => (
          <li key={person.id}>
            <span>
              <strong>{person.name}</strong>
              <small>
                {person.login} · {ROLE_WORDS[person.role]}
              </small>
            </span>
            <Works>
              <input
                type="checkbox"
                checked={person.isHere}
                aria-label={`${person.name} works on this site`}
                onChange={(event) => change(person, event.target.checked)}
              />
              Works on this site
            </Works>
          </li>
        ))}
      </Rows>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </Part>
  )
}
