import { ChevronDown, ChevronRight, ChevronUp, Copy, PanelRightClose, Trash2, Type } from 'lucide-react'
import { memo, useState } from 'react'
import { Button as AriaButton, Disclosure, DisclosurePanel } from 'react-aria-components'
import styled from 'styled-components'
import {
  frameOf,
  getKind,
  partSchema,
  readValue,
  type FieldSchema,
  type NodeId,
  type NodePart,
  type PageNode,
  type SizeKey,
} from '@gullyline/core'
import { TYPING_PAUSE_MS, useLater } from '../../ui/use-later.ts'
import { FindBox, IconButton } from '../../ui/controls.tsx'
import { keysOf, useRunCommand, type CommandId } from '../commands.ts'
import { selectedIds } from '../editor-state.ts'
import { useEditor, useNode, useStore } from '../editor-store.ts'
import { goHome } from '../use-kept-focus.ts'
import { SelectionMenuButton } from '../selection-menu.tsx'
import { KindIcon } from '../kind-icon.ts'
import { NodeProblems } from '../problems/node-problems.tsx'
import { choiceOf, FieldControl } from './field-control.tsx'
import { VariantField } from './variant-field.tsx'
import { ColumnsControl } from './columns-control.tsx'
import { Group, GroupTitle } from './group.tsx'
import { Items, repeatedKind } from './items.tsx'
import { PageSettings } from './page-settings.tsx'
import { NodePath } from './node-path.tsx'
import { SizeTable } from './size-table.tsx'

const Pane = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-height: 0;
  padding: 12px 14px 24px;
  overflow: auto;
  border-left: 1px solid var(--line);
  background: var(--paper);
`
const Head = styled.div`
  display: grid;
  gap: 4px;
`
const Title = styled.h2`
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 15px;
  small {
    margin-left: auto;
    color: var(--quiet);
    font-size: 12px;
    font-weight: 450;
  }
`
const About = styled.p`
  color: var(--quiet);
  font-size: 12px;
`
const Acts = styled.div`
  display: flex;
  gap: 2px;
  margin-left: -6px;
`
const FieldRow = styled.div`
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) 16px;
  gap: 8px;
  align-items: center;
  &[data-wide] {
    grid-template-columns: minmax(0, 1fr) 16px;
  }
`
const Folded = styled(Disclosure)`
  display: grid;
  gap: 8px;
`
const FoldTitle = styled(AriaButton)`
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  padding: 4px 0;
  border: 0;
  background: none;
  color: var(--plain);
  font-size: 12px;
  text-align: left;
  svg {
    flex: none;
    color: var(--quiet);
  }
  &[aria-expanded='true'] svg {
    rotate: 90deg;
  }
  small {
    overflow: hidden;
    color: var(--quiet);
    font-size: 12px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &[aria-expanded='true'] small {
    display: none;
  }
`
const FoldedPanel = styled(DisclosurePanel)`
  &[hidden] {
    display: none;
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

interface DetailsProps {
  /** The size that the ruler's width shows. */
  readonly size: SizeKey
  readonly onFold: () => void
}

/** Everything that can be set on what is selected. What is set stands first; the rest is found by typing its name. */
export function Details({ size, onFold }: DetailsProps) {
  // For the next block, too: who sets the look of one mostly sets that of others.
  const [isLookOpen, setLookOpen] = useState(false)
  const selection = useEditor((state) => state.selection)
  const root = useEditor((state) => state.page.root)
  const isTyping = useEditor((state) => state.typing !== undefined)
  const id = selection ?? root
  const now = useNode(id)
  // While words are typed on the page itself, the page comes first; a field of this pane must never lag behind its keys.
  const later = useLater(now, TYPING_PAUSE_MS)
  const node = isTyping && later?.kind === now?.kind ? later : now
  return (
    <Pane
      aria-label="Details"
      data-shows={selection ?? ''}
      onKeyDownCapture={(event) => {
        // Fields mean by Escape what was there before, and a dialog over the pane, whose keys React lets through here, closes.
        const target = event.target as Element
        const isLeft = event.currentTarget.contains(target) && target.matches('button, select')
        if (event.key === 'Escape' && isLeft) goHome()
      }}
    >
      {node && (
        <NodeDetails
          key={id}
          id={id}
          node={node}
          size={size}
          isPage={selection === undefined}
          onFold={onFold}
          isLookOpen={isLookOpen}
          onLookOpen={setLookOpen}
        />
      )}
    </Pane>
  )
}

interface NodeDetailsProps extends DetailsProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly isPage: boolean
  readonly isLookOpen: boolean
  readonly onLookOpen: (isOpen: boolean) => void
}

const NodeDetails = memo(function NodeDetails({
  id,
  node,
  size,
  isPage,
  onFold,
  isLookOpen,
  onLookOpen,
}: NodeDetailsProps) {
  const store = useStore()
  const [search, setSearch] = useState('')
  const count = useEditor((state) => selectedIds(state).length)
  const kind = getKind(store.registry, node.kind)
  const repeated = repeatedKind(node, store.registry)
  const fields = fieldsOf(kind, node, search)
  // As it was when the block was selected: a setting that moves away while it is being set is lost to hand and keys.
  const [wasSet] = useState(
    () => new Set(fields.filter((one) => one.isSet).map(({ part, key }) => `${part}.${key}`)),
  )
  const own = fields.filter(({ part, key }) => wasSet.has(`${part}.${key}`))
  const rest = fields.filter(({ part, key }) => !wasSet.has(`${part}.${key}`))
  const arranged = Object.entries(kind.arrangement.properties).filter(
    ([, field]) => !field.hidden && matches(field.title, search),
  )
  return (
    <>
      <Head>
        <NodePath id={id} />
        <Title>
          <KindIcon kind={node.kind} size={17} />
          {kind.title}
          <IconButton label="Fold details away" onPress={onFold} style={{ marginLeft: 'auto' }}>
            <PanelRightClose size={16} strokeWidth={1.75} />
          </IconButton>
        </Title>
        {count > 1 && (
          <About role="note">
            {count} blocks are selected. The acts below are done to all of them; settings are this one’s.
          </About>
        )}
        <About>{isPage ? 'Select a block on the page or in the spine to change it.' : kind.about}</About>
        {!isPage && <NodeActs canType={typable(kind)} />}
      </Head>
      <NodeProblems id={id} />
      {isPage && <PageSettings />}
      {repeated !== undefined && node.kind !== 'columns' && <Items id={id} kind={repeated} />}
      {node.kind === 'columns' && <ColumnsControl id={id} />}
      {(fields.length > 0 || arranged.length > 0 || search !== '') && (
        <FindBox label="Find a setting" placeholder="Find a setting" value={search} onChange={setSearch} />
      )}
      <Fields title="Set here" id={id} fields={own} />
      {arranged.length > 0 && (
        <Group aria-label="At each size">
          <GroupTitle>At each size</GroupTitle>
          <SizeTable id={id} node={node} current={size} keys={arranged.map(([key]) => key)} />
        </Group>
      )}
      <Fields title="Can be set" id={id} fields={rest.filter(({ part }) => part === 'content')} />
      <FoldedFields
        title="Look"
        id={id}
        fields={rest.filter(({ part }) => part === 'look')}
        isOpen={isLookOpen || search !== ''}
        onOpen={onLookOpen}
      />
      {search !== '' && fields.length + arranged.length === 0 && (
        <About>No setting of this block is called “{search}”.</About>
      )}
    </>
  )
})

const ACTS: readonly { readonly id: CommandId; readonly Icon: typeof Copy }[] = [
  { id: 'move-up', Icon: ChevronUp },
  { id: 'move-down', Icon: ChevronDown },
  { id: 'duplicate', Icon: Copy },
  { id: 'delete', Icon: Trash2 },
]

function NodeActs({ canType }: { canType: boolean }) {
  const run = useRunCommand()
  const acts = canType ? [{ id: 'type' as const, Icon: Type }, ...ACTS] : ACTS
  return (
    <Acts role="group" aria-label="Acts on this block">
      {acts.map(({ id, Icon }) => (
        <IconButton key={id} label={keysOf(id).title} keys={keysOf(id).keys} onPress={() => run(id)}>
          <Icon size={16} strokeWidth={1.75} />
        </IconButton>
      ))}
      <SelectionMenuButton />
    </Acts>
  )
}

interface FieldEntry {
  readonly part: Exclude<NodePart, 'sizes'>
  readonly key: string
  readonly field: FieldSchema
  readonly value: ReturnType<typeof readValue>
  readonly isSet: boolean
  readonly isRequired: boolean
}

function fieldsOf(kind: ReturnType<typeof getKind>, node: PageNode, search: string): FieldEntry[] {
  const parts = ['content', 'look'] as const
  return parts.flatMap((part) => {
    const schema = partSchema(kind, part)
    return Object.entries(schema.properties).flatMap(([key, field]): FieldEntry[] => {
      const value = readValue(node, [part, key])
      const isHidden =
        field.hidden === true ||
        (field.unless !== undefined && node[part][field.unless] === true) ||
        (node.kind === 'page' && !frameOf(node.content).fields.some((one) => one.key === key))
      if (isHidden || !matches(field.title, search)) return []
      return [
        { part, key, field, value, isSet: value !== undefined, isRequired: schema.required.includes(key) },
      ]
    })
  })
}

function matches(title: string, search: string): boolean {
  return title.toLowerCase().includes(search.trim().toLowerCase())
}

function typable(kind: ReturnType<typeof getKind>): boolean {
  return Object.entries(kind.content.properties).some(
    ([key, field]) =>
      ['words', 'list', 'table'].includes(field.control) ||
      (field.control === 'line' && kind.content.required.includes(key)),
  )
}

function Fields({ title, id, fields }: { title: string; id: NodeId; fields: readonly FieldEntry[] }) {
  if (fields.length === 0) return null
  return (
    <Group aria-label={title}>
      <GroupTitle>{title}</GroupTitle>
      {fields.map((entry) => (
        <Field key={`${entry.part}.${entry.key}`} id={id} entry={entry} />
      ))}
    </Group>
  )
}

interface FoldedFieldsProps {
  readonly title: string
  readonly id: NodeId
  readonly fields: readonly FieldEntry[]
  readonly isOpen: boolean
  readonly onOpen: (isOpen: boolean) => void
}

function FoldedFields({ title, id, fields, isOpen, onOpen }: FoldedFieldsProps) {
  if (fields.length === 0) return null
  return (
    <Folded isExpanded={isOpen} onExpandedChange={onOpen}>
      <FoldTitle slot="trigger">
        <ChevronRight size={14} strokeWidth={2} aria-hidden="true" />
        {title}
        <small>{fields.map(({ field }) => field.title.toLowerCase()).join(', ')}</small>
      </FoldTitle>
      <FoldedPanel>
        {isOpen && (
          <Group aria-label={title}>
            {fields.map((entry) => (
              <Field key={`${entry.part}.${entry.key}`} id={id} entry={entry} />
            ))}
          </Group>
        )}
      </FoldedPanel>
    </Folded>
  )
}

function Field({
  id,
  entry: { part, key, field, value, isSet, isRequired },
}: {
  id: NodeId
  entry: FieldEntry
}) {
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
      <FieldRow>
        <span>{field.title}</span>
        <span />
        {origin}
        <VariantField id={id} fieldKey={key} field={field} value={variant} onChange={set} />
      </FieldRow>
    )
  }
  if (
    field.control === 'link' ||
    field.control === 'words' ||
    field.control === 'list' ||
    field.control === 'table'
  ) {
    return (
      <FieldRow data-wide="">
        {control}
        {origin}
      </FieldRow>
    )
  }
  return (
    <FieldRow>
      <span>{field.title}</span>
      {control}
      {origin}
    </FieldRow>
  )
}
