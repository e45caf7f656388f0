import { Columns3, Link2, Unlink2 } from 'lucide'
import {
  Fragment,
  useCallback,
  useLayoutEffect,
  useRef,
  useState,
  type CSSProperties,
  type ReactNode,
} from 'react'
import {
  cascadeValue,
  getKind,
  sizesSet,
  sizeWord,
  type FieldSchema,
  type Json,
  type NodeId,
  type PageNode,
  type SiteSize,
  type SizeKey,
} from '@gullyline/core'
import { useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { choiceOf, optionsOf } from './field-control.tsx'
import { unsetWords } from './origin-words.ts'
import { OwnSelect, ownWords } from './own-select.tsx'
import { Rows, Sizes, Row, EachSize, CellHead, One, PerSize, LinkSides, Cell } from './size-table-style.ts'
import { Icon } from '../../ui/icon.tsx'

/** With more sizes than so many, each value has the name of its own above it. */
const MOST_IN_HEAD = 3
const PUT_BACK = '(reset)'

interface SizeTableProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly current: SizeKey
  readonly keys: readonly string[]
}

/**
 * All values that may differ by size. A value that is the same at every size is one control; one that differs is one for
 * each size, narrow to wide, and any can be set per size.
 */
export function SizeTable({ id, node, current, keys }: SizeTableProps) {
  const { registry } = useStore()
  const columns = useColumns()
  const [opened, setOpened] = useState<{ readonly id: NodeId; readonly keys: ReadonlySet<string> }>({
    id,
    keys: new Set(),
  })
  const isOpened = (key: string): boolean => opened.id === id && opened.keys.has(key)
  const schema = getKind(registry, node.kind).arrangement
  const rowOf = (key: string) => ({ key, field: schema.properties[key]!, differs: differsBySize(node, key) })
  const rows = keys.map(rowOf)
  const row = ({ key, field, differs }: ReturnType<typeof rowOf>) => (
    <SizeRow
      key={key}
      id={id}
      node={node}
      name={key}
      field={field}
      current={current}
      differs={differs}
      isOpened={differs || isOpened(key)}
      onOpen={(isOpen) => {
        const before = opened.id === id ? opened.keys : []
        const next = new Set(before)
        if (isOpen) next.add(key)
        else next.delete(key)
        setOpened({ id, keys: next })
      }}
    />
  )
  const isSplit = rows.some(({ key, differs }) => differs || isOpened(key))
  return (
    <Rows>
      {isSplit && columns.length <= MOST_IN_HEAD && (
        <Sizes aria-hidden="true">
          <span style={across(columns)}>
            {columns.map(({ key: size, name }) => (
              <b key={size} data-current={size === current ? '' : undefined}>
                {name}
              </b>
            ))}
          </span>
        </Sizes>
      )}
      {rows
        .filter(({ field }) => !keys.includes(field.inherits?.key ?? ''))
        .map(({ key }) => {
          const sides = rows.filter(({ field }) => field.inherits?.key === key)
          return (
            <Fragment key={key}>
              {row(rowOf(key))}
              {sides.length > 0 && (
                <Sides key={id} id={id} node={node} names={sides.map((side) => side.key)}>
                  {sides.map(row)}
                </Sides>
              )}
            </Fragment>
          )
        })}
    </Rows>
  )
}

interface SidesProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly names: readonly string[]
  readonly children: ReactNode
}

/** Values that inherit the one above them, such as the padding of each side: linked, until they are set each for itself. */
function Sides({ id, node, names, children }: SidesProps) {
  const store = useStore()
  const own = sizesSet(node).flatMap((size) =>
    names
      .filter((name) => node.sizes[size]?.[name] !== undefined)
      .map((name) => ({ edit: 'set', nodeId: id, at: ['sizes', size, name] }) as const),
  )
  const [isOpened, setOpened] = useState(false)
  const isUnlinked = isOpened || own.length > 0
  const link = (): void => {
    setOpened(false)
    if (own.length > 0) store.do('Made all sides the same', own)
  }
  return (
    <>
      {isUnlinked && children}
      {store.mayChange && (
        <LinkSides
          type="button"
          aria-expanded={isUnlinked}
          onClick={() => (isUnlinked ? link() : setOpened(true))}
        >
          {isUnlinked ? <Icon of={Link2} {...ICON} /> : <Icon of={Unlink2} {...ICON} />}
          {isUnlinked ? 'Link sides' : 'Set each side'}
        </LinkSides>
      )}
    </>
  )
}

const ICON = { size: 13, strokeWidth: 1.75, 'aria-hidden': true } as const

function differsBySize(node: PageNode, key: string): boolean {
  return sizesSet(node).some((size) => size !== 'base' && node.sizes[size]?.[key] !== undefined)
}

/** From narrow to wide, as the ruler runs. */
function useColumns(): readonly SiteSize[] {
  return useSiteView().site.look.sizes.toReversed()
}

/** Of more than fit beside each other, half stand below. */
function across({ length }: readonly SiteSize[]): CSSProperties {
  return { '--across': length <= MOST_IN_HEAD ? length : Math.ceil(length / 2) } as CSSProperties
}

interface SizeRowProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly name: string
  readonly field: FieldSchema
  readonly current: SizeKey
  readonly differs: boolean
  readonly isOpened: boolean
  readonly onOpen: (isOpen: boolean) => void
}

function SizeRow({ id, node, name, field, current, differs, isOpened, onOpen }: SizeRowProps) {
  const store = useStore()
  const columns = useColumns()
  const cell = { id, node, name, field }
  /** Takes away what narrower sizes have of their own. */
  const join = (): void => {
    onOpen(false)
    if (!differs) return
    const own = sizesSet(node).filter((size) => size !== 'base' && node.sizes[size]?.[name] !== undefined)
    store.do(
      `Made ${field.title.toLowerCase()} the same at all sizes`,
      own.map((size) => ({ edit: 'set', nodeId: id, at: ['sizes', size, name] })),
    )
  }
  return (
    <Row data-split={isOpened ? '' : undefined}>
      <span>{field.title}</span>
      {isOpened ? (
        <EachSize role="group" aria-label={`${field.title} at each size`} style={across(columns)}>
          {columns.map(({ key: size, name: word }) => (
            <span key={size} data-current={size === current ? '' : undefined}>
              {columns.length > MOST_IN_HEAD && <CellHead aria-hidden="true">{word}</CellHead>}
              <SizeCell {...cell} size={size} label={`${field.title} at ${word}`} />
            </span>
          ))}
        </EachSize>
      ) : (
        <One>
          <SizeCell {...cell} size="base" label={field.title} />
        </One>
      )}
      <PerSize
        type="button"
        aria-expanded={isOpened}
        aria-label={isOpened ? `${field.title}: same at all sizes` : `${field.title}: set per size`}
        title={isOpened ? 'Same at all sizes' : 'Set per size'}
        onClick={() => (isOpened ? join() : onOpen(true))}
      >
        <Icon of={Columns3} size={14} strokeWidth={1.75} aria-hidden="true" />
      </PerSize>
    </Row>
  )
}

interface SizeCellProps {
  readonly id: NodeId
  readonly node: PageNode
  readonly size: SizeKey
  readonly name: string
  readonly field: FieldSchema
  readonly label: string
}

function SizeCell({ id, node, size, name, field, label: cellLabel }: SizeCellProps) {
  const store = useStore()
  const { look } = useSiteView().site
  const { value: cascaded, origin } = cascadeValue(
    node,
    getKind(store.registry, node.kind).arrangement,
    size,
    name,
  )
  const isDerived = field.isDerived === true && origin.from === 'wider'
  const value = isDerived ? '' : cascaded
  const own = origin.from === 'own'
  const title = field.title.toLowerCase()
  const options = optionsOf(field)
  const shown = options[choiceOf(value)] ?? ownWords(choiceOf(value))
  const from =
    origin.from === 'own'
      ? `${shown}, changed`
      : isDerived
        ? 'follows the wider size'
        : origin.from === 'wider'
          ? `${shown}, as ${sizeWord(origin.size, look)}`
          : unsetWords(node, field, size, store.registry)
  const change = (chosen: string): void => {
    const at = ['sizes', size, name] as const
    const isReset = chosen === PUT_BACK || chosen === ''
    const label = isReset ? `Reset ${title}` : `Changed ${title} at ${sizeWord(size, look)}`
    const next = isReset ? {} : { value: parse(field, chosen) }
    store.do(label, [{ edit: 'set', nodeId: id, at, ...next }])
  }
  return (
    <OwnSelect
      as={Cell}
      label={cellLabel}
      field={field}
      data-own={own ? '' : undefined}
      value={choiceOf(value)}
      options={options}
      title={`${field.title}: ${from}`}
      onChange={useSteady(change)}
    >
      {own && <option value={PUT_BACK}>{size === 'base' ? 'Reset' : 'Inherited'}</option>}
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
  if (field.control === 'count') return Number(chosen)
  return field.control === 'toggle' ? chosen === 'true' : chosen
}
