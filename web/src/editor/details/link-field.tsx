import { useId, useRef, useState } from 'react'
import styled from 'styled-components'
import useSWR from 'swr'
import {
  anchorsOf,
  hrefFault,
  isFileLink,
  isPageLink,
  outlineOf,
  type Link,
  type PageDocument,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import { refreshLibrary } from '../../api/hooks.ts'
import { inSite } from '../../api/site-address.ts'
import { usePage, useStore } from '../session/editor-store.ts'
import { sendFile } from '../../media/uploads.ts'
import { Button, fieldBox } from '../../ui/controls.tsx'
import { Picker, type PickerOption } from '../../ui/picker.tsx'
import { useSiteView } from '../session/site-view.ts'
import { focusCanvas } from '../canvas/focus-canvas.ts'
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
  /** `isTyped` for one letter of an address. */
  readonly onChange: (link: Link | undefined, isTyped?: boolean) => void
  readonly autoFocus?: boolean
}

const ELSEWHERE = 'elsewhere'
const NOWHERE = 'nowhere'
const NEW_FILE = 'new file'
/** Before an address that was typed where a page is looked for. */
const ADDRESS = 'href '

/** An address that was typed is offered as the link, if a browser can read it. */
function offerAddress(typed: string): readonly PickerOption[] {
  const href = meantAddress(typed)
  const isAddress = /[:/.@#]/.test(typed) && hrefFault(href) === undefined
  return isAddress ? [{ id: ADDRESS + href, title: href, detail: 'Web address' }] : []
}

/** Where a link leads: a page of the site or a file of the library, by name, or an address elsewhere. */
export function LinkField({ label, value, onChange, autoFocus = false }: LinkFieldProps) {
  const { pages, site } = useSiteView()
  // What was chosen that is no link yet, since something more has to be given.
  const [wanted, setWanted] = useState<typeof ELSEWHERE | typeof NEW_FILE>()
  const chosen = wanted ?? optionOf(value)
  const files = Object.values(site.files)
  const choose = (option: string): void => {
    setWanted(option === ELSEWHERE || option === NEW_FILE ? option : undefined)
    if (option === NOWHERE) onChange(undefined)
    if (option.startsWith(ADDRESS)) return onChange({ href: option.slice(ADDRESS.length) })
    const [type, id] = option.split(' ', 2) as [string, string]
    if (type === 'page') onChange({ page: id })
    if (type === 'file') onChange({ file: id })
  }
  const options = [
    { id: NOWHERE, title: 'No link', synonyms: ['none', 'remove'] },
    ...pages.map((page) => ({ id: `page ${page.id}`, title: page.title, detail: page.path })),
    ...files.map((file) => ({ id: `file ${file.id}`, title: file.name, detail: 'File' })),
    { id: ELSEWHERE, title: 'Web address…', synonyms: ['URL', 'external', 'e-mail', 'phone'] },
    { id: NEW_FILE, title: 'Upload a file…', synonyms: ['PDF', 'document', 'download'] },
    ...(isUnknown(value, site.files) ? [{ id: chosen, title: 'Deleted file' }] : []),
  ]
  return (
    <Group>
      <Picker
        label={label}
        isLabelShown
        options={options}
        value={chosen}
        onChange={choose}
        autoFocus={autoFocus}
        offer={offerAddress}
        inputProps={MAIN_SETTING}
        onLeave={focusCanvas}
      />
      {!wanted && value && isPageLink(value) && <PlaceOnPage link={value} onChange={onChange} />}
      {chosen === ELSEWHERE && (
        <AddressBox value={value && 'href' in value ? value.href : ''} onChange={onChange} />
      )}
      {chosen === NEW_FILE && (
        <AddFile
          onAdded={(id) => {
            setWanted(undefined)
            onChange({ file: id })
          }}
        />
      )}
    </Group>
  )
}

function optionOf(link: Link | undefined): string {
  if (!link) return NOWHERE
  if (isPageLink(link)) return `page ${link.page}`
  return isFileLink(link) ? `file ${link.file}` : ELSEWHERE
}

function isUnknown(link: Link | undefined, files: Readonly<Record<string, unknown>>): boolean {
  return link !== undefined && isFileLink(link) && !Object.hasOwn(files, link.file)
}

/** Adds a file to the library and links to it, without leaving the page. */
function AddFile({ onAdded }: { onAdded: (id: string) => void }) {
  const input = useRef<HTMLInputElement>(null)
  const [share, setShare] = useState<number>()
  const [trouble, setTrouble] = useState<string>()
  const add = async (file: File): Promise<void> => {
    setTrouble(undefined)
    setShare(0)
    const path = inSite(`/files?name=${encodeURIComponent(file.name)}`)
    const result = await sendFile('POST', path, file, setShare).answer
    setShare(undefined)
    if (result.type === 'refused') return setTrouble(result.message)
    await refreshLibrary()
    onAdded(result.item.id)
  }
  return (
    <>
      <Button isDisabled={share !== undefined} onPress={() => input.current?.click()}>
        {share === undefined ? 'Choose a file…' : `Uploading, ${Math.round(share * 100)} %`}
      </Button>
      <input
        ref={input}
        hidden
        type="file"
        aria-label="File to upload and link to"
        onChange={(event) => {
          const [file] = event.target.files ?? []
          if (file) void add(file)
        }}
      />
      {trouble && <Refusal role="alert">{trouble}</Refusal>}
    </>
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
  const { data } = useSWR<PageDocument, Error>(
    isHere ? null : inSite(`/pages/${link.page}`),
    (path: string) => request<PageDocument>(path),
  )
  const here = usePage((page) => page)
  const page = isHere ? here : data?.document
  const headings = page ? outlineOf(page, store.registry).filter(({ level }) => level > 1) : []
  const named = page ? anchorsOf(page, store.registry) : []
  const others = named.filter((anchor) => !headings.some((one) => one.anchor === anchor))
  const isKnown = link.anchor === undefined || named.includes(link.anchor)
  return (
    <label>
      Heading on that page
      <select
        aria-label="Heading on that page"
        value={link.anchor ?? ''}
        onChange={(event) =>
          onChange({ page: link.page, ...(event.target.value ? { anchor: event.target.value } : {}) })
        }
      >
        <option value="">Top of page</option>
        {!isKnown && <option value={link.anchor}>{link.anchor} (missing)</option>}
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

function AddressBox({ value, onChange }: { value: string; onChange: LinkFieldProps['onChange'] }) {
  const [typed, setTyped] = useState(value)
  const problem = useId()
  const meant = meantAddress(typed)
  const refused = meant === '' ? undefined : faultOf(meant)
  return (
    <label>
      Address
      <input
        aria-label="Address"
        value={typed}
        placeholder="https://…, mailto: or tel:"
        aria-invalid={refused !== undefined}
        aria-describedby={refused === undefined ? undefined : problem}
        onChange={(event) => {
          setTyped(event.target.value)
          const href = meantAddress(event.target.value)
          if (href !== '' && faultOf(href) === undefined) onChange({ href }, true)
        }}
        onKeyDown={(event) => event.key === 'Escape' && focusCanvas()}
      />
      {refused !== undefined && <Refusal id={problem}>{refused}</Refusal>}
    </label>
  )
}

/** Why an address can't be linked to, with what the page has meanwhile; undefined when it can. */
function faultOf(href: string): string | undefined {
  switch (hrefFault(href)) {
    case 'not-allowed':
      return 'This kind of address can’t be used. Use a web, e-mail or phone address.'
    case 'incomplete':
      return 'This address is not complete, so the link is not changed yet. Start with https://, or with / for a page of this site.'
    case 'not-an-address':
      return 'Browsers can’t read this address, so the link is not changed yet. Check the part before the first slash.'
    case undefined:
      return undefined
  }
}
