import { useId, useState } from 'react'
import styled from 'styled-components'
import {
  describeNode,
  fieldsOfWords,
  getKind,
  getNode,
  layoutOf,
  settingsOf,
  partOf,
  screenRegistry,
  slotAllows,
  templateOfPage,
  templateRules,
  type NewPartRequest,
  type NodeId,
  type Page,
  type Registry,
  type SavedPart,
  type SaveTemplateRequest,
  type TemplateChoices,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import { refreshParts } from '../../api/hooks.ts'
import { inSite } from '../../api/site-address.ts'
import { Button, fieldBox, LineField, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { Choices, Trouble } from '../../ui/form-parts.ts'
import { useAct } from '../../ui/use-act.ts'
import { useStore } from '../session/editor-store.ts'

const Form = styled.form`
  display: grid;
  gap: 14px;
`
const Check = styled.label`
  display: flex;
  gap: 8px;
  align-items: baseline;
`
const Blocks = styled.table`
  width: 100%;
  border-collapse: collapse;
  th,
  td {
    padding: 5px 12px 5px 0;
    text-align: left;
    vertical-align: top;
  }
  th {
    color: var(--quiet);
    font-weight: 450;
    font-size: 12px;
  }
  tbody th {
    color: var(--strong);
    font-size: 13px;
  }
  tbody tr {
    border-top: 1px solid var(--line);
  }
  select {
    ${fieldBox}
  }
  td:last-child {
    min-width: 130px;
  }
  summary {
    cursor: default;
    white-space: nowrap;
  }
`

/** A block that a template can say something of. */
interface Row {
  readonly id: NodeId
  readonly label: string
  /** How far inside of the page, from 0. */
  readonly depth: number
  /** The first field of words that it must have filled in where the template asks for it. */
  readonly field: string | undefined
  readonly slot: string | undefined
  readonly kinds: readonly { readonly kind: string; readonly title: string }[]
}

type Fixing = 'free' | 'text' | 'all'
const FIXING: readonly (readonly [Fixing, string])[] = [
  ['free', 'Can be changed'],
  ['text', 'Only its text can be changed'],
  ['all', 'Is fixed'],
]
const PAGE_FIELDS = [['description', 'Description, for search and sharing']] as const

interface MakeTemplateDialogProps {
  /** The template that the page was made from. */
  readonly template: SavedPart | undefined
  readonly onClose: () => void
}

/** Makes a page template of the page, or changes the one that it was made from: what stays fixed, what slots take, and what must be filled in. */
export function MakeTemplateDialog({ template, onClose }: MakeTemplateDialogProps) {
  const store = useStore()
  const registry = screenRegistry
  const form = useId()
  const [page] = useState(() => partOf(store.state.page, 'page'))
  const [rows] = useState(() => rowsOf(page, registry))
  const [isNew, setNew] = useState(template === undefined)
  const [name, setName] = useState(() => settingsOf(page).title)
  const [about, setAbout] = useState('')
  const [choices, setChoices] = useState<TemplateChoices>(() => choicesOf(template?.document ?? page))
  const save = useAct(async () => {
    const document = templateOfPage(page, choices, registry)
    const body: NewPartRequest = { type: 'template', name, purpose: 'pages', about, document }
    const change: SaveTemplateRequest = { base: template?.version ?? 1, document }
    const saved =
      isNew || !template
        ? await request<SavedPart>(inSite('/parts'), { method: 'POST', body })
        : await request<SavedPart>(inSite(`/parts/${template.id}/document`), { method: 'PUT', body: change })
    // From here the template is changed again, and nothing on this page is fixed for that.
    const madeFrom = { template: saved.id, version: saved.version }
    store.do(`Made “${saved.name}” the template of the page`, [
      { edit: 'set', nodeId: page.root, at: ['content', 'madeFrom'], value: madeFrom },
    ])
    void refreshParts()
    const made = saved.reach.pages
    const others =
      made === 0 ? '' : `. ${made === 1 ? 'One page' : `${made} pages`} made from it can take this over`
    const words = isNew
      ? `Made the page template “${saved.name}”. It is offered when a page is added`
      : `Changed the page template “${saved.name}”${others}`
    store.dispatch({ type: 'tell', words, tone: 'done' })
    onClose()
  })
  const isReady = (!isNew || name.trim() !== '') && !save.isBusy
  const fix = (id: NodeId, how: Fixing): void => {
    const { [id]: _before, ...rest } = choices.fixed
    setChoices({ ...choices, fixed: how === 'free' ? rest : { ...rest, [id]: how } })
  }
  const ask = (node: NodeId, key: string, isAsked: boolean): void => {
    const rest = choices.asked.filter((one) => one.node !== node || one.key !== key)
    setChoices({ ...choices, asked: isAsked ? [...rest, { node, key }] : rest })
  }
  const take = (node: NodeId, slot: string, kinds: readonly string[]): void => {
    const rest = choices.takes.filter((one) => one.node !== node || one.slot !== slot)
    setChoices({ ...choices, takes: kinds.length === 0 ? rest : [...rest, { node, slot, kinds }] })
  }
  const isAsked = (node: NodeId, key: string): boolean =>
    choices.asked.some((one) => one.node === node && one.key === key)
  return (
    <Dialog
      title={isNew ? 'Make a page template' : `Change “${template!.name}”`}
      isWide
      isForm
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton type="submit" form={form} isDisabled={!isReady}>
            {isNew ? 'Make template' : 'Change template'}
          </MainButton>
        </>
      }
    >
      <Form
        id={form}
        onSubmit={(event) => {
          event.preventDefault()
          if (isReady) save.run()
        }}
      >
        <p>
          New pages start with the blocks of this page as it is now, without its title, description and
          address. On this page nothing becomes fixed: the template is changed from here.
        </p>
        {template && (
          <Choices>
            <legend>What to do</legend>
            {[false, true].map((one) => (
              <label key={String(one)}>
                <input
                  type="radio"
                  name={`${form}-what`}
                  checked={isNew === one}
                  onChange={() => setNew(one)}
                />
                {one ? 'Make a new template' : `Change “${template.name}”`}
              </label>
            ))}
          </Choices>
        )}
        {isNew && (
          <>
            <LineField label="Name" value={name} onChange={setName} autoFocus />
            <LineField label="Description" value={about} onChange={setAbout} />
          </>
        )}
        <Check>
          <input
            type="checkbox"
            checked={choices.isEmptied}
            onChange={(event) => setChoices({ ...choices, isEmptied: event.target.checked })}
          />
          Ask for texts: pages start without those that can be changed, and show them as what to write
        </Check>
        <Blocks aria-label="What pages may change">
          <thead>
            <tr>
              <th scope="col">On the page</th>
              <th scope="col">On pages made from it</th>
              <th scope="col">Must be filled in</th>
              <th scope="col">Takes</th>
            </tr>
          </thead>
          <tbody>
            {PAGE_FIELDS.map(([key, title]) => (
              <tr key={key}>
                <th scope="row">{title}</th>
                <td />
                <td>
                  <MustBeFilled
                    of={title}
                    isAsked={isAsked(page.root, key)}
                    onChange={(is) => ask(page.root, key, is)}
                  />
                </td>
                <td />
              </tr>
            ))}
            {rows.map(({ id, label, depth, field, slot, kinds }) => {
              const how = choices.fixed[id] ?? 'free'
              const taken = choices.takes.find((one) => one.node === id && one.slot === slot)?.kinds ?? []
              return (
                <tr key={id}>
                  <th scope="row" style={{ paddingLeft: depth * 18 }}>
                    {label}
                  </th>
                  <td>
                    <select
                      aria-label={`On pages made from it: ${label}`}
                      value={how}
                      onChange={(event) => fix(id, event.target.value as Fixing)}
                    >
                      {FIXING.map(([value, words]) => (
                        <option key={value} value={value}>
                          {words}
                        </option>
                      ))}
                    </select>
                  </td>
                  <td>
                    {field !== undefined && how !== 'all' && (
                      <MustBeFilled
                        of={label}
                        isAsked={isAsked(id, field)}
                        onChange={(is) => ask(id, field, is)}
                      />
                    )}
                  </td>
                  <td>
                    {slot !== undefined && how === 'free' && (
                      <details>
                        <summary>
                          {taken.length === 0
                            ? 'Any block'
                            : taken.length === 1
                              ? 'Only one kind'
                              : `Only ${taken.length} kinds`}
                        </summary>
                        {kinds.map(({ kind, title }) => (
                          <Check key={kind}>
                            <input
                              type="checkbox"
                              aria-label={`${label} takes ${title}`}
                              checked={taken.includes(kind)}
                              onChange={(event) =>
                                take(
                                  id,
                                  slot,
                                  event.target.checked
                                    ? [...taken, kind]
                                    : taken.filter((one) => one !== kind),
                                )
                              }
                            />
                            {title}
                          </Check>
                        ))}
                      </details>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </Blocks>
      </Form>
      {save.trouble && <Trouble role="alert">{save.trouble}</Trouble>}
    </Dialog>
  )
}

interface MustBeFilledProps {
  readonly of: string
  readonly isAsked: boolean
  readonly onChange: (isAsked: boolean) => void
}

function MustBeFilled({ of, isAsked, onChange }: MustBeFilledProps) {
  return (
    <Check>
      <input
        type="checkbox"
        aria-label={`${of} must be filled in`}
        checked={isAsked}
        onChange={(event) => onChange(event.target.checked)}
      />
    </Check>
  )
}

function firstLarge(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}

/** What the page's own rules and locks say already. */
function choicesOf(page: Page): TemplateChoices {
  const { asked, takes } = templateRules(page)
  const locks = Object.entries(page.nodes).flatMap(([id, { lock }]) => (lock ? [[id, lock] as const] : []))
  return { fixed: Object.fromEntries(locks), asked, takes, isEmptied: false }
}

/** The sections of a page and the blocks right inside of them, as they stand. */
function rowsOf(page: Page, registry: Registry): readonly Row[] {
  const shown = Object.keys(layoutOf(getNode(page, page.root).content).slots)
  const root = getNode(page, page.root)
  const rowOf = (id: NodeId, depth: number): Row => {
    const node = getNode(page, id)
    const kind = getKind(registry, node.kind)
    const [slot, definition] = Object.entries(kind.slots)[0] ?? []
    return {
      id,
      label: firstLarge(describeNode(page, id, registry)),
      depth,
      field: (kind.typedFields?.(node.content) ?? fieldsOfWords(kind))[0],
      slot: definition && !kind.linksTo ? slot : undefined,
      kinds: definition
        ? [...registry.kinds.values()]
            .filter((one) => slotAllows(definition, one) && !one.linksTo)
            .map((one) => ({ kind: one.kind, title: one.title }))
            .sort((a, b) => a.title.localeCompare(b.title))
        : [],
    }
  }
  return shown.flatMap((slot) =>
    (root.slots[slot] ?? []).flatMap((id) => [
      rowOf(id, 0),
      ...Object.values(getNode(page, id).slots)
        .flat()
        .map((child) => rowOf(child, 1)),
    ]),
  )
}
