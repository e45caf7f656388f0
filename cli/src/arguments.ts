import { parseArgs } from 'node:util'
import { Unusable } from './outcome.ts'

/** The one file that a command is given, and its options. Throws `Unusable` for anything else. */
export function fileAndOptions(
  args: readonly string[],
  options: Readonly<Record<string, { type: 'string' | 'boolean' }>>,
  usage: string,
): { file: string; values: Readonly<Record<string, string | boolean | undefined>> } {
  try {
    const { positionals, values } = parseArgs({
      args: [...args],
      options,
      allowPositionals: true,
      strict: true,
    })
    const [file, ...more] = positionals
    if (file !== undefined && more.length === 0) return { file, values: values }
  } catch (error) {
    throw new Unusable(error instanceof Error ? error.message : String(error), `usage: ${usage}`)
  }
  throw new Unusable(`usage: ${usage}`)
}
