import styled from 'styled-components'
import {
  addFillEdit,
  instanceSlots,
  slotOfFill,
  type InstanceSlot,
  type NodeId,
  type Registry,
} from '@gullyline/core'
import { Button } from '../../ui/controls.tsx'
import { usePage, useStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { Group, GroupTitle, Quiet } from './group.tsx'

const Slot = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 8px;
  align-items: center;
  small {
    grid-column: 1 / -1;
    color: var(--quiet);
    font-size: 12px;
  }
`

/** The slots of an instance: what it has in each, and the way to it. */
export function InstanceSlots({ id }: { readonly id: NodeId }) {
  const store = useStore()
  const page = usePage((page) => page)
  const slots = instanceSlots(page, id, store.registry)
  if (slots.length === 0) return null
  const open = ({ slot, fill }: InstanceSlot): void => {
    if (fill !== undefined) return store.dispatch({ type: 'select', id: fill })
    const edit = addFillEdit(page, id, slot.id, store.registry, newId)
    store.do(`Opened the slot “${slot.name}”`, [edit], { select: edit.rootId })
  }
  return (
    <Group aria-label="Slots">
      <GroupTitle>Slots</GroupTitle>
      {slots.map((one) => (
        <Slot key={one.slot.id}>
          <span>{one.slot.name}</span>
          <Button aria-label={`Select the slot ${one.slot.name}`} onPress={() => open(one)}>
            Select
          </Button>
          <small>
            {one.slot.help !== undefined && `${one.slot.help}. `}
            {countWords(one.count)}
          </small>
        </Slot>
      ))}
    </Group>
  )
}

function countWords(count: number): string {
  if (count === 0) return 'Shows what the component has here'
  return count === 1 ? 'One block of its own' : `${count} blocks of its own`
}

/** What belongs in a slot that is selected. */
export function SlotNote({ id }: { readonly id: NodeId }) {
  const { registry } = useStore()
  const page = usePage((page) => page)
  const filled = slotOfFill(page, id, registry)
  if (!filled) return null
  return (
    <>
      {filled.slot.help !== undefined && <Quiet>{filled.slot.help}</Quiet>}
      <Quiet>{takenWords(filled, registry)}</Quiet>
      {filled.count === 0 && <Quiet>Until a block is added here, what the component has is shown.</Quiet>}
    </>
  )
}

function takenWords({ taking }: InstanceSlot, registry: Registry): string {
  const kinds = taking.allow.flatMap((one) => registry.kinds.get(one)?.plural ?? [])
  // A group of kinds is no kind.
  return kinds.length < taking.allow.length || kinds.length === 0
    ? 'It takes any block.'
    : `It takes ${kinds.join(', ')}.`
}
