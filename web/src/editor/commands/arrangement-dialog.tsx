import { useId, useMemo, useState } from 'react'
import styled from 'styled-components'
import {
  copyArrangementEdits,
  getNode,
  resetArrangementEdits,
  sizeWord,
  type SetValue,
  type SizeKey,
} from '@gullyline/core'
import { Button, MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { Choices } from '../../ui/form-parts.ts'
import { selectedIds } from '../session/editor-state.ts'
import { usePage, useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { blocks } from './acts.ts'
import { counted } from '../../ui/counted.ts'

const Form = styled.form`
  display: grid;
  gap: 14px;
`
const RESET = 'reset'

interface ArrangementDialogProps {
  /** The size that the canvas shows, which alone is changed. */
  readonly size: SizeKey
  readonly onClose: () => void
}

/** Copies the arrangement of another size to this one, or resets this one, for the selected blocks or for the page. */
export function ArrangementDialog({ size, onClose }: ArrangementDialogProps) {
  const store = useStore()
  const { look } = useSiteView().site
  const page = usePage((now) => now)
  const form = useId()
  // A dialog lies over the page: what was selected stays so.
  const [selected] = useState(() => selectedIds(store.state).filter((id) => id !== page.root))
  const others = look.sizes.filter(({ key }) => key !== size)
  const wider = others.findLast(({ key }) => key < size)
  const [from, setFrom] = useState<SizeKey>((wider ?? others[0]!).key)
  const [ofPage, setOfPage] = useState(selected.length === 0)
  const edits = useMemo((): readonly SetValue[] => {
    const ids = ofPage ? [page.root] : selected
    if (from === RESET) return resetArrangementEdits(page, ids, size)
    return copyArrangementEdits(page, ids, { registry: store.registry, look, from, to: size })
  }, [page, selected, ofPage, from, size, look, store])
  const here = sizeWord(size, look)
  const changed = new Set(edits.map(({ nodeId }) => nodeId)).size
  const act = (): void => {
    const what = ofPage ? 'the page' : blocks(selected.length).toLowerCase()
    const label =
      from === RESET
        ? `Reset the arrangement of ${what} at ${here}`
        : `Copied the arrangement of ${what} from ${sizeWord(from, look)} to ${here}`
    const keep = store.state.selection
    const isDone = store.do(label, edits, keep === undefined ? {} : { select: keep, also: store.state.also })
    if (isDone) onClose()
  }
  return (
    <Dialog
      title={`Arrangement at ${here}`}
      onClose={onClose}
      acts={
        <>
          <Button onPress={onClose}>Cancel</Button>
          <MainButton type="submit" form={form} isDisabled={edits.length === 0}>
            {from === RESET ? 'Reset' : 'Copy'}
          </MainButton>
        </>
      }
    >
      <Form
        id={form}
        onSubmit={(event) => {
          event.preventDefault()
          if (edits.length > 0) act()
        }}
      >
        <Choices>
          <legend>Action</legend>
          {others.map(({ key, name }) => (
            <label key={key}>
              <input type="radio" name="from" checked={from === key} onChange={() => setFrom(key)} />
              Copy from {name}
            </label>
          ))}
          {size !== 'base' && (
            <label>
              <input type="radio" name="from" checked={from === RESET} onChange={() => setFrom(RESET)} />
              Reset: inherit from {wider?.name}
            </label>
          )}
        </Choices>
        <Choices>
          <legend>For</legend>
          {selected.length > 0 && (
            <label>
              <input type="radio" name="of" checked={!ofPage} onChange={() => setOfPage(false)} />
              {selected.length === 1
                ? `Selected ${kindTitle()}, with all blocks inside`
                : `${blocks(selected.length)}, with all blocks inside`}
            </label>
          )}
          <label>
            <input type="radio" name="of" checked={ofPage} onChange={() => setOfPage(true)} />
            The whole page
          </label>
        </Choices>
      </Form>
      <p role="status">
        {edits.length === 0
          ? 'Nothing to change: it is arranged like that already.'
          : `${counted(changed, 'block changes', 'blocks change')} at ${here}. All other sizes stay as they are.`}
      </p>
    </Dialog>
  )

  function kindTitle(): string {
    return store.registry.kinds.get(getNode(page, selected[0]!).kind)!.title.toLowerCase()
  }
}
