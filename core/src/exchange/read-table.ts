/** Tables of a foreign page. */
import type { Element, Nodes as HastNode } from 'hast'
import { find, findAll, holds, oneLine, textOf } from './hast-query.ts'
import { PHRASING } from './html-elements.ts'
import { cutShort } from '../page/cut-short.ts'

/** Most that a line and a table of ours hold; see the kinds' schemas. */
export const MOST_LINE = 500
export const MOST_ROWS = 200
export const MOST_COLUMNS = 12

/** A table as ours has it. */
interface TableRead {
  readonly rows: readonly (readonly string[])[]
  readonly heads: 'row' | 'column' | 'both' | 'none'
  readonly caption: string
  readonly isCut: boolean
}

/** The cells of a table (HTML standard, "Forming a table"). A cell that spans several stands in the first of them. */
export function readTable(table: Element): TableRead {
  const lines = findAll(table, 'tr').filter(
    (line) => !findAll(table, 'table').some((inner) => holds(inner, line)),
  )
  const grid: string[][] = []
  const isHead: boolean[][] = []
  let isCut = false
  lines.forEach((line, y) => {
    let x = 0
    for (const cell of line.children) {
      if (cell.type !== 'element' || (cell.tagName !== 'td' && cell.tagName !== 'th')) continue
      const row = (grid[y] ??= [])
      while (row[x] !== undefined) x++
      const [across, down] = [span(cell, 'colSpan'), span(cell, 'rowSpan')]
      isCut ||= across > 1 || down > 1
      for (let dy = 0; dy < Math.min(down, lines.length - y); dy++)
        for (let dx = 0; dx < across; dx++)
          (grid[y + dy] ??= [])[x + dx] = dx + dy === 0 ? oneLine(spaced(cell)) : ''
      ;(isHead[y] ??= [])[x] = cell.tagName === 'th'
      x += across
    }
  })
  const kept = grid.map((row, y) => ({ row, y })).filter(({ row }) => row.length > 0)
  const width = Math.max(0, ...kept.map(({ row }) => row.length))
  const rows = kept.map(({ row }) => Array.from({ length: width }, (_one, x) => row[x] ?? ''))
  const first = (isHead[0] ?? []).length > 0 && isHead[0]!.every(Boolean)
  const column = kept.length > 1 && kept.slice(1).every(({ y }) => isHead[y]?.[0] === true)
  const heads = first ? (column ? 'both' : 'row') : column ? 'column' : 'none'
  return { rows, heads, caption: cutShort(oneLine(textOf(find(table, 'caption'))), MOST_LINE), isCut }
}

/** The text of a cell, with a space between what stood on lines of its own. */
function spaced(node: HastNode): string {
  if (node.type === 'text') return node.value
  if (node.type !== 'element') return ''
  const inside = node.children.map(spaced).join('')
  return PHRASING.has(node.tagName) && node.tagName !== 'br' ? inside : ` ${inside} `
}

function span({ properties }: Element, name: 'colSpan' | 'rowSpan'): number {
  const given = Number(properties[name] ?? 1)
  return Number.isInteger(given) && given >= 1 && given <= MOST_ROWS ? given : 1
}
