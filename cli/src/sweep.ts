import { sweepPackage } from './sweep-package.ts'
import { fileAndOptions } from './arguments.ts'
import { EXIT, type Exit, type Streams } from './outcome.ts'
import { readPackage } from './read-package.ts'

/**
 * Prints what is wrong with a page at which widths from 320 to 1920 px, as lines or as JSON: `{ gullies: [...] }`. Ends with 1
 * where one is of severity `error`.
 */
export async function sweep(args: readonly string[], { out }: Streams): Promise<Exit> {
  const { file, values } = fileAndOptions(args, { json: { type: 'boolean' } }, 'sweep FILE [--json]')
  const gullies = await sweepPackage(await readPackage(file))
  if (values.json) out(`${JSON.stringify({ gullies }, undefined, 2)}\n`)
  else
    for (const { rule, nodeId, from, to, why, severity } of gullies)
      out(`${severity}: ${from} to ${to} px: ${rule}${nodeId === undefined ? '' : ` (${nodeId})`}: ${why}\n`)
  return gullies.some(({ severity }) => severity === 'error') ? EXIT.findings : EXIT.done
}
