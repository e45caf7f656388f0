import { X } from 'lucide'
import styled from 'styled-components'
import {
  FIELDS_KEY,
  fieldsOf,
  fillable,
  findNode,
  getKind,
  LONGEST_FIELD_HELP,
  LONGEST_FIELD_LIMIT,
  LONGEST_FIELD_NAME,
  newField,
  partAt,
  partSchema,
  type ComponentField,
  type Json,
  type NodeId,
} from '@gullyline/core'
import { fieldBox, IconButton } from '../../ui/controls.tsx'
import { usePage, useStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { Box, Declared } from './declared.ts'
import { DeclaredSlots } from './declared-slots.tsx'
import { Group, GroupTitle, Quiet } from './group.tsx'
import { useTyped } from './use-typed.ts'
import { Icon } from '../../ui/icon.tsx'

const Rules = styled.div`
  display: flex;
  flex-wrap: wrap;
  grid-column: 1 / -1;
  gap: 4px 14px;
  align-items: center;
  color: var(--quiet);
  font-size: 12px;
  label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  input[type='number'] {
    width: 76px;
  }
`
const Choice = styled.select`
  ${fieldBox}
`

/**
 * Which values of a block inside a part are fields, so that each instance says something else there. A part with fields is
 * a component.
 */
export function DeclaredFields({ id }: { readonly id: NodeId }) {
  const store = useStore()
  const part = usePage((page) => (findNode(page, id) ? partAt(page, id) : 'page'))
  const root = usePage((page) => findNode(page, part))
  const kindName = usePage((page) => findNode(page, id)?.kind)
  if (!root || kindName === undefined || id === part || part === 'page') return null
  const kind = getKind(store.registry, kindName)
  const fields = fieldsOf(root)
  const own = fields.filter((field) => field.node === id)
  const left = fillable(kind).filter(
    ({ key, of }) => !own.some((field) => field.key === key && field.of === of),
  )
  const slots = <DeclaredSlots id={id} part={part} root={root} kindName={kindName} />
  if (own.length + left.length === 0) return slots
  const set = (next: readonly ComponentField[], label: string, joinKey?: string): boolean =>
    store.do(
      label,
      [{ edit: 'set', nodeId: part, at: ['content', FIELDS_KEY], value: next as unknown as Json }],
      joinKey === undefined ? {} : { joinKey },
    )
  const change = (changed: ComponentField, what: Changed): boolean =>
    set(
      fields.map((field) => (field.id === changed.id ? changed : field)),
      `Changed the ${what} of a field`,
      `${changed.id}/${what}`,
    )
  return (
    <>
      <Group aria-label="Component fields">
        <GroupTitle>Component fields</GroupTitle>
        {own.length === 0 && <Quiet>What is made a field can say something else wherever this stands.</Quiet>}
        {own.map((field) => (
          <OneDeclared
            key={field.id}
            field={field}
            title={partSchema(kind, field.of ?? 'content').properties[field.key]?.title ?? field.key}
            hasLength={field.of === undefined && TYPED.has(kind.content.properties[field.key]?.control ?? '')}
            onChange={change}
            onRemove={() =>
              set(
                fields.filter((one) => one.id !== field.id),
                `“${field.name}” is no field any more`,
              )
            }
          />
        ))}
        {left.length > 0 && (
          <Choice
            aria-label="Make a field of"
            value=""
            onChange={(event) => {
              const { key, of } = left[Number(event.target.value)]!
              const field = newField(fields, { node: id, key, ...(of ? { of } : {}) }, kind, newId)
              set([...fields, field], `Made “${field.name}” a field`)
            }}
          >
            <option value="">Make a field of…</option>
            {(['Content', 'Style'] as const).map((group) => (
              <optgroup key={group} label={group}>
                {left.map(({ of, key, schema }, i) =>
                  (of === 'look') === (group === 'Style') ? (
                    <option key={key} value={i}>
                      {schema.title}
                    </option>
                  ) : null,
                )}
              </optgroup>
            ))}
          </Choice>
        )}
      </Group>
      {slots}
    </>
  )
}

/** What of a field is changed, in words. */
type Changed = 'name' | 'help' | 'rule'

/** What is typed, and can be too long. */
const TYPED = new Set(['line', 'formatted-line', 'words', 'list'])

interface OneDeclaredProps {
  readonly field: ComponentField
  /** What the value is called in the block. */
  readonly title: string
  /** Whether it is text, which can be too long. */
  readonly hasLength: boolean
  readonly onChange: (field: ComponentField, what: Changed) => boolean
  readonly onRemove: () => void
}

function OneDeclared({ field, title, hasLength, onChange, onRemove }: OneDeclaredProps) {
  const name = useTyped(field.name, (typed) => onChange({ ...field, name: typed }, 'name'))
  const help = useTyped(field.help ?? '', (typed) => {
    const { help: _help, ...rest } = field
    return onChange(typed === '' ? rest : { ...rest, help: typed }, 'help')
  })
  return (
    <Declared>
      <small>{title}</small>
      <Box aria-label={`Name of the field for ${title}`} maxLength={LONGEST_FIELD_NAME} {...name} />
      <IconButton label={`Make ${field.name} no field`} onPress={onRemove}>
        <Icon of={X} size={15} strokeWidth={1.75} />
      </IconButton>
      <Box
        aria-label={`Help for ${field.name}`}
        placeholder="What to fill in"
        maxLength={LONGEST_FIELD_HELP}
        {...help}
      />
      {field.of === undefined && (
        <Rules>
          <label>
            <input
              type="checkbox"
              aria-label={`${field.name} is required`}
              checked={field.required === true}
              onChange={(event) => {
                const { required: _required, ...rest } = field
                onChange(event.target.checked ? { ...rest, required: true } : rest, 'rule')
              }}
            />
            Required
          </label>
          {hasLength && (
            <label>
              At most
              <Box
                type="number"
                min={1}
                max={LONGEST_FIELD_LIMIT}
                aria-label={`Most characters of ${field.name}`}
                value={field.longest ?? ''}
                onChange={(event) => {
                  const { longest: _longest, ...rest } = field
                  const next = event.target.valueAsNumber
                  const isLimit = Number.isInteger(next) && next >= 1 && next <= LONGEST_FIELD_LIMIT
                  onChange(isLimit ? { ...rest, longest: next } : rest, 'rule')
                }}
              />
              characters
            </label>
          )}
        </Rules>
      )}
    </Declared>
  )
}
