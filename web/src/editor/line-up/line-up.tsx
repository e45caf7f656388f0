import styled from 'styled-components'
import { useRoom } from '../../ui/use-room.ts'
import { mono } from '../../ui/controls.tsx'
import { contourBackdrop } from '../canvas/contours.ts'
import { PageFrame } from '../canvas/page-frame.tsx'
import { TAKES_FOCUS } from '../canvas/focus-canvas.ts'
import { PageStyle, PageView } from '../canvas/page-view.tsx'
import { useResolvedPage, type ShownPage } from '../canvas/shown-page.ts'
import { rulerSizes, type RulerSize } from '../ruler/ruler-scale.ts'
import { useSiteView } from '../session/site-view.ts'

const Area = styled.main`
  position: relative;
  display: flex;
  gap: 24px;
  padding: 16px 24px 0;
  overflow: hidden;
  ${contourBackdrop}
`
const Column = styled.section`
  display: flex;
  flex-direction: column;
  flex: none;
  width: var(--width);
`
const Label = styled.h2`
  display: flex;
  align-items: baseline;
  gap: 8px;
  padding-bottom: 8px;
  font-size: 13px;
  button {
    padding: 2px 0;
    border: 0;
    background: none;
    font-weight: 650;
    text-decoration: underline;
    text-decoration-color: var(--lineStrong);
    text-underline-offset: 3px;
  }
  span {
    ${mono}
    color: var(--quiet);
    font-weight: 450;
  }
`
const Sheet = styled.div`
  flex: 1;
  overflow: hidden;
  background: #fff;
  box-shadow:
    0 0 0 1px rgb(25 33 30 / 12%),
    0 10px 30px rgb(25 33 30 / 18%);
`
const GAP = 24
/** A narrow screen needs more than its share of the room to be readable: widths are weighed by this power. */
const EVENING = 0.6
const LABEL = 28

/** The page as it is now, saved or not, at one width of each size side by side. Choosing one goes back to the page at that width. */
export function LineUp({ onChoose }: { onChoose: (width: number) => void }) {
  const { site } = useSiteView()
  const { ref: setArea, room } = useRoom()
  const sizes = rulerSizes(site.look)
  const page = useResolvedPage('visitor')
  return (
    <Area ref={setArea} aria-label="Line-up" tabIndex={-1} {...{ [TAKES_FOCUS]: '' }}>
      {room.width > 0 &&
        sizes.map((size) => (
          <Shown
            key={size.size}
            size={size}
            page={page}
            width={shownWidth(size, sizes, room.width)}
            height={room.height - LABEL}
            onChoose={onChoose}
          />
        ))}
    </Area>
  )
}

function shownWidth(size: RulerSize, sizes: readonly RulerSize[], room: number): number {
  const weight = ({ sample }: RulerSize) => sample ** EVENING
  const all = sizes.reduce((sum, one) => sum + weight(one), 0)
  return Math.min(size.sample, Math.floor(((room - (sizes.length - 1) * GAP) * weight(size)) / all))
}

interface ShownProps {
  readonly size: RulerSize
  readonly page: ShownPage
  readonly width: number
  readonly height: number
  readonly onChoose: (width: number) => void
}

function Shown({ size, page, width, height, onChoose }: ShownProps) {
  const scale = width / size.sample
  return (
    <Column aria-label={`${size.title}, ${size.sample} pixels`} style={{ '--width': `${width}px` }}>
      <Label>
        <button type="button" onClick={() => onChoose(size.sample)} title="Go back to the page at this width">
          {size.title}
        </button>
        <span>{size.sample}</span>
      </Label>
      <Sheet>
        <PageFrame
          title={`The page at ${size.title}, ${size.sample} pixels wide`}
          width={size.sample}
          height={Math.ceil(height / scale)}
          scale={scale}
          head={<PageStyle shown={page} />}
        >
          <PageView shown={page} />
        </PageFrame>
      </Sheet>
    </Column>
  )
}
