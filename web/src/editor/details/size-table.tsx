import { useCallback, useLayoutEffect, useRef } from 'react'
import styled from 'styled-components'
import {
  cascadeValue,
  getKind,
  SIZE_KEYS,
  SIZE_WORDS,
  type FieldSchema,
  type Json,
  type NodeId,
  type PageNode,
  type SizeKey,
} from '@gullyline/core'
import { useStore } from '../editor-store.ts'
import { choiceOf, optionsOf } from './field-control.tsx'
import { unsetWords } from './origin-words.ts'
import { OwnSelect, ownWords } from './own-select.tsx'

const Table = styled.table`
  width: 100%;
  border: 1px solid var(--line);
  border-radius: 5px;
  border-spacing: 0;
  table-layout: fixed;
  th,
  td {
    height: 31px;
    padding: 0;
    border-top: 1px solid var(--line);
    border-left: 1px solid var(--line);
    font-weight: 450;
  }
  thead th {
    border-top: 0;
    color: var(--quiet);
    font-size: 12px;
  }
  td:first-child {
    border: 0;
  }
  th:first-child {
    width: 34%;
    padding-left: 9px;
    border-left: 0;
    color: var(--quiet);
    font-size: 12px;
    text-align: left;
  }
  [data-current] {
    background: var(--accentTint);
    color: var(--accent);
  }
`

const Cell = styled.select`
  width: 100%;
  font-size: 12px;
  height: 30px;
  padding: 0 2px;
  border: 0;
  background: none;
  color: var(--plain);
  text-align: center;
  text-align-last: center;
  text-overflow: ellipsis;
  appearance: none;
  &[data-own] {
    color: var(--accent);
    font-weight: 700;
  }
  &[data-outside] {
    color: var(--ochre);
  }
  option {
    background: var(--paper);
    color: var(--plain);
  }
  &:focus-visible {
    outline-offset: -2px;
  }
`

/** From narrow to wide, as the ruler runs. */
const COLUMNS = [...SIZE_KEYS].reverse()
const PUT_BACK = '(put back)'

interface SizeTableProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly current: SizeKey
  readonly keys: readonly string[]
}

/** All values that may differ by size: sizes across, values down. Own values are marked; the others follow a wider size. */
export function SizeTable({ id, node, current, keys }: SizeTableProps) {
  const { registry } = useStore()
  const schema = getKind(registry, node.kind).arrangement
  return (
    <Table aria-label="At each size">
      <thead>
        <tr>
          <td />
          {COLUMNS.map((size) => (
            <th key={size} scope="col" data-current={size === current ? '' : undefined}>
              {SIZE_WORDS[size]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {keys.map((key) => (
          <tr key={key}>
            <th scope="row">{schema.properties[key]!.title}</th>
            {COLUMNS.map((size) => (
              <td key={size} data-current={size === current ? '' : undefined}>
                <SizeCell id={id} node={node} size={size} name={key} field={schema.properties[key]!} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </Table>
  )
}

interface SizeCellProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly size: SizeKey
  readonly name: string
  readonly field: FieldSchema
}

function SizeCell({ id, node, size, name, field }: SizeCellProps) {
  const store = useStore()
  const { value, origin } = cascadeValue(node, getKind(store.registry, node.kind).arrangement, size, name)
  const own = origin.from === 'own'
  const title = field.title.toLowerCase()
  const options = optionsOf(field)
  const shown = options[choiceOf(value)] ?? ownWords(choiceOf(value))
  const from =
    origin.from === 'own'
      ? `${shown}, set here`
      : origin.from === 'wider'
        ? `${shown}, as ${SIZE_WORDS[origin.size]}`
        : unsetWords(node, field, size, store.registry)
  const change = (chosen: string): void => {
    const at = ['sizes', size, name] as const
    const label = chosen === PUT_BACK ? `Put back ${title}` : `Changed ${title} at ${SIZE_WORDS[size]}`
    const next = chosen === PUT_BACK ? {} : { value: parse(field, chosen) }
    store.do(label, [{ edit: 'set', nodeId: id, at, ...next }])
  }
  return (
    <OwnSelect
      as={Cell}
      label={`${field.title} at ${SIZE_WORDS[size]}`}
      field={field}
      data-own={own ? '' : undefined}
      value={choiceOf(value)}
      options={options}
      title={`${field.title}: ${from}`}
      onChange={useSteady(change)}
    >
      {own && <option value={PUT_BACK}>{size === 'base' ? 'Put back' : 'As wider'}</option>}
    </OwnSelect>
  )
}

/** The same function at every drawing, which does what the last drawing's would: it is called by events alone. */
function useSteady<T>(act: (given: T) => void): (given: T) => void {
  const last = useRef(act)
  useLayoutEffect(() => {
    last.current = act
  })
  return useCallback((given) => last.current(given), [])
}

function parse(field: FieldSchema, chosen: string): Json {
  return field.control === 'toggle' ? chosen === 'true' : chosen
}
