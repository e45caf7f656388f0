import { ChevronRight } from 'lucide'
import { useState } from 'react'
import { Button as AriaButton, Disclosure, DisclosurePanel } from 'react-aria-components'
import styled from 'styled-components'
import {
  findPlace,
  getKind,
  getNode,
  partSchema,
  readValue,
  type NodeId,
  type Page,
  type PageNode,
  type Registry,
  type SizeKey,
} from '@gullyline/core'
import { FindBox } from '../../ui/controls.tsx'
import { usePage, useStore } from '../session/editor-store.ts'
import { focusCanvas } from '../canvas/focus-canvas.ts'
import { Group, GroupTitle, Quiet } from './group.tsx'
import { Setting, type SettingEntry } from './setting.tsx'
import { SizeTable } from './size-table.tsx'
import { Icon } from '../../ui/icon.tsx'

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
interface SettingsProps {
  readonly id: NodeId
  readonly node: PageNode
  /** The size that the ruler's width shows. */
  readonly size: SizeKey
  readonly isLookOpen: boolean
  readonly onLookOpen: (isOpen: boolean) => void
}

/** All settings of a block: what it says and where it leads, its background, its layout, then its style. */
export function Settings({ id, node, size, isLookOpen, onLookOpen }: SettingsProps) {
  const { registry } = useStore()
  const kind = getKind(registry, node.kind)
  const [shown, setShown] = useState(() => ({ id, search: '' }))
  // Another block in the same pane: what can stay on the screen does, which is most of what takes time to draw.
  if (shown.id !== id) setShown({ id, search: '' })
  const { search } = shown
  const fields = fieldsOf(kind, node, search)
  const first = fields.filter(
    ({ part, key, field }) => part === 'content' || field.control === 'surface' || isVariant(key),
  )
  const style = fields.filter((one) => !first.includes(one))
  const isInBand = usePage((page) => inBand(page, id, registry))
  const isInGrid = usePage((page) => inGrid(page, id, registry))
  const arranged = Object.entries(kind.arrangement.properties).filter(
    ([, field]) =>
      !field.hidden &&
      (!field.onlyInBand || isInBand) &&
      (!field.onlyInGrid || isInGrid) &&
      matches(field.title, search),
  )
  const isNone = fields.length + arranged.length === 0
  return (
    <>
      {(!isNone || search !== '') && (
        <FindBox
          label="Search settings"
          placeholder="Search settings"
          value={search}
          onChange={(typed) => setShown({ ...shown, search: typed })}
          onLeave={focusCanvas}
        />
      )}
      <Fields title="Content" id={id} fields={first} />
      {arranged.length > 0 && (
        <Group aria-label="Layout">
          <GroupTitle>Layout</GroupTitle>
          <SizeTable id={id} node={node} current={size} keys={arranged.map(([key]) => key)} />
        </Group>
      )}
      <FoldedFields
        title="Style"
        id={id}
        fields={style}
        isOpen={isLookOpen || search !== ''}
        onOpen={onLookOpen}
      />
      {isNone && search !== '' && <Quiet>No setting of this block matches “{search}”.</Quiet>}
    </>
  )
}

/** Whether a block stands in a slot whose blocks are placed on columns and rows. */
function inGrid(page: Page, id: NodeId, registry: Registry): boolean {
  const place = findPlace(page, id)
  if (!place) return false
  return getKind(registry, getNode(page, place.parentId).kind).slots[place.slot]?.isPlaced === true
}

/** Whether a block stands right in a band, where it may be wider than the band's content. */
function inBand(page: Page, id: NodeId, registry: Registry): boolean {
  const place = findPlace(page, id)
  if (!place) return false
  const { kind, content } = getNode(page, place.parentId)
  return getKind(registry, kind).isBand?.(content) ?? false
}

/** What a block is drawn as changes all the rest of it. */
function isVariant(key: string): boolean {
  return key === 'variant' || key === 'display'
}

function keyOf({ part, key }: SettingEntry): string {
  return `${part}.${key}`
}

function fieldsOf(kind: ReturnType<typeof getKind>, node: PageNode, search: string): SettingEntry[] {
  const parts = ['content', 'look'] as const
  return parts.flatMap((part) => {
    const schema = partSchema(kind, part)
    return Object.entries(schema.properties).flatMap(([key, field]): SettingEntry[] => {
      const value = readValue(node, [part, key])
      const isHidden =
        field.hidden === true ||
        (field.unless !== undefined && node[part][field.unless] === true) ||
        kind.hidesField?.(node.content, key) === true
      if (isHidden || !matches(field.title, search)) return []
      return [
        { part, key, field, value, isSet: value !== undefined, isRequired: schema.required.includes(key) },
      ]
    })
  })
}

/** Another block's setting of the same name is shown by the same control, unless that remembers what was begun for one block. */
function settingKey(id: NodeId, entry: SettingEntry): string {
  return entry.field.control === 'link' ? `${id}.${keyOf(entry)}` : keyOf(entry)
}

function matches(title: string, search: string): boolean {
  return title.toLowerCase().includes(search.trim().toLowerCase())
}

function Fields({ title, id, fields }: { title: string; id: NodeId; fields: readonly SettingEntry[] }) {
  if (fields.length === 0) return null
  return (
    <Group aria-label={title}>
      <GroupTitle>{title}</GroupTitle>
      {fields.map((entry) => (
        <Setting key={settingKey(id, entry)} id={id} entry={entry} />
      ))}
    </Group>
  )
}

interface FoldedFieldsProps {
  readonly title: string
  readonly id: NodeId
  readonly fields: readonly SettingEntry[]
  readonly isOpen: boolean
  readonly onOpen: (isOpen: boolean) => void
}

function FoldedFields({ title, id, fields, isOpen, onOpen }: FoldedFieldsProps) {
  if (fields.length === 0) return null
  return (
    <Folded isExpanded={isOpen} onExpandedChange={onOpen}>
      <FoldTitle slot="trigger">
        <Icon of={ChevronRight} size={14} strokeWidth={2} aria-hidden="true" />
        {title}
        <small>{fields.map(({ field }) => field.title.toLowerCase()).join(', ')}</small>
      </FoldTitle>
      <FoldedPanel>
        {isOpen && (
          <Group aria-label={title}>
            {fields.map((entry) => (
              <Setting key={settingKey(id, entry)} id={id} entry={entry} />
            ))}
          </Group>
        )}
      </FoldedPanel>
    </Folded>
  )
}
