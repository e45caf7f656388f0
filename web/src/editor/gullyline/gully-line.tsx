import styled from 'styled-components'
import { RULES, type Gully } from '@gullyline/core'
import { STRIP } from '../../ui/theme.ts'
import { rangeOf } from './gully-range.ts'
import { RULER_FROM, RULER_TO } from '../ruler/ruler-scale.ts'
import type { ShownGully } from './gully-context.tsx'
import { counted } from '../../ui/counted.ts'

/** How far the line dips, in px. */
const DEPTHS = { error: 18, warning: 9 } as const
/** Wide enough to be seen and pressed, in px of width. */
const LEAST_WIDTH = 10
/** How far a side leans. */
const SLOPE = 5
const HEIGHT = 20

const Picture = styled.svg`
  position: absolute;
  top: 34px;
  left: 0;
  width: 100%;
  height: ${HEIGHT}px;
  overflow: visible;
  pointer-events: none;
  path {
    pointer-events: auto;
    cursor: pointer;
  }
  [data-severity='error'] {
    fill: ${STRIP.error};
  }
  [data-severity='warning'] {
    fill: ${STRIP.warning};
  }
  polyline {
    fill: none;
    stroke: ${STRIP.line};
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
`

/** A range of widths that the line dips at, with all gullies that begin and end in it. */
interface Notch {
  readonly from: number
  readonly to: number
  readonly severity: Gully['severity']
  readonly gullies: readonly ShownGully[]
}

interface GullyLineProps {
  readonly gullies: readonly ShownGully[]
  readonly onChoose: (gully: ShownGully) => void
}

/** The line along the ruler: level where the page is whole, and lower where something is wrong with it. Its list says the same in words. */
export function GullyLine({ gullies, onChoose }: GullyLineProps) {
  const notches = notchesOf(gullies)
  const errors = notches.filter(({ severity }) => severity === 'error')
  return (
    <Picture
      viewBox={`${RULER_FROM} 0 ${RULER_TO - RULER_FROM} ${HEIGHT}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`Gullyline with ${counted(notches.length, 'gully', 'gullies')}`}
    >
      {[...notches.filter(({ severity }) => severity === 'warning'), ...errors].map((notch) => (
        <path
          key={`${notch.severity} ${notch.from}`}
          d={outlineOf(notch)}
          data-severity={notch.severity}
          data-notch=""
          onClick={() => onChoose(notch.gullies[0]!)}
        >
          <title>{wordsOf(notch)}</title>
        </path>
      ))}
      <polyline points={lineOf(notches)} />
    </Picture>
  )
}

/** Overlapping gullies of one severity as one notch: what begins inside of another can't be seen by itself. */
export function notchesOf(gullies: readonly ShownGully[]): readonly Notch[] {
  return (['warning', 'error'] as const).flatMap((severity) => {
    const found: Notch[] = []
    for (const gully of gullies.filter((one) => one.severity === severity && one.ignored === undefined)) {
      const { from, to } = widened(gully)
      const last = found.at(-1)
      if (last && from <= last.to)
        found[found.length - 1] = {
          ...last,
          to: Math.max(last.to, to),
          gullies: [...last.gullies, gully],
        }
      else found.push({ from, to, severity, gullies: [gully] })
    }
    return found
  })
}

function widened({ from, to }: Gully): { from: number; to: number } {
  const more = Math.max(0, LEAST_WIDTH - (to - from)) / 2
  return { from: Math.max(RULER_FROM, from - more), to: Math.min(RULER_TO, to + more) }
}

function corners({ from, to, severity }: Notch): readonly (readonly [number, number])[] {
  const lean = Math.min(SLOPE, (to - from) / 3)
  const depth = DEPTHS[severity]
  return [
    [from, 0],
    [from + (from === RULER_FROM ? 0 : lean), depth],
    [to - (to === RULER_TO ? 0 : lean), depth],
    [to, 0],
  ]
}

function outlineOf(notch: Notch): string {
  return `M${corners(notch)
    .map(([x, y]) => `${x} ${y}`)
    .join('L')}Z`
}

/** The line follows the deepest notch at each width. */
function lineOf(notches: readonly Notch[]): string {
  const deep = notches.filter(({ severity }) => severity === 'error')
  const shallow = notches.filter(
    (one) => one.severity === 'warning' && !deep.some(({ from, to }) => from < one.to && one.from < to),
  )
  const inside = [...deep, ...shallow].sort((a, b) => a.from - b.from).flatMap(corners)
  return [[RULER_FROM, 0], ...inside, [RULER_TO, 0]].map((point) => point.join()).join(' ')
}

function wordsOf({ gullies }: Notch): string {
  return gullies
    .map(({ rule, from, to, why }) => `${RULES.get(rule)!.title}, ${rangeOf({ from, to })}: ${why}`)
    .join('\n')
}
