import styled from 'styled-components'
import {
  findNode,
  getKind,
  promptAt,
  unsetOrigin,
  type Edit,
  type FieldSchema,
  type Json,
  type NodeId,
  type NodePart,
  type readValue,
} from '@gullyline/core'
import { later } from '../../ui/later.ts'
import { LaterPart } from '../../ui/later-part.tsx'
import { useNode, usePage, useStore, type EditorStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { choiceOf, FieldControl } from './field-control.tsx'
import { surfaceAroundWords, themeFor, unsetWords } from './origin-words.ts'

/** Its pictures are drawn by what no page needs to be opened. */
export const variantField = later(() => import('./variant-field.tsx'))

const Row = styled.div`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) 16px;
  gap: 8px;
  align-items: center;
  &[data-wide] {
    grid-template-columns: minmax(0, 1fr) 16px;
  }
`
const Dot = styled.button`
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
  /* Half a dot: not set here, and not the kind's either. */
  &[data-inherits]::before {
    background: linear-gradient(90deg, var(--control) 50%, transparent 50%);
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
  const set = (next: typeof value, isTyped = false): boolean =>
    store.do(
      next === undefined ? `Reset ${title}` : `Changed ${title}`,
      [
        { edit: 'set', nodeId: id, at: [part, key], ...(next === undefined ? {} : { value: next }) },
        ...(field.control === 'media' ? forAnotherPicture(store, id, value, next) : []),
      ],
      isTyped ? { joinKey: `${id}/${part}.${key}` } : {},
    )
  const node = useNode(id)
  const prompt =
    node && part === 'content' ? promptAt(getKind(store.registry, node.kind), node, key) : undefined
  const control = (
    <FieldControl
      label={field.title}
      field={field}
      value={value ?? field.default}
      prompt={prompt}
      onChange={set}
    />
  )
  const putBack = (): void => void set(undefined)
  const origin = isRequired ? (
    <span />
  ) : field.control === 'surface' ? (
    <SurfaceOrigin id={id} field={field} surface={choiceOf(value)} isSet={isSet} onPutBack={putBack} />
  ) : (
    <FieldOrigin id={id} field={field} isSet={isSet} onPutBack={putBack} />
  )
  if (part === 'look' && (key === 'variant' || key === 'display') && field.control === 'choice') {
    const variant = choiceOf(value ?? field.default)
    return (
      <Row>
        <span>{field.title}</span>
        <span />
        {origin}
        <LaterPart key={id} code={variantField}>
          {({ VariantField }) => (
            <VariantField id={id} fieldKey={key} field={field} value={variant} onChange={set} />
          )}
        </LaterPart>
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

/** Another picture needs another alternative text: the one before described the one before. */
function forAnotherPicture(
  store: EditorStore,
  id: NodeId,
  before: Json | undefined,
  next: Json | undefined,
): readonly Edit[] {
  const idOf = (value: Json | undefined) => (value as { id?: string } | undefined)?.id
  const node = findNode(store.state.page, id)
  if (!node || idOf(before) === undefined || idOf(before) === idOf(next)) return []
  return (['alt', 'decoration'] as const).flatMap((key): Edit[] =>
    node.content[key] === undefined ? [] : [{ edit: 'set', nodeId: id, at: ['content', key] }],
  )
}

interface OriginProps {
  readonly id: NodeId
  readonly field: FieldSchema
  readonly isSet: boolean
  readonly onPutBack: () => void
}

/** Where a value comes from, as a dot, and the way to put it back. */
function FieldOrigin({ id, field, isSet, onPutBack }: OriginProps) {
  const { registry } = useStore()
  const node = useNode(id)
  const words = node && !isSet ? unsetWords(node, field, 'base', registry) : ''
  const isInherited = node !== undefined && unsetOrigin(node, field, 'base', registry).from === 'field'
  return (
    <OriginDot field={field} isSet={isSet} words={words} onPutBack={onPutBack} isInherited={isInherited} />
  )
}

/** A surface stands on those around it, and looks as the page's theme has it. */
function SurfaceOrigin({ id, field, surface, isSet, onPutBack }: OriginProps & { readonly surface: string }) {
  const { registry } = useStore()
  const view = useSiteView()
  const around = usePage((page) => (isSet ? '' : surfaceAroundWords(page, id, view, registry)))
  const theme = isSet ? themeFor(surface, view) : undefined
  const words = theme === undefined ? around : `in the colours of the theme ${theme}`
  return <OriginDot field={field} isSet={isSet} words={words} onPutBack={onPutBack} isInherited />
}

interface OriginDotProps extends Omit<OriginProps, 'id'> {
  /** What else there is to say of where the value comes from. */
  readonly words: string
  readonly isInherited?: boolean
}

/** Where a value comes from, as a dot: one that is set is reset by pressing it. */
export function OriginDot({ field, isSet, words, onPutBack, isInherited = false }: OriginDotProps) {
  const set = words === '' ? 'changed' : `changed, ${words}`
  const said = isSet ? set : words
  return (
    <Dot
      type="button"
      data-own={isSet ? '' : undefined}
      data-inherits={!isSet && isInherited ? '' : undefined}
      disabled={!isSet}
      aria-label={`${field.title}: ${said}${isSet ? '. Reset' : ''}`}
      title={isSet ? `${capital(said)}. Press to reset.` : capital(said)}
      onClick={onPutBack}
    />
  )
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}
