import { arrangeGrid, bleedAt, type GridChild } from '../../grid/arrangement.ts'
import { COLUMNS, columnsOf, MOST_COLUMNS } from '../../grid/columns.ts'
import type { Placed } from '../../grid/placed.ts'
import { heightField, HEIGHTS, type Height } from '../../kit/backdrop.ts'
import { alignAll, alignmentField, type Alignment } from '../../kit/alignment.ts'
import { bandRules, bandWidth } from '../../kit/band.ts'
import { outlinedEmpty } from '../../kit/canvas-rules.ts'
import type { Declarations } from '../../kit/css-rules.ts'
import { el } from '../../kit/element.ts'
import { anchor, choice, count, fields, step, surface } from '../../kit/fields.ts'
import { space } from '../../kit/token-css.ts'
import type { SizeKey } from '../../page/page.ts'
import { defineBlock, type ArrangedRules } from '../define-block.ts'

interface Content {
  readonly anchor?: string
}
interface Values {
  readonly width: 'reading' | 'broad' | 'edge'
  readonly cells: number
  readonly rowHeight: string
  readonly gapAcross: string
  readonly gapDown: string
  readonly above: string
  readonly below: string
  readonly height: Height
  readonly place: 'start' | 'center' | 'end'
  readonly alignment: Alignment
}

/** A band whose blocks are placed on columns and rows, and may overlap. */
export const grid = defineBlock<Content, { readonly surface?: string }, Values>({
  kind: 'grid',
  version: 1,
  title: 'Grid section',
  about: 'A band whose blocks stand on columns and rows, and may overlap',
  synonyms: ['layout', 'overlap', 'free placing', 'collage', 'layers', 'section'],
  group: 'section',
  purpose: 'layout',
  usesSpot: ['children'],
  content: fields({ anchor: anchor('Anchor') }),
  look: fields({ surface: surface('Background') }),
  arrangement: fields({
    width: choice('Width', 'broad', { reading: 'Text', broad: 'Wide', edge: 'Full' }),
    cells: {
      ...count('Columns', { from: 2, to: MOST_COLUMNS, step: 2, initial: COLUMNS }),
      isDerived: true,
    },
    rowHeight: step('Row height, at least', 'space', 'xl'),
    gapAcross: step('Gap between columns', 'space', 's'),
    gapDown: step('Gap between rows', 'space', 's'),
    above: step('Space above', 'space', 'xl'),
    below: step('Space below', 'space', 'xl'),
    height: heightField('content'),
    place: choice('Align rows', 'start', { start: 'Top', center: 'Middle', end: 'Bottom' }),
    alignment: alignmentField(),
  }),
  slots: { blocks: { title: 'Blocks', allow: ['flow'], element: '.cells', isPlaced: true } },
  rules: [
    ...bandRules('grid'),
    { selector: '.cells', declarations: { display: 'grid' } },
    // What is larger than its place makes its rows grow, and never its columns.
    {
      selector: '.cells>*',
      declarations: { 'min-width': '0', position: 'relative', 'align-content': 'start' },
    },
    { selector: '.cells>picture', declarations: { height: '100%' } },
  ],
  arrange({ values }): ArrangedRules {
    const [above, below] = [space(values.above), space(values.below)]
    const minHeight =
      values.height === 'full' ? `calc(${HEIGHTS.full} - ${above} - ${below})` : HEIGHTS[values.height]
    return {
      '': {
        ...bandWidth(values.width),
        // From the grid to the edge of the screen.
        '--side': values.width === 'edge' ? '0px' : 'max(var(--gutter),(100cqi - var(--w))/2)',
        ...alignAll(values.alignment),
        'padding-block': `${above} ${below}`,
      },
      '>.cells': {
        gap: `${space(values.gapDown)} ${space(values.gapAcross)}`,
        'grid-auto-rows': `minmax(${space(values.rowHeight)},auto)`,
        ...(minHeight ? { 'min-height': minHeight, 'align-content': values.place } : {}),
      },
    }
  },
  placeChildren(children, node) {
    const arranged = arrangeGrid(children, columnsOf(node, children))
    return Object.fromEntries(
      [...arranged].map(([size, { placed, columns }]) => [
        size,
        rulesAt(children, placed, { size, columns }),
      ]),
    )
  },
  flowsAs: 'section',
  isBand: () => false,
  isCalledByHeading: true,
  childWidth({ width, values, size, placeOf }) {
    const content =
      values.width === 'edge' ? width : `min(${width} - 2*var(--gutter),var(--width-${values.width}))`
    const { columns, of, bleeds } = placeOf?.(size) ?? { columns: 1, of: 1, bleeds: 0 }
    const own = columns === of ? content : `(${content})*${columns}/${of}`
    if (bleeds === 0 || values.width === 'edge') return own
    return columns === of && bleeds === 2 ? width : `${own} + (${width} - ${content})*${bleeds / 2}`
  },
  canvasRules: [outlinedEmpty('.cells')],
  render(node, context) {
    return el(
      'section',
      { className: ['grid'], ...(node.content.anchor ? { id: node.content.anchor } : {}) },
      el('div', { className: ['cells'] }, context.slot('blocks')),
    )
  },
  words: () => [],
  facts: (content) => (content.anchor ? { anchor: content.anchor } : {}),
})

interface GridAt {
  readonly size: SizeKey
  readonly columns: number
}

function rulesAt(children: readonly GridChild[], placed: readonly Placed[], at: GridAt): ArrangedRules {
  const placeOf = new Map(placed.map((one) => [one.id, one]))
  const rules: Record<string, Declarations> = {
    '>.cells': { 'grid-template-columns': `repeat(${at.columns},minmax(0,1fr))` },
  }
  for (const [i, child] of children.entries()) {
    const place = placeOf.get(child.id)
    if (!place) continue
    const { column, row, columns: across, rows, layer } = place
    const everBleeds = Object.values(child.places).some((one) => one?.bleed)
    // How far it is from the grid to the edge is told by the width of the section (CSS Containment 3, "Container Relative
    // Lengths"): that of the screen counts the scrollbar in.
    if (everBleeds) rules[''] = { 'container-type': 'inline-size' }
    rules[`>.cells>:nth-child(${i + 1})`] = {
      'grid-area': `${row}/${column}/${row + rows}/${column + across}`,
      ...(layer === 0 ? {} : { 'z-index': `${layer}` }),
      ...(everBleeds ? { 'margin-inline': bleedAt(child, place, at).map(marginOf).join(' ') } : {}),
    }
  }
  return rules
}

function marginOf(bleeds: boolean): string {
  return bleeds ? 'calc(-1*var(--side))' : '0'
}
