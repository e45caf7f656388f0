import styled from 'styled-components'
import {
  cascadeValue,
  columnCountEdits,
  columnShareEdits,
  columnShares,
  getKind,
  getNode,
  hasOwnShares,
  MOST_COLUMNS,
  putBackSharesEdits,
  sharesWith,
  sizeWord,
  type NodeId,
  type SizeKey,
} from '@gullyline/core'
import { Button, fieldBox } from '../../ui/controls.tsx'
import { usePage, useStore } from '../session/editor-store.ts'
import { useSiteView } from '../session/site-view.ts'
import { newId } from '../session/new-id.ts'
import { Group, GroupTitle, Quiet } from './group.tsx'
import { SegmentControl } from './field-control.tsx'
import { useTyped } from './use-typed.ts'

const Widths = styled.div`
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  label {
    display: grid;
    gap: 2px;
    color: var(--quiet);
    font-size: 12px;
  }
  input {
    ${fieldBox}
  }
`
const Presets = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  button {
    display: flex;
    gap: 2px;
    width: 62px;
    height: 22px;
    padding: 3px;
    border: 1px solid var(--control);
    border-radius: 4px;
    background: var(--paper);
  }
  button[aria-pressed='true'] {
    border-color: var(--accent);
    box-shadow: 0 0 0 1px var(--accent);
  }
  i {
    flex: var(--share) 1 0;
    border-radius: 1px;
    background: var(--lineStrong);
  }
`

/** Presets by number of columns, in %. */
const PRESETS: Readonly<Record<number, readonly (readonly number[])[]>> = {
  1: [[100]],
  2: [
    [50, 50],
    [67, 33],
    [33, 67],
    [75, 25],
    [25, 75],
  ],
  3: [
    [34, 33, 33],
    [50, 25, 25],
    [25, 50, 25],
    [25, 25, 50],
  ],
  4: [[25, 25, 25, 25]],
  5: [[20, 20, 20, 20, 20]],
  6: [[17, 17, 17, 17, 16, 16]],
}
const COUNTS = Object.fromEntries(
  Array.from({ length: MOST_COLUMNS }, (_unused, i) => [String(i + 1), String(i + 1)]),
)

/**
 * Number columns there are, and how wide each is at the size that is shown: by number, by a ready division, or (on the
 * page) by dragging.
 */
export function ColumnsControl({ id, size }: { id: NodeId; size: SizeKey }) {
  const store = useStore()
  const { look } = useSiteView().site
  const page = usePage((page) => page)
  const count = getNode(page, id).slots.columns?.length ?? 0
  const shares = columnShares(page, id, size)
  const hasOwn = hasOwnShares(page, id, size)
  const { arrangement } = getKind(store.registry, 'columns')
  const isAcross = cascadeValue(getNode(page, id), arrangement, size, 'direction').value === 'across'
  const at = size === 'base' ? '' : ` at ${sizeWord(size, look)}`
  const setShares = (next: readonly number[], isTyped = false): boolean =>
    store.do(
      `Changed the widths of ${count} columns${at}`,
      columnShareEdits(page, id, next, size),
      isTyped ? { joinKey: `${id}/shares.${size}` } : {},
    )
  return (
    <Group aria-label="Columns">
      <GroupTitle>Number</GroupTitle>
      <SegmentControl
        label="Number of columns"
        value={String(count)}
        options={COUNTS}
        onChange={(next) =>
          store.do(
            next === '1' ? 'Changed to one column' : `Changed to ${next} columns`,
            columnCountEdits(page, id, Number(next), store.registry, newId),
          )
        }
      />
      <GroupTitle>Widths{at}</GroupTitle>
      <Presets role="group" aria-label="Presets">
        {(PRESETS[count] ?? []).map((preset) => (
          <button
            key={preset.join()}
            type="button"
            aria-label={preset.map((share) => `${share} %`).join(', ')}
            aria-pressed={preset.join() === shares.join()}
            onClick={() => setShares(preset)}
          >
            {preset.map((share, i) => (
              <i key={i} style={{ '--share': share } as never} />
            ))}
          </button>
        ))}
      </Presets>
      <Widths>
        {shares.map((share, i) => (
          <ShareBox
            key={i}
            label={`Column ${i + 1}, %`}
            share={share}
            onType={(value) => setShares(sharesWith(shares, i, value), true)}
          />
        ))}
      </Widths>
      {!isAcross && (
        <Quiet>The columns are stacked{at}: how wide they are shows where they stand side by side.</Quiet>
      )}
      {hasOwn && (
        <Button
          onPress={() =>
            store.do(`Reset the widths of ${count} columns${at}`, putBackSharesEdits(page, id, size))
          }
        >
          Inherited
        </Button>
      )}
    </Group>
  )
}

interface ShareBoxProps {
  readonly label: string
  readonly share: number
  readonly onType: (value: number) => boolean
}

function ShareBox({ label, share, onType }: ShareBoxProps) {
  const typing = useTyped(String(share), (typed) => {
    const value = Number(typed)
    if (typed.trim() === '' || !Number.isFinite(value) || value < 1) return false
    return onType(value)
  })
  return (
    <label>
      {label}
      <input type="number" min={1} max={100} {...typing} />
    </label>
  )
}
