import { useEffect, useRef } from 'react'
import { SankeyChart } from 'echarts/charts'
import { TooltipComponent } from 'echarts/components'
import { init, use as withParts } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import styled from 'styled-components'
import type { ReachGraph } from '@gullyline/core'
import { SCHEMES } from '../ui/theme.ts'
import type { namesOf } from './reach-names.ts'

withParts([SankeyChart, TooltipComponent, SVGRenderer])

const Chart = styled.div`
  width: 100%;
`
const ROW_HEIGHT = 34
const LEAST_HEIGHT = 240

interface ReachChartProps {
  readonly graph: ReachGraph
  readonly focus: string | undefined
  readonly nameOf: ReturnType<typeof namesOf>
  readonly onWalk: (id: string) => void
}

/** Parts on the left, pages on the right, and a band from each to what shows it. The list beside it says the same in words. */
export function ReachChart({ graph, focus, nameOf, onWalk }: ReachChartProps) {
  const holder = useRef<HTMLDivElement>(null)
  const height = Math.max(LEAST_HEIGHT, ROW_HEIGHT * mostInOneColumn(graph))
  useEffect(() => {
    const element = holder.current
    if (!element) return
    const dark = matchMedia('(prefers-color-scheme: dark)')
    const chart = init(element, undefined, { renderer: 'svg' })
    const draw = (): void => chart.setOption(optionOf(graph, focus, nameOf, dark.matches))
    draw()
    chart.on('click', (event) => {
      if (event.dataType === 'node') onWalk((event.data as { readonly name: string }).name)
    })
    const resized = new ResizeObserver(() => chart.resize())
    resized.observe(element)
    dark.addEventListener('change', draw)
    return () => {
      dark.removeEventListener('change', draw)
      resized.disconnect()
      chart.dispose()
    }
  }, [graph, focus, nameOf, onWalk])
  return <Chart ref={holder} role="img" aria-label="Which pages show which parts" style={{ height }} />
}

/** How many stand above each other where there are most: parts, or what shows them. */
function mostInOneColumn({ nodes }: ReachGraph): number {
  const pages = nodes.filter(({ type }) => type === 'page').length
  return Math.max(pages, nodes.length - pages)
}

function optionOf(
  { nodes, lines }: ReachGraph,
  focus: string | undefined,
  nameOf: ReachChartProps['nameOf'],
  isDark: boolean,
): Parameters<ReturnType<typeof init>['setOption']>[0] {
  const colours = SCHEMES[isDark ? 'dark' : 'light']
  const isStill = matchMedia('(prefers-reduced-motion: reduce)').matches
  const named = new Map(nodes.map(({ id, type }) => [id, nameOf(id, type)]))
  const label = (id: string): string => {
    const { name, sort } = named.get(id)!
    return sort === 'page' ? name : `${name} (${sort})`
  }
  return {
    animation: !isStill,
    animationDuration: 180,
    tooltip: {
      backgroundColor: colours.paper,
      borderColor: colours.lineStrong,
      textStyle: { color: colours.plain, fontSize: 12 },
      // Names come from people: as text, and never as markup.
      formatter: (given: unknown) => tooltipOf(given, label),
    },
    series: [
      {
        type: 'sankey',
        left: 4,
        right: 190,
        top: 8,
        bottom: 8,
        nodeWidth: 8,
        nodeGap: 14,
        draggable: false,
        emphasis: { focus: 'adjacency' },
        label: {
          color: colours.plain,
          fontFamily: 'Hanken Grotesk Variable, sans-serif',
          fontSize: 12,
          width: 180,
          overflow: 'truncate',
          formatter: (given: { readonly name: string }) => label(given.name),
        },
        lineStyle: { color: colours.lineStrong, opacity: 0.55, curveness: 0.5 },
        data: nodes.map(({ id, type }) => ({
          name: id,
          itemStyle: {
            color: id === focus ? colours.accent : type === 'page' ? colours.lineStrong : colours.control,
            borderColor: colours.paper,
          },
          ...(id === focus ? { label: { fontWeight: 650, color: colours.strong } } : {}),
        })),
        links: lines.map(({ part, by, count }) => ({ source: part, target: by, value: 1, count })),
      },
    ],
  }
}

function tooltipOf(given: unknown, label: (id: string) => string): HTMLElement {
  const { dataType, data, name } = given as {
    readonly dataType: string
    readonly name: string
    readonly data: { readonly source: string; readonly target: string; readonly count: number }
  }
  const words = document.createElement('span')
  const times = data.count === 1 ? 'once' : `${data.count} times`
  words.textContent =
    dataType === 'edge' ? `${label(data.source)} stands on ${label(data.target)} ${times}` : label(name)
  return words
}
