import styled from 'styled-components'
import type { FieldSchema, NodeId, NodePart, readValue } from '@gullyline/core'
import { useStore } from '../editor-store.ts'
import { choiceOf, FieldControl } from './field-control.tsx'
import { VariantField } from './variant-field.tsx'

const Row = styled.div`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) 16px;
  gap: 8px;
  align-items: center;
  &[data-wide] {
    grid-template-columns: minmax(0, 1fr) 16px;
  }
`
const Origin = styled.button`
  width: 16px;
  height: 24px;
  padding: 0;
  border: 0;
  background: none;
  &::before {
    content: '';
    display: block;
    width: 8px;
    height: 8px;
    margin: auto;
    border: 1.5px solid var(--control);
    border-radius: 50%;
  }
  &[data-own]::before {
    border-color: var(--accent);
    background: var(--accent);
  }
`

/** One field of a block, with its value in force. */
export interface SettingEntry {
  readonly part: Exclude<NodePart, 'sizes'>
  readonly key: string
  readonly field: FieldSchema
  readonly value: ReturnType<typeof readValue>
  readonly isSet: boolean
  readonly isRequired: boolean
}

interface SettingProps {
  readonly id: NodeId
  readonly entry: SettingEntry
}

/** A field with its name, its control, and where its value comes from. */
export function Setting({ id, entry: { part, key, field, value, isSet, isRequired } }: SettingProps) {
  const store = useStore()
  const title = field.title.toLowerCase()
  const set = (next: typeof value): void =>
    store.do(next === undefined ? `Put back ${title}` : `Changed ${title}`, [
      { edit: 'set', nodeId: id, at: [part, key], ...(next === undefined ? {} : { value: next }) },
    ])
  const control = (
    <FieldControl label={field.title} field={field} value={value ?? field.default} onChange={set} />
  )
  const origin = isRequired ? (
    <span />
  ) : (
    <Origin
      type="button"
      data-own={isSet ? '' : undefined}
      disabled={!isSet}
      aria-label={isSet ? `${field.title}: set here. Put back` : `${field.title}: as the kind has it`}
      title={isSet ? 'Set here. Press to put back.' : 'As the kind has it'}
      onClick={() => set(undefined)}
    />
  )
  if (part === 'look' && (key === 'variant' || key === 'display') && field.control === 'choice') {
    const variant = choiceOf(value ?? field.default)
    return (
      <Row>
        <span>{field.title}</span>
        <span />
        {origin}
        <VariantField id={id} fieldKey={key} field={field} value={variant} onChange={set} />
      </Row>
    )
  }
  if (
    field.control === 'link' ||
    field.control === 'words' ||
    field.control === 'list' ||
    field.control === 'table'
  ) {
    return (
      <Row data-wide="">
        {control}
        {origin}
      </Row>
    )
  }
  return (
    <Row>
      <span>{field.title}</span>
      {control}
      {origin}
    </Row>
  )
}
