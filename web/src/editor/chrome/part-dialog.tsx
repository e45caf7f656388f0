import { useId, useState } from 'react'
import styled from 'styled-components'
import {
  becomeInstanceEdits,
  findPlace,
  instanceFragment,
  isComponent,
  nodeLabel,
  patternOf,
  patternRefusal,
  sharedPartOf,
  sharedRefusal,
  withFieldsForAll,
  type NewPartRequest,
  type NodeId,
  type Page,
  type PartPurpose,
  type PartType,
  type Registry,
  type SavedPart,
} from '@gullyline/core'
import { request } from '../../api/client.ts'
import { refreshParts } from '../../api/hooks.ts'
import { inSite } from '../../api/site-address.ts'
import { PurposeField } from '../../library/purpose-field.tsx'
import { Button, LineField, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { useAct } from '../../ui/use-act.ts'
import { selectedIds } from '../session/editor-state.ts'
import { useStore, type EditorStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'

const Fields = styled.form`
  display: grid;
  gap: 12px;
`
const Check = styled.label`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px;
  align-items: baseline;
  small {
    display: block;
    color: var(--quiet);
    font-size: 12px;
  }
`
const Trouble = styled.p`
  color: var(--clay);
`

/** How a selection becomes a part, and what is said of that. */
interface Making {
  readonly title: string
  readonly act: string
  readonly about: string
  readonly refusal: (page: Page, ids: readonly NodeId[], registry: Registry) => string | undefined
  readonly documentOf: (page: Page, ids: readonly NodeId[], registry: Registry, newId: () => NodeId) => Page
  /** Does on the page what follows, and tells it. */
  readonly done: (store: EditorStore, ids: readonly NodeId[], saved: SavedPart) => void
}

const MAKING: Readonly<Record<MadeType, Making>> = {
  pattern: {
    title: 'Save as pattern',
    act: 'Save pattern',
    about: 'A pattern is placed as an independent copy. What is on this page stays as it is.',
    refusal: patternRefusal,
    documentOf: patternOf,
    done: (store, _ids, { name }) =>
      store.dispatch({
        type: 'tell',
        words: `Saved the pattern “${name}”. It is on the shelf`,
        tone: 'done',
      }),
  },
  shared: {
    title: 'Make shared section',
    act: 'Make shared section',
    about:
      'A shared section is the same on every page that shows it: a change of it is seen on all of them. It stays where it is on this page.',
    refusal: sharedRefusal,
    documentOf: sharedPartOf,
    done: becomeInstance,
  },
}

const COMPONENT_WORDS =
  'A component is built once. Each page that shows it fills in its fields; a change of anything else in it is seen on all of them.'

/** What a selection can become; a template is made of a whole page. */
type MadeType = Exclude<PartType, 'template'>

interface PartDialogProps {
  readonly type: MadeType
  readonly onClose: () => void
}

/** Asks what the selection is called as a part, and saves it. */
export function PartDialog({ type, onClose }: PartDialogProps) {
  const store = useStore()
  const [ids] = useState(() => inPageOrder(store))
  const refusal =
    MAKING[type].refusal(store.state.page, ids, store.registry) ??
    (type === 'shared' ? store.lockRefusal(ids.map((nodeId) => ({ edit: 'remove', nodeId }))) : undefined)
  if (refusal === undefined) return <PartForm type={type} ids={ids} onClose={onClose} />
  return (
    <Dialog title={MAKING[type].title} onClose={onClose} acts={<Button onPress={onClose}>Close</Button>}>
      <p>{refusal}.</p>
    </Dialog>
  )
}

/** The blocks on the page become the first instance of what was made of them. */
function becomeInstance(store: EditorStore, ids: readonly NodeId[], saved: SavedPart): void {
  const { id, name, document } = saved
  store.join(id, saved)
  const instance = instanceFragment(id, document, store.registry, newId)
  const edits = becomeInstanceEdits(store.state.page, ids, instance)
  store.do(`Made “${name}” a ${isComponent(document) ? 'component' : 'shared section'}`, edits, {
    select: instance.rootId,
  })
}

function PartForm({ type, ids, onClose }: PartDialogProps & { readonly ids: readonly NodeId[] }) {
  const { title, act, about: words, documentOf, done } = MAKING[type]
  const store = useStore()
  const form = useId()
  const [name, setName] = useState(() => nodeLabel(store.state.page, ids[0]!, store.registry))
  const [purpose, setPurpose] = useState<PartPurpose>('other')
  const [about, setAbout] = useState('')
  const [isToFill, setToFill] = useState(false)
  const save = useAct(async () => {
    const made = documentOf(store.state.page, ids, store.registry, newId)
    const document = isToFill ? withFieldsForAll(made, store.registry, newId) : made
    const body: NewPartRequest = { type, name, purpose, about, document }
    const saved = await request<SavedPart>(inSite('/parts'), { method: 'POST', body })
    done(store, ids, saved)
    void refreshParts()
    onClose()
  })
  const isReady = name.trim() !== '' && !save.isBusy
  return (
    <Dialog
      title={isToFill ? 'Make component' : title}
      isForm
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton type="submit" form={form} isDisabled={!isReady}>
            {isToFill ? 'Make component' : act}
          </MainButton>
        </>
      }
    >
      <Fields
        id={form}
        onSubmit={(event) => {
          event.preventDefault()
          if (isReady) save.run()
        }}
      >
        <p>{isToFill ? COMPONENT_WORDS : words}</p>
        <LineField label="Name" value={name} onChange={setName} autoFocus />
        <PurposeField value={purpose} onChange={setPurpose} />
        <LineField label="Description" value={about} onChange={setAbout} />
        {type === 'shared' && (
          <Check>
            <input type="checkbox" checked={isToFill} onChange={(event) => setToFill(event.target.checked)} />
            <span>
              Component: each page fills in its own texts
              <small>
                Its texts, pictures and links become fields. Everything else stays the same everywhere.
              </small>
            </span>
          </Check>
        )}
      </Fields>
      {save.trouble && <Trouble role="alert">{save.trouble}</Trouble>}
    </Dialog>
  )
}

/** What is selected, in the order in which it stands on the page and not in that in which it was selected. */
function inPageOrder({ state }: EditorStore): readonly NodeId[] {
  const { page } = state
  const placeOf = (id: string): number => findPlace(page, id)?.index ?? 0
  return [...selectedIds(state)].sort((a, b) => placeOf(a) - placeOf(b))
}
