import { defaultRegistry, gridReports } from '@gullyline/core'
import { fileAndOptions } from './arguments.ts'
import { EXIT, type Exit, type Streams } from './outcome.ts'
import { readPackage } from './read-package.ts'

/** Prints the reading order and the arrangement at each size of every grid section, as lines or as JSON: `{ grids: [...] }`. */
export async function order(args: readonly string[], { out }: Streams): Promise<Exit> {
  const { file, values } = fileAndOptions(args, { json: { type: 'boolean' } }, 'order FILE [--json]')
  const { page, look } = await readPackage(file)
  const grids = gridReports(page, defaultRegistry, look)
  if (values.json) {
    out(`${JSON.stringify({ grids }, undefined, 2)}\n`)
    return EXIT.done
  }
  for (const { nodeId, sizes } of grids)
    for (const [size, { columns, order: read, placed, hidden }] of Object.entries(sizes)) {
      out(`${nodeId} at ${size}, ${columns} columns: ${read.join(' ')}\n`)
      for (const { id, column, row, columns: across, rows, layer } of placed)
        out(`  ${id}: column ${column}, row ${row}, ${across} wide, ${rows} high, layer ${layer}\n`)
      if (hidden.length > 0) out(`  left out: ${hidden.join(' ')}\n`)
    }
  return EXIT.done
}
