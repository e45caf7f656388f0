import styled from 'styled-components'
import { atBox, boxVariables } from '../canvas/at-box.ts'
import { useDrag } from './drag-store.ts'

const Layer = styled.div`
  position: fixed;
  inset: 0;
  z-index: 60;
  pointer-events: none;
`

const Mark = styled.div`
  ${atBox}
  border-radius: 3px;
  background: color-mix(in srgb, var(--accentBright) 75%, transparent);
  box-shadow: 0 0 0 1px var(--paper);
  &[data-refused] {
    background: repeating-linear-gradient(
      135deg,
      color-mix(in srgb, var(--clay) 45%, transparent) 0 6px,
      transparent 6px 14px
    );
    box-shadow: inset 0 0 0 2px var(--clay);
  }
`

const Cell = styled(Mark)`
  background: color-mix(in srgb, var(--accentBright) 22%, transparent);
  box-shadow: inset 0 0 0 2px var(--accentBright);
`
/** A line that what is dragged shares with something. */
export const GuideLine = styled.div`
  ${atBox}
  background: var(--clay);
`

const Ghost = styled.div`
  position: absolute;
  left: var(--x);
  top: var(--y);
  max-width: 320px;
  transform: translate(14px, 12px);
  padding: 5px 10px;
  border-radius: 5px;
  background: var(--accent);
  color: var(--onAccent);
  font-weight: 550;
  box-shadow: 0 6px 20px rgb(0 0 0 / 30%);
  &[data-refused] {
    background: var(--clay);
    color: var(--paper);
  }
`

const px = (value: number) => `${value}px`

/** Draws the drag under way: what is dragged, where it would land, and why it can't. */
export function DragLayer() {
  const drag = useDrag()
  if (!drag) return null
  const { mark, refusal, cell, guides = [] } = drag.shown
  const Shape = cell ? Cell : Mark
  const refused = refusal === undefined ? undefined : ''
  return (
    <Layer data-testid="drag-layer">
      {mark && <Shape data-refused={refused} data-landing-mark style={boxVariables(mark)} />}
      {guides.map((guide, i) => (
        <GuideLine key={i} data-guide style={boxVariables(guide)} />
      ))}
      <Ghost
        data-refused={refused}
        role="status"
        style={{ '--x': px(drag.point.x), '--y': px(drag.point.y) }}
      >
        {refusal ?? cell?.note ?? drag.item.title}
      </Ghost>
    </Layer>
  )
}
