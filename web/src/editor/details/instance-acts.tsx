import styled from 'styled-components'
import { linkedPart, type NodeId } from '@gullyline/core'
import { useParts } from '../../api/hooks.ts'
import { Button } from '../../ui/controls.tsx'
import { Picker } from '../../ui/picker.tsx'
import { openInstance } from '../commands/select-acts.ts'
import { keysOf } from '../commands/command-list.ts'
import { replaceBy } from '../commands/instance-acts.ts'
import { makeOwnCopy } from '../commands/shared-acts.ts'
import { useNode, usePage, useStore } from '../session/editor-store.ts'
import { otherShared } from '../../library/other-shared.ts'
import { isOfComponent } from '../session/node-name.ts'
import { Quiet } from './group.tsx'
import { InstanceFields } from './instance-fields.tsx'
import { InstanceSlots } from './instance-slots.tsx'
import { VariantActs } from './variant-choice.tsx'

const Acts = styled.div`
  display: grid;
  gap: 8px;
  justify-items: start;
`

/** Editing what an instance shows, cutting it loose, and showing something else there. */
export function InstanceActs({ id }: { readonly id: NodeId }) {
  const store = useStore()
  const node = useNode(id)
  const { data: parts = [] } = useParts()
  const part = node && linkedPart(node, store.registry)
  const word = usePage((page) => (isOfComponent(page, part) ? 'component' : 'shared section'))
  const own = parts.find(({ id: one }) => one === part)
  const others = own ? otherShared(parts, own) : []
  return (
    <>
      <InstanceFields id={id} />
      <InstanceSlots id={id} />
      <Acts>
        <Quiet>
          {word === 'component'
            ? 'All but its fields and slots is the same wherever the component stands.'
            : 'Changes in it are seen wherever it stands.'}
        </Quiet>
        <Button onPress={() => openInstance(store, id)}>Edit {word}</Button>
        {word === 'component' && <VariantActs id={id} />}
        <Button onPress={() => makeOwnCopy(store, id)}>{keysOf('own-copy').title}</Button>
        {others.length > 0 && (
          <Picker
            label="Replace by"
            isLabelShown
            options={others.map((one) => ({ id: one.id, title: one.name }))}
            value=""
            onChange={(chosen) => {
              const other = others.find((one) => one.id === chosen)
              if (other) replaceBy(store, id, other)
            }}
          />
        )}
      </Acts>
    </>
  )
}
