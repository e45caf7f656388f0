import styled from 'styled-components'
import { instanceFields, type Edit, type InstanceField, type Json, type NodeId } from '@gullyline/core'
import { usePage, useStore } from '../session/editor-store.ts'
import { FieldControl } from './field-control.tsx'
import { Group, GroupTitle, Quiet } from './group.tsx'
import { OriginDot } from './setting.tsx'
import { VariantChoice } from './variant-choice.tsx'

const Field = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 16px;
  gap: 4px 8px;
  align-items: center;
  > :first-child,
  > small {
    grid-column: 1 / -1;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
  }
`
const Needed = styled.i`
  color: var(--quiet);
  font-style: normal;
`
/** Formatted text has its toolbar on the page. */
const ON_PAGE = new Set(['words', 'list'])

/** What an instance of a component says in each of its fields. */
export function InstanceFields({ id }: { readonly id: NodeId }) {
  const { registry } = useStore()
  const page = usePage((page) => page)
  const fields = instanceFields(page, id, registry)
  if (fields.length === 0) return null
  return (
    <Group aria-label="Content">
      <GroupTitle>Content</GroupTitle>
      <VariantChoice id={id} />
      {fields.map((one) => (
        <OneField key={one.field.id} id={id} one={one} />
      ))}
    </Group>
  )
}

function OneField({
  id,
  one: { field, schema, own, isOfVariant, value },
}: {
  readonly id: NodeId
  readonly one: InstanceField
}) {
  const store = useStore()
  const { name, help } = field
  const set = (next: Json | undefined, isTyped = false): boolean => {
    const edit: Edit = {
      edit: 'set',
      nodeId: id,
      at: ['values', field.id],
      ...(next === undefined ? {} : { value: next }),
    }
    const label = next === undefined ? `Reset ${name}` : `Changed ${name}`
    return store.do(label, [edit], isTyped ? { joinKey: `${id}/values.${field.id}` } : {})
  }
  return (
    <Field>
      <span>
        {name}
        {field.required && <Needed> (required)</Needed>}
      </span>
      {ON_PAGE.has(schema.control) ? (
        <Quiet>Edited on the page: double-click it there.</Quiet>
      ) : (
        <FieldControl label={name} field={schema} value={value} prompt={undefined} onChange={set} />
      )}
      <OriginDot
        field={schema}
        isSet={own !== undefined}
        words={own !== undefined ? '' : isOfVariant ? 'as the variant has it' : 'as the component has it'}
        onPutBack={() => set(undefined)}
      />
      {help !== undefined && <small>{help}</small>}
      {field.longest !== undefined && <small>At most {field.longest} characters</small>}
    </Field>
  )
}
