import styled from 'styled-components'
import {
  lineWords,
  STEP_WORDS,
  withLineWords,
  type FieldSchema,
  type Json,
  type JsonObject,
  type Line,
  type Link,
} from '@gullyline/core'
import { fieldBox } from '../../ui/controls.tsx'
import { later } from '../../ui/later.ts'
import { LaterPart } from '../../ui/later-part.tsx'
import { IconField } from './icon-field.tsx'
import { MediaField } from './media-field.tsx'
import { OwnSelect } from './own-select.tsx'
import { SurfaceField } from './surface-field.tsx'
import { TableControl } from './table-control.tsx'
import { useTyped } from './use-typed.ts'

/** The field that finds pages and files by name. */
export const linkField = later(() => import('./link-field.tsx'))

const LineBox = styled.input`
  ${fieldBox}
`
const Area = styled.textarea`
  ${fieldBox}
  height: auto;
  padding: 5px 9px;
  resize: vertical;
`
const Choice = styled.select`
  ${fieldBox}
  &[data-outside] {
    border-color: var(--ochre);
    color: var(--ochre);
  }
`
const Segments = styled.div`
  display: flex;
  border: 1px solid var(--control);
  border-radius: 4px;
  overflow: hidden;
  button {
    flex: 1;
    height: 26px;
    padding: 0 4px;
    border: 0;
    border-left: 1px solid var(--line);
    background: var(--paper);
  }
  button:first-child {
    border-left: 0;
  }
  button[aria-pressed='true'] {
    background: var(--accentTint);
    color: var(--accent);
    font-weight: 650;
  }
  button:focus-visible {
    outline-offset: -2px;
  }
`
const Words = styled.p`
  color: var(--quiet);
  font-size: 12px;
`

interface FieldControlProps {
  readonly label: string
  readonly field: FieldSchema
  /** The value in force, own or not. */
  readonly value: Json | undefined
  /** What is asked for where there are no words. */
  readonly prompt?: string | undefined
  /** Takes the value away when undefined. `isTyped` for one letter of many. Gives false for what the page can't take. */
  readonly onChange: (value: Json | undefined, isTyped?: boolean) => boolean | void
}

/** The control for one field, by what its schema says it is. */
export function FieldControl({ label, field, value, prompt, onChange }: FieldControlProps) {
  switch (field.control) {
    case 'line':
    case 'anchor':
      return (
        <LineControl
          label={label}
          value={typeof value === 'string' ? value : ''}
          prompt={prompt}
          isLong={field.isLong === true}
          onType={(typed) => onChange(typed === '' && field.control === 'anchor' ? undefined : typed, true)}
        />
      )
    case 'formatted-line': {
      const line = (value ?? '') as unknown as Line
      return (
        <LineControl
          label={label}
          value={lineWords(line)}
          prompt={prompt}
          isLong={false}
          onType={(typed) => onChange(withLineWords(line, typed) as unknown as Json, true)}
        />
      )
    }
    case 'words':
    case 'list':
      return <Words>Edited on the page: press Enter on the block.</Words>
    case 'table':
      return <TableControl value={value} onChange={onChange} />
    case 'icon':
      return <IconField label={label} value={choiceOf(value)} onChange={onChange} />
    case 'date':
      return (
        <LineBox
          type="date"
          aria-label={label}
          value={choiceOf(value)}
          onChange={(event) => onChange(event.target.value === '' ? undefined : event.target.value)}
        />
      )
    case 'count':
    case 'percent':
      return (
        <LineControl
          label={label}
          value={choiceOf(value)}
          isLong={false}
          onType={(typed) => typed.trim() !== '' && onChange(Number(typed), true)}
        />
      )
    case 'toggle':
      return (
        <SegmentControl
          label={label}
          value={value === true ? 'yes' : 'no'}
          options={{ yes: 'Yes', no: 'No' }}
          onChange={(next) => onChange(next === 'yes')}
        />
      )
    case 'level':
      return (
        <SegmentControl
          label={label}
          value={choiceOf(value)}
          options={LEVELS}
          onChange={(next) => onChange(Number(next))}
        />
      )
    case 'surface':
      return (
        <SurfaceField
          label={label}
          field={field}
          value={typeof value === 'string' ? value : ''}
          onChange={(next) => onChange(next === '' ? undefined : next)}
        />
      )
    case 'choice':
    case 'step': {
      const options = optionsOf(field)
      const isShort = Object.keys(options).length <= 3 && Object.values(options).join('').length <= 18
      const shared = { label, value: choiceOf(value), options, onChange }
      return isShort ? <SegmentControl {...shared} /> : <OwnSelect as={Choice} field={field} {...shared} />
    }
    case 'link':
      return (
        <LaterPart code={linkField}>
          {({ LinkField }) => (
            <LinkField
              label={label}
              value={value as unknown as Link | undefined}
              onChange={(link, isTyped) => void onChange(link, isTyped)}
            />
          )}
        </LaterPart>
      )
    case 'media':
      return <MediaField label={label} value={value as JsonObject | undefined} onChange={onChange} hasFocus />
  }
}

const LEVELS = Object.fromEntries([1, 2, 3, 4, 5, 6].map((level) => [String(level), String(level)]))

/** The value of a choice as its option is called. */
export function choiceOf(value: Json | undefined): string {
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean'
    ? String(value)
    : ''
}

/** The words for the values that a choice or a step can have. */
export function optionsOf(field: FieldSchema): Readonly<Record<string, string>> {
  if (field.control === 'count') return numbersOf(field)
  return field.words ?? (field.scale ? STEP_WORDS[field.scale] : { true: 'Yes', false: 'No' })
}

/** More numbers than anybody looks through in a list. */
const MOST_NUMBERS = 200

function numbersOf({ minimum, maximum, multipleOf = 1 }: FieldSchema): Readonly<Record<string, string>> {
  const [from, to, by] = [minimum, maximum, multipleOf] as [number, number, number]
  const count = Math.min(MOST_NUMBERS, Math.floor((to - from) / by) + 1)
  const numbers = Array.from({ length: count }, (_one, i) => String(from + i * by))
  return { ...Object.fromEntries(numbers.map((one) => [one, one])), '': 'Auto' }
}

interface LineControlProps {
  readonly label: string
  readonly value: string
  readonly isLong: boolean
  readonly prompt?: string | undefined
  readonly onType: (value: string) => boolean | void
}

function LineControl({ label, value, isLong, prompt, onType }: LineControlProps) {
  const typing = useTyped(value, onType)
  const field = { 'aria-label': label, placeholder: prompt, ...typing }
  return isLong ? <Area rows={3} {...field} /> : <LineBox {...field} />
}

interface OptionsProps {
  readonly label: string
  readonly value: string
  readonly options: Readonly<Record<string, string>>
  readonly onChange: (value: string) => void
}

export function SegmentControl({ label, value, options, onChange }: OptionsProps) {
  return (
    <Segments role="group" aria-label={label}>
      {Object.entries(options).map(([option, words]) => (
        <button key={option} type="button" aria-pressed={option === value} onClick={() => onChange(option)}>
          {words}
        </button>
      ))}
    </Segments>
  )
}
