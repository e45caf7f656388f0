import { defaultRegistry, fullPackageSchema, fullSitePackageSchema } from '@gullyline/core'
import { EXIT, type Exit, type Streams } from './outcome.ts'

export function schema(args: readonly string[], { out }: Streams): Promise<Exit> {
  const schemaOf = args.includes('--site') ? fullSitePackageSchema : fullPackageSchema
  out(`${JSON.stringify(schemaOf([...defaultRegistry.kinds.values()]), undefined, 2)}\n`)
  return Promise.resolve(EXIT.done)
}
