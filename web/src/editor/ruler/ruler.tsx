import { useRef, type ReactNode } from 'react'
import styled from 'styled-components'
import type { Look } from '@gullyline/core'
import { Strip } from './strip.ts'
import { mono } from '../../ui/controls.tsx'
import { STRIP } from '../../ui/theme.ts'
import { clampWidth, RULER_FROM, RULER_TO, rulerSizes, shareOf, widthAt } from './ruler-scale.ts'

const PAD = 22

const Track = styled.div`
  position: absolute;
  inset: 0 ${PAD}px;
  touch-action: none;
  cursor: ew-resize;
`
const At = styled.span`
  position: absolute;
  left: calc(var(--share) * 100%);
`
const Tick = styled(At)`
  top: 30px;
  width: 1px;
  height: 4px;
  background: ${STRIP.tick};
  &[data-major] {
    top: 26px;
    height: 8px;
  }
`
const Figure = styled(At)`
  ${mono}
  top: 9px;
  transform: translateX(-50%);
`
const Post = styled(At)`
  top: 26px;
  bottom: 0;
  border-left: 1px dotted ${STRIP.words};
`
/** The line of the strip until the page was measured. */
const Level = styled.div`
  position: absolute;
  top: 34px;
  left: 0;
  right: 0;
  height: 1.5px;
  background: ${STRIP.line};
`
const Size = styled.button`
  position: absolute;
  bottom: 2px;
  left: calc((var(--from) + var(--to)) / 2 * 100%);
  transform: translateX(-50%);
  overflow: hidden;
  min-width: 24px;
  max-width: max(24px, calc((var(--to) - var(--from)) * 100%));
  min-height: 24px;
  padding: 2px 10px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: ${STRIP.words};
  font-size: 12px;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
  &:hover {
    background: ${STRIP.raised};
    color: #fff;
  }
  &[aria-pressed='true'] {
    color: ${STRIP.pointer};
    font-weight: 650;
  }
  &:focus-visible {
    outline-color: ${STRIP.pointer};
    outline-offset: 0;
  }
`
const Pointer = styled.div`
  ${mono}
  position: absolute;
  left: calc(var(--share) * 100%);
  top: 3px;
  transform: translateX(-50%);
  min-width: 54px;
  padding: 2px 6px;
  border-radius: 3px;
  background: ${STRIP.pointer};
  color: ${STRIP.onPointer};
  font-size: 11px;
  font-weight: 700;
  text-align: center;
  cursor: ew-resize;
  touch-action: none;
  &::after {
    content: '';
    position: absolute;
    left: 50%;
    top: 100%;
    height: 12px;
    border-left: 1.5px solid ${STRIP.pointer};
  }
  &:focus-visible {
    outline: 2px solid #fff;
    outline-offset: 2px;
  }
`

interface RulerProps {
  readonly look: Look
  readonly width: number
  readonly onChange: (width: number) => void
  /** The line with what the page's gullies are; level where it is left out. */
  readonly line?: ReactNode
  /** What stands at the end of the strip. */
  readonly children?: ReactNode
}

/** Figures closer than this many px of width would run into each other. */
const CROWDED = 60
const STEPS: Readonly<Record<string, number>> = {
  ArrowLeft: -1,
  ArrowDown: -1,
  ArrowRight: 1,
  ArrowUp: 1,
  PageDown: -50,
  PageUp: 50,
}
const share = (width: number) => ({ '--share': shareOf(width) }) as never

/** The width scale over the canvas: drag it and the page takes that width; press a size's name for the width that stands for it. */
export function Ruler({ look, width, onChange, line, children }: RulerProps) {
  const track = useRef<HTMLDivElement>(null)
  const sizes = rulerSizes(look)
  const drag = (event: React.PointerEvent): void => {
    const rect = track.current?.getBoundingClientRect()
    if (rect && event.buttons === 1) onChange(widthAt((event.clientX - rect.left) / rect.width))
  }
  const current = sizes.find((size) => width < size.to) ?? sizes.at(-1)
  return (
    <Strip role="region" aria-label="Ruler">
      <Track
        ref={track}
        onPointerDown={(event) => {
          if ((event.target as Element).closest('button,[data-notch]')) return
          event.currentTarget.setPointerCapture(event.pointerId)
          drag(event)
        }}
        onPointerMove={drag}
      >
        {ticks(20).map((at) => (
          <Tick key={at} style={share(at)} data-major={at % 100 === 0 ? '' : undefined} />
        ))}
        {ticks(100)
          .filter((at) =>
            [width, ...sizes.slice(1).map((size) => size.from)].every(
              (taken) => Math.abs(taken - at) > CROWDED,
            ),
          )
          .map((at) => (
            <Figure key={at} style={share(at)} aria-hidden="true">
              {at}
            </Figure>
          ))}
        {line || <Level />}
        {sizes.slice(1).map(({ size, from }) => (
          <span key={size} aria-hidden="true">
            <Post style={share(from)} />
            {Math.abs(from - width) > CROWDED && <Figure style={share(from)}>{from}</Figure>}
          </span>
        ))}
        {sizes.map(({ size, title, from, to, sample }) => (
          <Size
            key={size}
            type="button"
            aria-pressed={size === current?.size}
            title={`${title}: show the page ${sample} px wide`}
            style={{ '--from': shareOf(from), '--to': shareOf(to) }}
            onClick={() => onChange(sample)}
          >
            {title}
          </Size>
        ))}
        <Pointer
          role="slider"
          tabIndex={0}
          aria-label="Width of the page"
          aria-valuemin={RULER_FROM}
          aria-valuemax={RULER_TO}
          aria-valuenow={width}
          aria-valuetext={`${width} pixels, ${current?.title}`}
          style={share(width)}
          onKeyDown={(event) => {
            const ends: Readonly<Record<string, number>> = { Home: RULER_FROM, End: RULER_TO }
            const next =
              ends[event.key] ??
              (STEPS[event.key] === undefined
                ? undefined
                : width + STEPS[event.key]! * (event.shiftKey ? 10 : 1))
            if (next === undefined) return
            event.preventDefault()
            event.stopPropagation()
            onChange(clampWidth(next))
          }}
        >
          {width}
        </Pointer>
      </Track>
      {children}
    </Strip>
  )
}

function ticks(step: number): number[] {
  const first = Math.ceil(RULER_FROM / step) * step
  return Array.from({ length: Math.floor((RULER_TO - first) / step) + 1 }, (_unused, i) => first + i * step)
}
