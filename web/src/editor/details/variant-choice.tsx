import { useState } from 'react'
import styled from 'styled-components'
import {
  cutShort,
  findNode,
  linkedPart,
  LONGEST_FIELD_NAME,
  MOST_VARIANTS,
  VARIANT_KEY,
  variantsOf,
  type ComponentVariant,
  type NodeId,
} from '@gullyline/core'
import { Button, fieldBox, LineField, MainButton } from '../../ui/controls.tsx'
import { Trouble } from '../../ui/form-parts.ts'
import { Dialog } from '../../ui/dialog.tsx'
import { chooseVariant, deleteVariant, saveAsVariant } from '../commands/instance-acts.ts'
import { useNode, usePage, useStore } from '../session/editor-store.ts'

const Choice = styled.label`
  display: grid;
  gap: 4px;
  select {
    ${fieldBox}
  }
`

interface Variants {
  readonly all: readonly ComponentVariant[]
  readonly chosen: ComponentVariant | undefined
}

/** The variants that an instance can be of. */
function useVariants(id: NodeId): Variants {
  const store = useStore()
  const node = useNode(id)
  const part = node && linkedPart(node, store.registry)
  const root = usePage((page) => (part === undefined ? undefined : findNode(page, part)))
  const all = root ? variantsOf(root) : []
  return { all, chosen: all.find((one) => one.id === node?.content[VARIANT_KEY]) }
}

/** Of which variant of its component an instance is; nothing while there are none. */
export function VariantChoice({ id }: { readonly id: NodeId }) {
  const store = useStore()
  const { all, chosen } = useVariants(id)
  if (all.length === 0) return null
  return (
    <Choice>
      Variant
      <select
        value={chosen?.id ?? ''}
        onChange={(event) =>
          chooseVariant(
            store,
            id,
            all.find((one) => one.id === event.target.value),
          )
        }
      >
        <option value="">Default</option>
        {all.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </Choice>
  )
}

/** Makes a variant of what an instance says, and deletes the one that it is of. */
export function VariantActs({ id }: { readonly id: NodeId }) {
  const store = useStore()
  const hasValues = useNode(id)?.values !== undefined
  const { all: variants, chosen } = useVariants(id)
  const [isNaming, setNaming] = useState(false)
  return (
    <>
      {hasValues && variants.length < MOST_VARIANTS && (
        <Button onPress={() => setNaming(true)}>Save as variant…</Button>
      )}
      {chosen && <Button onPress={() => deleteVariant(store, id)}>Delete variant</Button>}
      {isNaming && (
        <VariantDialog
          taken={variants.map(({ name }) => name)}
          onClose={() => setNaming(false)}
          onName={(name) => {
            setNaming(false)
            saveAsVariant(store, id, name)
          }}
        />
      )}
    </>
  )
}

interface VariantDialogProps {
  readonly taken: readonly string[]
  readonly onClose: () => void
  readonly onName: (name: string) => void
}

function VariantDialog({ taken, onClose, onName }: VariantDialogProps) {
  const [name, setName] = useState('')
  const wanted = name.trim()
  const isTaken = taken.some((one) => one.toLocaleLowerCase() === wanted.toLocaleLowerCase())
  const isReady = wanted !== '' && !isTaken
  const save = (): void => {
    if (isReady) onName(wanted)
  }
  return (
    <Dialog
      title="Save as variant"
      onClose={onClose}
      isForm
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton isDisabled={!isReady} onPress={save}>
            Save variant
          </MainButton>
        </>
      }
    >
      <p>What is filled in here becomes a variant of the component. Every instance can be of it.</p>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <LineField
          autoFocus
          label="Name"
          value={name}
          onChange={(typed) => setName(cutShort(typed, LONGEST_FIELD_NAME))}
        />
      </form>
      {isTaken && <Trouble role="alert">The component has a variant of this name already.</Trouble>}
    </Dialog>
  )
}
