import { readFile, stat } from 'node:fs/promises'
import {
  checkPackageShape,
  defaultRegistry,
  migratePackage,
  validatePackage,
  type PagePackage,
} from '@gullyline/core'
import { Unusable } from './outcome.ts'

/** Largest package read, in bytes. */
const MAX_BYTES = 256 * 1024 * 1024

/** Reads and validates a package. Throws `Unusable` with every problem and its JSON pointer. */
export async function readPackage(file: string): Promise<PagePackage> {
  const value = migratePackage(await readJson(file))
  const problems = validatePackage(value, defaultRegistry, checkPackageShape)
  if (problems.length > 0)
    throw new Unusable(...problems.map(({ pointer, message }) => `${pointer || '/'}: ${message}`))
  return value as PagePackage
}

async function readJson(file: string): Promise<unknown> {
  const found = await stat(file).catch(() => undefined)
  if (!found?.isFile()) throw new Unusable(`${file}: there is no such file`)
  if (found.size > MAX_BYTES) throw new Unusable(`${file}: is larger than ${MAX_BYTES / 1024 / 1024} MB`)
  const text = await readFile(file, 'utf8')
  try {
    return JSON.parse(text) as unknown
  } catch (error) {
    throw new Unusable(`${file}: is not JSON: ${error instanceof Error ? error.message : String(error)}`)
  }
}
