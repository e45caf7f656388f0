import { useCallback, useEffect, useRef, useState } from 'react'
import styled from 'styled-components'
import { PAGE_SANDBOX } from '../../ui/framed-page.ts'
import { pageSheet } from '../../ui/page-sheet.ts'
import { PageScrollbar } from '../canvas/page-scrollbar.tsx'
import { Tabs } from '../../ui/controls.tsx'
import type { Before } from '../session/page-before.ts'
import { useCompared } from './compared.ts'
import { ScrollTogether } from './scroll-together.ts'
import { counted } from '../../ui/counted.ts'

const Place = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 10px;
  width: 100%;
  min-width: 0;
`
const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 18px;
  align-items: center;
  label {
    display: flex;
    gap: 8px;
    align-items: center;
    font-size: 12.5px;
  }
  p {
    color: var(--quiet);
    font-size: 12.5px;
  }
`
const Sides = styled.div`
  position: relative;
  display: flex;
  gap: 24px;
  min-height: 0;
  figure {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
    gap: 6px;
    width: var(--width);
    margin: 0;
  }
  figcaption {
    font-size: 13px;
    font-weight: 650;
  }
  &[data-over] figure {
    position: absolute;
    inset: 0 auto 0 0;
  }
  &[data-over] figure + figure {
    clip-path: inset(0 0 0 var(--divided));
    figcaption {
      text-align: right;
    }
  }
`
const Window = styled.div`
  ${pageSheet}
  iframe {
    border: 0;
    transform-origin: 0 0;
  }
`
/** Where both meet; drawn over the frames, which would take the pointer. */
const Divider = styled.div`
  position: absolute;
  inset: 26px auto 0 calc(var(--width) * var(--share));
  width: 3px;
  margin-left: -1.5px;
  background: #0e8597;
  pointer-events: none;
`

const TITLES: Readonly<Record<Before, string>> = { saved: 'Last saved', live: 'Live' }
const GAP = 24
const BAR = 70

interface CompareProps {
  readonly before: Before
  /** Of the screen, in px. */
  readonly screen: number
  readonly room: { readonly width: number; readonly height: number }
  /** How far the room begins below the top of what it stands in, in px. */
  readonly above: number
}

/** The page as it is and as it was, beside each other or one over the other, scrolled together. */
export function Compare({ before, screen, room, above }: CompareProps) {
  const [isOver, setOver] = useState(false)
  const [isMarked, setMarked] = useState(true)
  const [divided, setDivided] = useState(50)
  const [together] = useState(() => new ScrollTogether())
  const [now, setNow] = useState<Document>()
  const { compared, error } = useCompared(before, isMarked)
  const wide = isOver ? room.width : (room.width - GAP) / 2
  const scale = Math.min(1, wide / screen)
  const size = { screen, scale, height: Math.max(100, room.height - BAR) }
  return (
    <Place>
      <Bar>
        <Tabs
          label="Shown"
          value={isOver ? 'over' : 'beside'}
          options={[
            ['beside', 'Next to each other'],
            ['over', 'Slider'],
          ]}
          onChange={(next) => setOver(next === 'over')}
        />
        <label>
          <input type="checkbox" checked={isMarked} onChange={(event) => setMarked(event.target.checked)} />
          Mark what differs
        </label>
        {isOver && (
          <label>
            Divide at
            <input
              type="range"
              min={0}
              max={100}
              value={divided}
              aria-valuetext={`${divided} % ${TITLES[before].toLowerCase()}`}
              onChange={(event) => setDivided(Number(event.target.value))}
            />
          </label>
        )}
        {error && <p role="alert">{error.message}</p>}
        {!error && <p role="status">{compared ? countOf(compared.differing) : 'Reading the page…'}</p>}
      </Bar>
      {compared && (
        <Sides
          data-over={isOver ? '' : undefined}
          style={{
            '--width': `${Math.floor(screen * scale)}px`,
            '--divided': `${divided}%`,
            '--share': divided / 100,
          }}
        >
          <Side {...size} title={TITLES[before]} html={compared.before} together={together} />
          <Side {...size} title="Now" html={compared.now} together={together} onDocument={setNow} />
          {isOver && <Divider aria-hidden="true" />}
        </Sides>
      )}
      {compared && now && <PageScrollbar inner={now} scale={scale} top={above + BAR} />}
    </Place>
  )
}

function countOf(differing: number): string {
  if (differing === 0) return 'Nothing differs.'
  return `${counted(differing, 'block differs', 'blocks differ')}.`
}

interface SideProps {
  readonly title: string
  readonly html: string
  readonly screen: number
  readonly scale: number
  readonly height: number
  readonly together: ScrollTogether
  readonly onDocument?: (inner: Document) => void
}

function Side({ title, html, screen, scale, height, together, onDocument }: SideProps) {
  const leave = useRef<() => void>(undefined)
  const join = useCallback(
    ({ contentDocument: inner }: HTMLIFrameElement): void => {
      leave.current?.()
      leave.current = inner ? together.join(inner) : undefined
      if (inner) onDocument?.(inner)
    },
    [together, onDocument],
  )
  useEffect(() => () => leave.current?.(), [])
  return (
    <figure aria-label={title}>
      <figcaption>{title}</figcaption>
      <Window>
        <iframe
          title={`The page ${title.toLowerCase()}, ${screen} pixels wide`}
          sandbox={PAGE_SANDBOX}
          srcDoc={html}
          width={screen}
          height={Math.ceil(height / scale)}
          style={{ transform: `scale(${scale})` }}
          onLoad={(event) => join(event.currentTarget)}
        />
      </Window>
    </figure>
  )
}
