import { ChevronDown, ChevronUp, Copy, PanelRightClose, Trash2, Type, type IconNode } from 'lucide'
import { memo, useEffect, useMemo, useReducer, useState } from 'react'
import { flushSync } from 'react-dom'
import styled from 'styled-components'
import { findNode, getKind, linkedPart, partAt, type NodeId, type Page, type SizeKey } from '@gullyline/core'
import { later } from '../../ui/later.ts'
import { useValue } from '../../ui/value.ts'
import { LaterPart } from '../../ui/later-part.tsx'
import { TYPING_PAUSE_MS, useLater } from '../../ui/use-later.ts'
import { IconButton } from '../../ui/controls.tsx'
import { keysOf, type CommandId } from '../commands/command-list.ts'
import { useRunCommand } from '../commands/commands.ts'
import { selectedIds } from '../session/editor-state.ts'
import {
  useEditor,
  useEditorAfterPaint,
  useNode,
  usePage,
  useStore,
  type EditorStore,
} from '../session/editor-store.ts'
import { focusCanvas } from '../canvas/focus-canvas.ts'
import { SelectionMenuButton } from '../commands/selection-menu.tsx'
import { KindIcon } from '../chrome/kind-icon.tsx'
import { NodeProblems } from '../problems/node-problems.tsx'
import { isOfComponent, sortOf } from '../session/node-name.ts'
import { reachWords } from '../session/reach.ts'
import { useSiteView } from '../session/site-view.ts'
import { ColumnsControl } from './columns-control.tsx'
import { linkField } from './field-control.tsx'
import { variantField } from './setting.tsx'
import { Quiet } from './group.tsx'
import { PageSettings } from './page-settings.tsx'
import { NodePath } from './node-path.tsx'
import { repeatedKind } from './repeated-kind.ts'
import { Settings } from './settings.tsx'
import { Icon } from '../../ui/icon.tsx'

/** What can be done with an instance of a shared section. */
const instanceActs = later(() => import('./instance-acts.tsx'))
const instanceSlots = later(() => import('./instance-slots.tsx'))
/** Which values of a block inside a part are fields. */
const declaredFields = later(() => import('./declared-fields.tsx'))
/** The list of a block's items. */
const items = later(() => import('./items.tsx'))

const Pane = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-height: 0;
  padding: 12px 14px 24px;
  overflow: auto;
  /* A field that gets the focus is never under the problems at the foot. */
  scroll-padding-bottom: 96px;
  border-left: 1px solid var(--line);
  background: var(--paper);
`
/** Reviewers see what is set, and can change none of it. */
const Own = styled.fieldset`
  display: contents;
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
const Acts = styled.div`
  display: flex;
  gap: 2px;
  margin-left: -6px;
`
export interface DetailsProps {
  /** The size that the ruler's width shows. */
  readonly size: SizeKey
  readonly onFold: () => void
}

/** Everything that can be set on what is selected. What is set stands first; the rest is found by typing its name. */
export function Details({ size, onFold }: DetailsProps) {
  useEffect(() => {
    // Where they can't be fetched now, they are once they are needed.
    for (const code of NEXT) code.load().catch(() => undefined)
  }, [])
  // For the next block, too: who sets the look of one mostly sets that of others.
  const [isLookOpen, setLookOpen] = useState(false)
  const store = useStore()
  const { registry } = store
  const selection = useEditorAfterPaint((state) => state.selection)
  const [, catchUp] = useReducer((count: number) => count + 1, 0)
  const root = usePage((page) => page.root)
  const isTyping = useEditor((state) => state.typing !== undefined)
  const isInPart = useEditorAfterPaint((state) => state.around !== '')
  const id = selection ?? root
  const isPage = selection === undefined
  const now = useNode(id)
  // While words are typed on the page itself, the page comes first. A field of this pane that is typed in meanwhile must
  // not lag: what came late would replace letters typed since.
  const [hasFocus, setFocus] = useState(false)
  const shown = useMemo(() => ({ id, node: now }), [id, now])
  const later = useLater(shown, TYPING_PAUSE_MS)
  const { node } = isTyping && !hasFocus && later.id === id ? later : shown
  const repeated = usePage((page) => (findNode(page, id) ? repeatedKind(page, id, registry) : undefined))
  const isShared = node !== undefined && getKind(registry, node.kind).isShared === true
  // Whoever is quicker than the next frame sets what is selected, and not what was.
  const beReady = (): void => {
    if (selection !== store.state.selection) flushSync(catchUp)
  }
  return (
    <Pane
      aria-label="Details"
      data-shows={selection ?? ''}
      onFocusCapture={() => {
        beReady()
        setFocus(true)
      }}
      onBlurCapture={({ currentTarget, relatedTarget }) => {
        if (!currentTarget.contains(relatedTarget)) setFocus(false)
      }}
      onPointerDownCapture={beReady}
      onKeyDownCapture={(event) => {
        // Fields mean by Escape what was there before (see `useTyped`), and a dialog over the pane, whose keys React lets through here, closes.
        const target = event.target as Element
        const isLeft = event.currentTarget.contains(target) && target.matches('button, select, [type="date"]')
        if (event.key === 'Escape' && isLeft) focusCanvas()
      }}
    >
      {node && (
        <>
          <NodeHead id={id} kind={node.kind} isPage={isPage} onFold={onFold} />
          <Own disabled={!store.mayChange}>
            {isPage && <PageSettings />}
            {repeated !== undefined && !isShared && (
              <LaterPart key={id} code={items}>
                {({ Items }) => <Items id={id} kind={repeated} />}
              </LaterPart>
            )}
            {isShared && <ColumnsControl key={id} id={id} size={size} />}
            {getKind(registry, node.kind).linksTo && (
              <LaterPart key={id} code={instanceActs}>
                {({ InstanceActs }) => <InstanceActs id={id} />}
              </LaterPart>
            )}
            {getKind(registry, node.kind).fillsSlot && (
              <LaterPart key={`${id} slot`} code={instanceSlots}>
                {({ SlotNote }) => <SlotNote id={id} />}
              </LaterPart>
            )}
            <Settings id={id} node={node} size={size} isLookOpen={isLookOpen} onLookOpen={setLookOpen} />
            {isInPart && (
              <LaterPart key={`${id} fields`} code={declaredFields}>
                {({ DeclaredFields }) => <DeclaredFields key={id} id={id} />}
              </LaterPart>
            )}
          </Own>
          <NodeProblems id={id} />
        </>
      )}
    </Pane>
  )
}

/** A double rule at the edge, as for everything that stands in more than one place. */
const Reach = styled.p`
  margin: 0;
  padding: 3px 0 3px 10px;
  border-left: 5px double var(--control);
  color: var(--strong);
  font-size: 12px;
`
/** What comes as soon as the pane is there, since it is needed first. */
const NEXT = [items, linkField, variantField]

interface NodeHeadProps {
  readonly id: NodeId
  readonly kind: string
  readonly isPage: boolean
  readonly onFold: () => void
}

function NodeHead({ id, kind: name, isPage, onFold }: NodeHeadProps) {
  const store = useStore()
  const { mayChange, registry } = store
  const count = useEditor((state) => selectedIds(state).length)
  const title = usePage((page) => (findNode(page, id) ? sortOf(store, page, id) : ''))
  const isComponent = usePage((page) => isOfComponent(page, partOfInstance(store, page, id)))
  const kind = getKind(registry, name)
  return (
    <Head>
      <NodePath id={id} />
      <Title>
        <KindIcon kind={name} size={17} />
        {title}
        <FoldButton onFold={onFold} />
      </Title>
      {count > 1 && (
        <Quiet role="note">
          {count} blocks are selected. The commands below change all of them; the settings change this one.
        </Quiet>
      )}
      <Quiet>
        {isPage
          ? `Select a block on the page or in the spine to ${mayChange ? 'change it' : 'see its settings'}.`
          : isComponent
            ? 'Fill in its fields here, or by double-clicking them on the page'
            : kind.about}
      </Quiet>
      <SharedReach id={id} />
      {!isPage && mayChange && kind.group !== 'root' && !kind.fillsSlot && (
        <NodeActs canType={typable(kind)} />
      )}
    </Head>
  )
}

function partOfInstance({ registry }: EditorStore, page: Page, id: NodeId): string | undefined {
  const node = findNode(page, id)
  return node && linkedPart(node, registry)
}

/** What a change here changes besides this page. */
function SharedReach({ id }: { id: NodeId }) {
  const store = useStore()
  const { linked } = store
  const part = usePage((page) => {
    // An instance says where what it shows stands; it is a part of the page itself.
    return findNode(page, id) ? (partOfInstance(store, page, id) ?? partAt(page, id)) : 'page'
  })
  const view = useSiteView()
  const parts = useValue(linked)
  if (part === 'page') return null
  return <Reach role="note">{reachWords(part, { ...view, linked: parts })}</Reach>
}

const FoldButton = memo(function FoldButton({ onFold }: { onFold: () => void }) {
  return (
    <IconButton label="Hide details" onPress={onFold} style={{ marginLeft: 'auto' }}>
      <Icon of={PanelRightClose} size={16} strokeWidth={1.75} />
    </IconButton>
  )
})

const ACTS: readonly { readonly id: CommandId; readonly sign: IconNode }[] = [
  { id: 'move-up', sign: ChevronUp },
  { id: 'move-down', sign: ChevronDown },
  { id: 'duplicate', sign: Copy },
  { id: 'delete', sign: Trash2 },
]

/** The same for all blocks, so it is drawn once. */
const NodeActs = memo(function NodeActs({ canType }: { canType: boolean }) {
  const run = useRunCommand()
  const acts = canType ? [{ id: 'type' as const, sign: Type }, ...ACTS] : ACTS
  return (
    <Acts role="group" aria-label="Commands for this block">
      {acts.map(({ id, sign }) => (
        <IconButton key={id} label={keysOf(id).title} keys={keysOf(id).keys} onPress={() => run(id)}>
          <Icon of={sign} size={16} strokeWidth={1.75} />
        </IconButton>
      ))}
      <SelectionMenuButton />
    </Acts>
  )
})

function typable(kind: ReturnType<typeof getKind>): boolean {
  return Object.entries(kind.content.properties).some(
    ([key, field]) =>
      ['words', 'list', 'table'].includes(field.control) ||
      (['line', 'formatted-line'].includes(field.control) && kind.content.required.includes(key)),
  )
}
