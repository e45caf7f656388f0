import { useEffect, useMemo, useRef, useState, type MouseEvent } from 'react'
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { init, use as withParts, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import styled from 'styled-components'
import { sampleWidth, SWEEP_FROM, SWEEP_TO, type Look, type MeasuredPoint } from '@gullyline/core'
import { MainButton } from '../../ui/controls.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { SCHEMES } from '../../ui/theme.ts'
import { useGullyline } from './gully-context.tsx'

withParts([LineChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer])

const Chart = styled.div`
  width: 100%;
  height: 390px;
  cursor: crosshair;
  /* A press on a curve that is drawn anew before it ends would be a press on nothing. */
  svg > * {
    pointer-events: none;
  }
`
const Figures = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
  font-variant-numeric: tabular-nums;
  th,
  td {
    padding: 5px 8px;
    border-bottom: 1px solid var(--line);
    text-align: right;
  }
  th:first-child {
    text-align: left;
  }
  thead th {
    color: var(--quiet);
    font-size: 12px;
    font-weight: 500;
  }
  button {
    min-height: 24px;
    padding: 0 4px;
    border: 0;
    background: none;
    color: var(--accent);
    text-decoration: underline;
  }
`

interface WidthChartProps {
  readonly look: Look
  /** The width that the canvas shows. */
  readonly width: number
  readonly onChoose: (width: number) => void
  readonly onClose: () => void
}

/** How the page changes with the width of the screen: its height, its lines of text, and what its pictures weigh. */
export function WidthChart({ look, width, onChoose, onClose }: WidthChartProps) {
  const { sweeper, gullies, stage, progress } = useGullyline()
  // Measured again whenever more is known.
  const points = useMemo(() => (gullies && sweeper ? sweeper.points : []), [gullies, sweeper])
  const weights = useWeights(points)
  const rows = useMemo(
    () => points.map((point): Row => ({ ...point, kilobytes: weightOf(point, weights) })),
    [points, weights],
  )
  return (
    <Dialog
      title="Page at every width"
      onClose={onClose}
      isWide
      acts={<MainButton onPress={onClose}>Close</MainButton>}
    >
      {/* Always there: what is pressed would move away from under the pointer when it came or went. */}
      <p role="status">{stage === 'whole' ? MEASURED : `Measuring, ${Math.floor(progress * 100)} %`}</p>
      <Curves rows={rows} look={look} width={width} onChoose={onChoose} />
      <Figures>
        <thead>
          <tr>
            <th scope="col">Size</th>
            <th scope="col">Width</th>
            <th scope="col">Height</th>
            <th scope="col">Lines of text</th>
            <th scope="col">Pictures</th>
          </tr>
        </thead>
        <tbody>
          {look.sizes.toReversed().map(({ key, name }) => {
            const row = nearest(rows, sampleWidth(key, look))
            return (
              <tr key={key}>
                <th scope="row">{name}</th>
                <td>
                  {row && (
                    <button
                      type="button"
                      title={`Show the page ${row.width} px wide`}
                      onClick={() => onChoose(row.width)}
                    >
                      {figure.format(row.width)} px
                    </button>
                  )}
                </td>
                <td>{row ? `${figure.format(row.height)} px` : ''}</td>
                <td>{row ? figure.format(row.lines) : ''}</td>
                <td>{row?.kilobytes === undefined ? '' : `${figure.format(row.kilobytes)} kB`}</td>
              </tr>
            )
          })}
        </tbody>
      </Figures>
    </Dialog>
  )
}

const MEASURED = 'Measured at 1,601 widths. Press the chart to see the page at that width.'

const figure = new Intl.NumberFormat('en-GB')

interface Row extends MeasuredPoint {
  /** Undefined while the sizes of the files are not known. */
  readonly kilobytes: number | undefined
}

function nearest(rows: readonly Row[], width: number): Row | undefined {
  const distance = (row: Row): number => Math.abs(row.width - width)
  return rows.reduce<Row | undefined>(
    (best, row) => (!best || distance(row) < distance(best) ? row : best),
    undefined,
  )
}

type Weights = ReadonlyMap<string, number>

/** The bytes of files, by their addresses, as the server tells them. */
function useWeights(points: readonly MeasuredPoint[]): Weights {
  const [weights, setWeights] = useState<Weights>(new Map())
  const wanted = useMemo(() => [...new Set(points.flatMap(({ loaded }) => loaded))].sort(), [points])
  const names = wanted.join('\n')
  useEffect(() => {
    const stop = new AbortController()
    const ask = async (): Promise<void> => {
      const found = await Promise.all(names.split('\n').map((address) => bytesOf(address, stop.signal)))
      if (!stop.signal.aborted) setWeights(new Map(found))
    }
    if (names !== '') void ask()
    return () => stop.abort()
  }, [names])
  return weights
}

async function bytesOf(address: string, signal: AbortSignal): Promise<readonly [string, number]> {
  try {
    const answer = await fetch(address, { method: 'HEAD', signal })
    return [address, Number(answer.headers.get('Content-Length') ?? NaN)]
  } catch {
    return [address, NaN]
  }
}

function weightOf({ loaded }: MeasuredPoint, weights: Weights): number | undefined {
  const bytes = loaded.reduce((all, address) => all + (weights.get(address) ?? NaN), 0)
  return Number.isNaN(bytes) ? undefined : Math.round(bytes / 1000)
}

interface CurvesProps {
  readonly rows: readonly Row[]
  readonly look: Look
  readonly width: number
  readonly onChoose: (width: number) => void
}

/** Three curves above each other over one axis. A press on them shows the page at that width. The table says the same in figures. */
function Curves({ rows, look, width, onChoose }: CurvesProps) {
  const holder = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType>(undefined)
  useEffect(() => {
    const element = holder.current
    if (!element) return undefined
    const made = (chart.current = init(element, undefined, { renderer: 'svg' }))
    const resized = new ResizeObserver(() => made.resize())
    resized.observe(element)
    return () => {
      resized.disconnect()
      made.dispose()
    }
  }, [])
  useEffect(() => {
    const made = chart.current
    if (!made) return undefined
    const dark = matchMedia('(prefers-color-scheme: dark)')
    const draw = (): void => made.setOption(optionOf({ rows, look, width }, dark.matches), { notMerge: true })
    draw()
    dark.addEventListener('change', draw)
    return () => dark.removeEventListener('change', draw)
  }, [rows, look, width])
  // Not the chart's own event, which needs the same curve under the pointer where a press begins and where it ends.
  const choose = ({ currentTarget, clientX, clientY }: MouseEvent): void => {
    const made = chart.current
    const { left, top } = currentTarget.getBoundingClientRect()
    const pixel = [clientX - left, clientY - top]
    const at = CURVES.findIndex((_curve, i) => made?.containPixel({ gridIndex: i }, pixel))
    if (!made || at < 0) return
    const [chosen] = made.convertFromPixel({ gridIndex: at }, pixel) as [number, number]
    onChoose(Math.round(chosen))
  }
  return (
    <Chart
      ref={holder}
      role="img"
      aria-label="Height, lines of text and weight of pictures by width"
      onClick={choose}
    />
  )
}

const CURVES = [
  { title: 'Height, px', valueOf: ({ height }: Row) => height },
  { title: 'Lines of text', valueOf: ({ lines }: Row) => lines },
  { title: 'Pictures, kB', valueOf: ({ kilobytes }: Row) => kilobytes },
] as const
const CURVE_HEIGHT = 92
const CURVE_EVERY = 124

interface TipEntry {
  readonly seriesIndex?: number
  readonly value: unknown
}

/** What all three say at one width, as HTML. ECharts would tell the width once for each, as if it were a share of pixels. */
function tipOf(entries: readonly TipEntry[]): string {
  const told = entries.toSorted((a, b) => (a.seriesIndex ?? 0) - (b.seriesIndex ?? 0))
  const lines = told.flatMap(({ seriesIndex, value }) => {
    const [width, height] = value as readonly [number, number | null]
    return seriesIndex === undefined || height === null
      ? []
      : [{ width, words: `${CURVES[seriesIndex]!.title}: <b>${figure.format(height)}</b>` }]
  })
  return [`${figure.format(lines[0]?.width ?? 0)} px wide`, ...lines.map(({ words }) => words)].join('<br>')
}

function optionOf(
  { rows, look, width }: Omit<CurvesProps, 'onChoose'>,
  isDark: boolean,
): Parameters<EChartsType['setOption']>[0] {
  const colours = SCHEMES[isDark ? 'dark' : 'light']
  const text = { color: colours.quiet, fontFamily: 'Hanken Grotesk Variable, sans-serif', fontSize: 12 }
  const line = { lineStyle: { color: colours.line } }
  return {
    animation: false,
    textStyle: text,
    tooltip: {
      trigger: 'axis',
      backgroundColor: colours.paper,
      borderColor: colours.lineStrong,
      textStyle: { color: colours.plain, fontSize: 12 },
      formatter: (shown: unknown) => tipOf([shown].flat() as readonly TipEntry[]),
    },
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    grid: CURVES.map((_curve, i) => ({
      left: 56,
      right: 30,
      outerBoundsMode: 'none' as const,
      top: 24 + i * CURVE_EVERY,
      height: CURVE_HEIGHT,
    })),
    xAxis: CURVES.map((_curve, i) => ({
      type: 'value',
      gridIndex: i,
      min: SWEEP_FROM,
      max: SWEEP_TO,
      interval: 320,
      axisLabel: { ...text, show: i === CURVES.length - 1, formatter: '{value} px' },
      axisLine: { lineStyle: { color: colours.lineStrong } },
      splitLine: { show: false },
    })),
    yAxis: CURVES.map(({ title }, i) => ({
      type: 'value',
      gridIndex: i,
      name: title,
      nameTextStyle: { ...text, color: colours.plain, align: 'left', padding: [0, 0, 0, -48] },
      nameGap: 9,
      splitNumber: 3,
      axisLabel: text,
      splitLine: line,
    })),
    series: CURVES.map(({ title, valueOf }, i) => ({
      type: 'line',
      name: title,
      xAxisIndex: i,
      yAxisIndex: i,
      showSymbol: false,
      lineStyle: { width: 1.75, color: colours.accent },
      itemStyle: { color: colours.accent },
      data: rows.map((row) => [row.width, valueOf(row) ?? null]),
      markLine: {
        silent: true,
        symbol: 'none',
        label: { show: false },
        data: [
          ...look.sizes
            .slice(0, -1)
            .map(({ from }) => ({ xAxis: from, lineStyle: { color: colours.lineStrong, type: 'dotted' } })),
          { xAxis: width, lineStyle: { color: colours.clay, type: 'solid', width: 1.5 } },
        ],
      },
    })),
  }
}
