import { useId, useState } from 'react'
import styled from 'styled-components'
import useSWR from 'swr'
import { anchorsOf, isPageLink, outlineOf, safeHref, type Link, type PageDocument } from '@gullyline/core'
import { request } from '../../api/client.ts'
import { usePage, useStore } from '../editor-store.ts'
import { fieldBox } from '../../ui/controls.tsx'
import { useSiteView } from '../site-view.ts'
import { MAIN_SETTING } from './main-setting.ts'
import { meantAddress } from './meant-address.ts'

const Group = styled.div`
  display: grid;
  gap: 8px;
  select,
  input {
    ${fieldBox}
  }
  label {
    display: grid;
    gap: 4px;
    color: var(--quiet);
    font-size: 12px;
  }
`

const Refusal = styled.p`
  color: var(--clay);
  font-size: 12px;
`

interface LinkFieldProps {
  readonly label: string
  readonly value: Link | undefined
  readonly onChange: (link: Link | undefined) => void
}

const ELSEWHERE = 'elsewhere'
const NOWHERE = 'nowhere'

/** Where a link leads: a page of the site, by name, or an address elsewhere. */
export function LinkField({ label, value, onChange }: LinkFieldProps) {
  const { pages } = useSiteView()
  const [wantsAddress, setWantsAddress] = useState(false)
  const chosen = value && isPageLink(value) ? value.page : value || wantsAddress ? ELSEWHERE : NOWHERE
  const choose = (id: string): void => {
    setWantsAddress(id === ELSEWHERE)
    if (id === NOWHERE) onChange(undefined)
    else if (id !== ELSEWHERE) onChange({ page: id })
  }
  return (
    <Group>
      <label>
        {label}
        <select
          {...MAIN_SETTING}
          aria-label={label}
          value={chosen}
          onChange={(event) => choose(event.target.value)}
        >
          <option value={NOWHERE}>Nowhere yet</option>
          {pages.map((page) => (
            <option key={page.id} value={page.id}>
              {page.title}
            </option>
          ))}
          <option value={ELSEWHERE}>An address elsewhere…</option>
        </select>
      </label>
      {value && isPageLink(value) && <PlaceOnPage link={value} onChange={onChange} />}
      {chosen === ELSEWHERE && (
        <AddressBox value={value && !isPageLink(value) ? value.href : ''} onChange={onChange} />
      )}
    </Group>
  )
}

/** A heading or a named place of the page that is linked to, read from the page as it was last saved. */
function PlaceOnPage({
  link,
  onChange,
}: {
  link: Extract<Link, { page: string }>
  onChange: (link: Link) => void
}) {
  const { summary } = useSiteView()
  const store = useStore()
  const isHere = link.page === summary.id
  const { data } = useSWR<PageDocument, Error>(isHere ? null : `/api/pages/${link.page}`, (path: string) =>
    request<PageDocument>(path),
  )
  const here = usePage((page) => page)
  const page = isHere ? here : data?.document
  const headings = page ? outlineOf(page, store.registry).filter(({ level }) => level > 1) : []
  const named = page ? anchorsOf(page, store.registry) : []
  const others = named.filter((anchor) => !headings.some((one) => one.anchor === anchor))
  const isKnown = link.anchor === undefined || named.includes(link.anchor)
  return (
    <label>
      Place on that page
      <select
        aria-label="Place on that page"
        value={link.anchor ?? ''}
        onChange={(event) =>
          onChange({ page: link.page, ...(event.target.value ? { anchor: event.target.value } : {}) })
        }
      >
        <option value="">Its beginning</option>
        {!isKnown && <option value={link.anchor}>{link.anchor} (not there)</option>}
        {headings.map(({ id, text, anchor }) => (
          <option key={id} value={anchor}>
            {text}
          </option>
        ))}
        {others.map((anchor) => (
          <option key={anchor} value={anchor}>
            #{anchor}
          </option>
        ))}
      </select>
    </label>
  )
}

function AddressBox({ value, onChange }: { value: string; onChange: (link: Link | undefined) => void }) {
  const [typed, setTyped] = useState(value)
  const problem = useId()
  const refused = typed.trim() !== '' && safeHref(typed) === undefined
  return (
    <label>
      Address
      <input
        aria-label="Address"
        value={typed}
        placeholder="https://…, mailto: or tel:"
        aria-invalid={refused}
        aria-describedby={refused ? problem : undefined}
        onChange={(event) => {
          setTyped(event.target.value)
          const href = safeHref(meantAddress(event.target.value))
          if (href !== undefined) onChange({ href })
        }}
      />
      {refused && (
        <Refusal id={problem}>
          This kind of address can’t be linked to. Web, e-mail and phone addresses can.
        </Refusal>
      )}
    </label>
  )
}
