import { defaultRegistry, fullPackageSchema } from '@gullyline/core'
import { EXIT, type Exit, type Streams } from './outcome.ts'

export function schema(_args: readonly string[], { out }: Streams): Promise<Exit> {
  out(`${JSON.stringify(fullPackageSchema([...defaultRegistry.kinds.values()]), undefined, 2)}\n`)
  return Promise.resolve(EXIT.done)
}
