import { fileAndOptions } from './arguments.ts'
import { EXIT, type Exit, type Streams } from './outcome.ts'
import { readPackage } from './read-package.ts'

export async function validate(args: readonly string[], { out }: Streams): Promise<Exit> {
  const { file } = fileAndOptions(args, {}, 'validate FILE')
  await readPackage(file)
  out(`${file} is a valid page package\n`)
  return EXIT.done
}
