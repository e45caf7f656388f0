import { Copy, GripVertical, Plus, Trash2 } from 'lucide'
import { useState } from 'react'
import { Button as AriaButton, GridList, GridListItem, useDragAndDrop } from 'react-aria-components'
import styled from 'styled-components'
import {
  describeNode,
  duplicateEdit,
  findPlace,
  getKind,
  getNode,
  newNode,
  nodeLabel,
  type Edit,
  type NodeId,
  type PageNode,
} from '@gullyline/core'
import { Button, IconButton } from '../../ui/controls.tsx'
import { LaterTypedDialog } from '../../ui/later-part.tsx'
import { later } from '../../ui/later.ts'
import { usePage, useStore } from '../session/editor-store.ts'
import { newId } from '../session/new-id.ts'
import { KindIcon } from '../chrome/kind-icon.tsx'
import { useSiteView } from '../session/site-view.ts'
import { Group, GroupTitle } from './group.tsx'
import { MAIN_SETTING } from './main-setting.ts'
import { Icon } from '../../ui/icon.tsx'

const List = styled(GridList)`
  display: grid;
  border: 1px solid var(--line);
  border-radius: 5px;
  overflow: hidden;
  .react-aria-DropIndicator[data-drop-target] {
    outline: 1.5px solid var(--accentBright);
  }
`
const Row = styled(GridListItem)`
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 34px;
  padding: 0 4px 0 2px;
  border-top: 1px solid var(--line);
  cursor: default;
  &:first-child {
    border-top: 0;
  }
  &[data-hovered] {
    background: var(--panel);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--accentBright);
    outline-offset: -2px;
  }
  &[data-dragging] {
    opacity: 0.5;
  }
  span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  img {
    width: 30px;
    height: 22px;
    border-radius: 2px;
    object-fit: cover;
  }
`
const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`
const picturesDialog = later(() => import('../../media/pictures-dialog.tsx'))

const Handle = styled(AriaButton)`
  display: grid;
  place-items: center;
  width: 20px;
  height: 26px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--quiet);
  cursor: grab;
`

/** The items of a block that repeats them: added, duplicated, put in order by hand or by keyboard, and removed. */
export function Items({ id, kind }: { id: NodeId; kind: string }) {
  const store = useStore()
  const { mayChange, registry } = store
  const page = usePage((page) => page)
  const definition = getKind(registry, kind)
  const slot = Object.keys(getKind(registry, getNode(page, id).kind).slots)[0]!
  const ids = getNode(page, id).slots[slot] ?? []
  const word = definition.title.toLowerCase()
  const { site } = useSiteView()
  const isOfPictures = definition.content.properties.media !== undefined
  const [isChoosing, setChoosing] = useState(false)
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': nodeLabel(page, String(key), registry) })),
    onReorder: ({ keys, target }) => {
      const [moved] = [...keys].map(String)
      if (moved === undefined || moved === target.key) return
      const others = ids.filter((one) => one !== moved)
      const at = others.indexOf(String(target.key)) + (target.dropPosition === 'after' ? 1 : 0)
      if (at === ids.indexOf(moved)) return
      store.do(`Moved ${describeNode(page, moved, registry)}`, [
        { edit: 'move', nodeId: moved, toParentId: id, toSlot: slot, toIndex: at },
      ])
    },
  })
  const add = (): void => {
    const rootId = newId()
    const edit: Edit = {
      edit: 'insert',
      parentId: id,
      slot,
      index: ids.length,
      rootId,
      nodes: { [rootId]: newNode(definition) },
    }
    store.do(`Added ${word}`, [edit], { select: rootId })
  }
  const addPictures = (pictures: readonly string[]): void => {
    setChoosing(false)
    const edits = pictures.map((picture, i): Edit => {
      const rootId = newId()
      const node = newNode(definition, { content: { media: { id: picture } } })
      return { edit: 'insert', parentId: id, slot, index: ids.length + i, rootId, nodes: { [rootId]: node } }
    })
    store.do(pictures.length === 1 ? 'Added a picture' : `Added ${pictures.length} pictures`, edits)
  }
  const remove = (one: NodeId): void => {
    store.do(`Deleted ${describeNode(page, one, registry)}`, [{ edit: 'remove', nodeId: one }])
  }
  const duplicate = (one: NodeId): void => {
    const edit = findPlace(page, one) && duplicateEdit(page, one, newId)
    if (edit) store.do(`Duplicated ${describeNode(page, one, registry)}`, [edit])
  }
  return (
    <Group aria-label="Items">
      <GroupTitle>{ids.length === 1 ? `1 ${word}` : `${ids.length} ${definition.plural}`}</GroupTitle>
      {ids.length > 0 && (
        <List
          aria-label={`The ${definition.plural} of this block`}
          selectionMode="none"
          onAction={(key) => store.dispatch({ type: 'select', id: String(key) })}
          {...(mayChange ? { dragAndDropHooks } : {})}
        >
          {ids.map((one) => {
            const node = getNode(page, one)
            const label = nodeLabel(page, one, registry)
            return (
              <Row key={one} id={one} textValue={label}>
                {mayChange && (
                  <Handle slot="drag" aria-label={`Drag ${label}`}>
                    <Icon of={GripVertical} size={14} strokeWidth={1.75} />
                  </Handle>
                )}
                <ItemPicture node={node} />
                <span>{label}</span>
                {mayChange && (
                  <>
                    <IconButton label={`Duplicate ${label}`} onPress={() => duplicate(one)}>
                      <Icon of={Copy} size={14} strokeWidth={1.75} />
                    </IconButton>
                    <IconButton label={`Delete ${label}`} onPress={() => remove(one)}>
                      <Icon of={Trash2} size={14} strokeWidth={1.75} />
                    </IconButton>
                  </>
                )}
              </Row>
            )
          })}
        </List>
      )}
      {mayChange && (
        <Acts>
          <Button onPress={add}>
            <Icon of={Plus} size={15} strokeWidth={2} /> Add {/^[aeiou]/.test(word) ? 'an' : 'a'} {word}
          </Button>
          {isOfPictures && (
            <Button {...MAIN_SETTING} onPress={() => setChoosing(true)}>
              Add several…
            </Button>
          )}
        </Acts>
      )}
      {isChoosing && (
        <LaterTypedDialog code={picturesDialog} onClose={() => setChoosing(false)}>
          {({ PicturesDialog }) => (
            <PicturesDialog
              pictures={site.pictures}
              onChoose={addPictures}
              onClose={() => setChoosing(false)}
            />
          )}
        </LaterTypedDialog>
      )}
    </Group>
  )
}

function ItemPicture({ node }: { node: PageNode }) {
  const { site } = useSiteView()
  const media = node.content.media as { id?: string } | undefined
  const picture = media?.id === undefined ? undefined : site.pictures[media.id]
  if (!picture) return <KindIcon kind={node.kind} size={15} />
  return <img src={picture.sources[0]?.webp ?? picture.fallback} alt="" />
}
