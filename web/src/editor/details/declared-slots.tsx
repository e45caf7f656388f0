import { X } from 'lucide'
import styled from 'styled-components'
import {
  declareSlotEdits,
  getKind,
  LONGEST_FIELD_HELP,
  LONGEST_FIELD_NAME,
  MOST_COMPONENT_SLOTS,
  setSlotsEdit,
  slotAllows,
  slotsOf,
  type ComponentSlot,
  type NodeId,
  type PageNode,
} from '@gullyline/core'
import { Button, IconButton } from '../../ui/controls.tsx'
import { useStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { Box, Declared } from './declared.ts'
import { Group, GroupTitle, Quiet } from './group.tsx'
import { useTyped } from './use-typed.ts'
import { Icon } from '../../ui/icon.tsx'

const Kinds = styled.fieldset`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(112px, 1fr));
  gap: 2px 10px;
  margin: 4px 0 0;
  padding: 0;
  border: 0;
  font-size: 12px;
  color: var(--quiet);
  legend {
    padding: 0 0 4px;
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
`

interface DeclaredSlotsProps {
  /** A block inside of a part. */
  readonly id: NodeId
  readonly part: NodeId
  readonly root: PageNode
  readonly kindName: string
}

/** Whether what a block inside a part holds is a slot, so that each instance puts its own blocks there. */
export function DeclaredSlots({ id, part, root, kindName }: DeclaredSlotsProps) {
  const store = useStore()
  const kind = getKind(store.registry, kindName)
  // What an instance has for a part inside of this one is no slot of this one.
  const own = kind.linksTo || kind.fillsSlot ? [] : Object.keys(kind.slots)
  if (own.length === 0) return null
  const slots = slotsOf(root)
  const set = (next: readonly ComponentSlot[], label: string, joinKey?: string): boolean =>
    store.do(label, [setSlotsEdit(part, next)], joinKey === undefined ? {} : { joinKey })
  return (
    <Group aria-label="Slots">
      <GroupTitle>Slots</GroupTitle>
      {own.map((slot) => {
        const declared = slots.find((one) => one.node === id && one.slot === slot)
        const title = own.length > 1 ? kind.slots[slot]!.title : 'What is in it'
        return declared ? (
          <OneSlot
            key={declared.id}
            declared={declared}
            kinds={kindsFor(store.registry, kindName, slot)}
            onChange={(changed, what) =>
              set(
                slots.map((one) => (one.id === changed.id ? changed : one)),
                `Changed the ${what} of a slot`,
                `${changed.id}/${what}`,
              )
            }
            onRemove={() =>
              set(
                slots.filter((one) => one.id !== declared.id),
                `“${declared.name}” is no longer a slot`,
              )
            }
          />
        ) : (
          <div key={slot}>
            <Quiet>
              {slots.length >= MOST_COMPONENT_SLOTS
                ? `A component has at most ${MOST_COMPONENT_SLOTS} slots.`
                : `${title} is the same wherever this component is shown.`}
            </Quiet>
            <Button
              isDisabled={slots.length >= MOST_COMPONENT_SLOTS}
              onPress={() =>
                store.do(
                  'Made a slot',
                  declareSlotEdits(store.state.page, part, { node: id, slot }, store.registry, newId),
                )
              }
            >
              Make it a slot
            </Button>
          </div>
        )
      })}
    </Group>
  )
}

/** The kinds that a block takes in one of its slots, with their names, in alphabetical order. */
function kindsFor(
  registry: ReturnType<typeof useStore>['registry'],
  kind: string,
  slot: string,
): readonly { readonly kind: string; readonly title: string }[] {
  const definition = getKind(registry, kind).slots[slot]!
  return [...registry.kinds.values()]
    .filter((one) => slotAllows(definition, one) && !one.linksTo)
    .map(({ kind: name, title }) => ({ kind: name, title }))
    .sort((a, b) => a.title.localeCompare(b.title))
}

interface OneSlotProps {
  readonly declared: ComponentSlot
  readonly kinds: ReturnType<typeof kindsFor>
  readonly onChange: (slot: ComponentSlot, what: 'name' | 'help' | 'kinds') => boolean
  readonly onRemove: () => void
}

function OneSlot({ declared, kinds, onChange, onRemove }: OneSlotProps) {
  const name = useTyped(declared.name, (typed) => onChange({ ...declared, name: typed }, 'name'))
  const help = useTyped(declared.help ?? '', (typed) => {
    const { help: _help, ...rest } = declared
    return onChange(typed === '' ? rest : { ...rest, help: typed }, 'help')
  })
  const taken = declared.takes
  const setTakes = (kind: string, isTaken: boolean): void => {
    const now = taken ?? []
    const next = isTaken ? [...now, kind] : now.filter((one) => one !== kind)
    const { takes: _takes, ...rest } = declared
    onChange(next.length === 0 ? rest : { ...rest, takes: next }, 'kinds')
  }
  return (
    <Declared>
      <small>Each instance puts its own blocks here. Until it does, what stands here is shown.</small>
      <Box aria-label="Name of the slot" maxLength={LONGEST_FIELD_NAME} {...name} />
      <IconButton label={`Make ${declared.name} no slot`} onPress={onRemove}>
        <Icon of={X} size={15} strokeWidth={1.75} />
      </IconButton>
      <Box
        aria-label={`Help for ${declared.name}`}
        placeholder="What to put here"
        maxLength={LONGEST_FIELD_HELP}
        {...help}
      />
      {kinds.length > 1 && (
        <Kinds>
          <legend>{taken ? 'Takes only' : 'Takes any block. Limit it to:'}</legend>
          {kinds.map(({ kind, title }) => (
            <label key={kind}>
              <input
                type="checkbox"
                checked={taken?.includes(kind) ?? false}
                onChange={(event) => setTakes(kind, event.target.checked)}
              />
              {title}
            </label>
          ))}
        </Kinds>
      )}
    </Declared>
  )
}
