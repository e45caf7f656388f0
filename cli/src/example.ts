import { examplePackage } from '@gullyline/demo'
import { EXIT, type Exit, type Streams } from './outcome.ts'

/** Prints the sample site's first page as a package. */
export async function example(_args: readonly string[], { out }: Streams): Promise<Exit> {
  out(`${JSON.stringify(await examplePackage(), undefined, 2)}\n`)
  return EXIT.done
}
