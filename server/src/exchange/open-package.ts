/** Reads packages that strangers may have made: within limits, and refused whole where anything is wrong. */
import { createHash } from 'node:crypto'
import { setImmediate } from 'node:timers/promises'
import { open, type Entry, type ZipFile } from 'yauzl'
import {
  checkSitePackageShape,
  defaultRegistry,
  mediumPath,
  migrateSitePackage,
  PACKAGE_JSON,
  sitePackageChecks,
  type Problem,
  type SitePackage,
} from '@gullyline/core'
import { Refused } from '../http/errors.ts'
import { parseJson } from '../http/read-body.ts'
import { MOST_BYTES } from '../http/limits.ts'

/** A package whose JSON and list of files are known to be right. Its media are read one by one. */
export interface OpenPackage {
  readonly package: SitePackage
  /** Reads a medium, and refuses one that is not what the package says. */
  readMedium(thing: 'picture' | 'file', id: string): Promise<Buffer>
  close(): void
}

/** A site of a thousand pages like those of the sample site has some 15 MB. */
const MOST_JSON_BYTES = 32 * 1024 * 1024
const MOST_ENTRIES = 40_001
/** Of everything together, once it is unpacked. */
const MOST_IN_ALL = 4 * 1024 ** 3
/** The kinds of file of Unix, in the upper half of an entry's external attributes (APPNOTE.TXT 6.3, 4.4.15). */
const FILE_KIND = 0o170000
const REGULAR = 0o100000
/** Bit 0 of an entry's flags says that it is encrypted (4.4.4). */
const ENCRYPTED = 1

/** Opens the package in a file. */
export async function openPackage(path: string): Promise<OpenPackage> {
  const zip = await openZip(path)
  try {
    const entries = await listEntries(zip)
    const json = entries.get(PACKAGE_JSON)
    if (!json) throw notValid(`it has no ${PACKAGE_JSON}, so it is no package of Gullyline`)
    if (json.uncompressedSize > MOST_JSON_BYTES)
      throw notValid(`its ${PACKAGE_JSON} is larger than ${MOST_JSON_BYTES / 1024 / 1024} MB`)
    const given = await parsePackage((await readEntry(zip, json)).toString('utf8'))
    refuseOtherFiles(given, entries)
    return {
      package: given,
      readMedium: async (thing, id) => {
        const bytes = await readEntry(zip, entries.get(mediumPath(thing, id))!)
        const { name, digest } = (thing === 'picture' ? given.pictures : given.files)[id]!
        if (createHash('sha256').update(bytes).digest('hex') !== digest)
          throw notValid(`the file of “${name}” is not the one that the package was made with`)
        return bytes
      },
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error
  }
}

function openZip(path: string): Promise<ZipFile> {
  return new Promise((resolve, reject) => {
    // Names are compared with those of the package, and never used as paths.
    const options = { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true }
    open(path, options, (error, zip) => {
      if (error) reject(notValid('it is no zip file, or a damaged one'))
      else resolve(zip)
    })
  })
}

async function listEntries(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  if (zip.entryCount > MOST_ENTRIES) throw notValid(`it has more than ${MOST_ENTRIES - 1} files`)
  const entries = new Map<string, Entry>()
  let inAll = 0
  await new Promise<void>((resolve, reject) => {
    zip.on('entry', (entry: Entry) => {
      const fault = faultOf(entry, entries)
      inAll += entry.uncompressedSize
      if (fault !== undefined) return reject(notValid(fault))
      if (inAll > MOST_IN_ALL) return reject(notValid('it would unpack to more than 4 GB'))
      entries.set(entry.fileName, entry)
      zip.readEntry()
    })
    zip.on('end', resolve)
    zip.on('error', (error: Error) => reject(notValid(`it is damaged (${error.message})`)))
    zip.readEntry()
  })
  return entries
}

function faultOf(entry: Entry, before: ReadonlyMap<string, Entry>): string | undefined {
  const name = JSON.stringify(entry.fileName.slice(0, 80))
  const kind = (entry.externalFileAttributes >>> 16) & FILE_KIND
  if (before.has(entry.fileName)) return `it has two files called ${name}`
  if (kind !== 0 && kind !== REGULAR) return `${name} in it is no plain file`
  if ((entry.generalPurposeBitFlag & ENCRYPTED) !== 0) return `${name} in it is encrypted`
  return undefined
}

async function readEntry(zip: ZipFile, entry: Entry): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) return reject(notValid(`${JSON.stringify(entry.fileName)} in it can’t be read`))
      const chunks: Buffer[] = []
      stream.on('data', (chunk: Buffer) => chunks.push(chunk))
      stream.on('end', () => resolve(Buffer.concat(chunks)))
      // What unpacks to more than it says ends here, before it is held.
      stream.on('error', () => reject(notValid(`${JSON.stringify(entry.fileName)} in it is damaged`)))
    })
  })
}

async function parsePackage(text: string): Promise<SitePackage> {
  const value = migrateSitePackage(parseJson(text, 'The package'))
  if (value === undefined) throw notValid(`its ${PACKAGE_JSON} is not JSON`)
  const steps = sitePackageChecks(value, defaultRegistry, checkSitePackageShape)
  let step = steps.next()
  for (; step.done !== true; step = steps.next()) await setImmediate()
  const problems = step.value
  if (problems.length > 0)
    throw notValid(`${PACKAGE_JSON}${problems[0]!.pointer} ${problems[0]!.message}`, problems)
  return value as SitePackage
}

/** Every medium of the package has its file, no larger than it says, and there is nothing else. */
function refuseOtherFiles(given: SitePackage, entries: ReadonlyMap<string, Entry>): void {
  const wanted = new Set([PACKAGE_JSON])
  for (const [thing, media] of [
    ['picture', given.pictures],
    ['file', given.files],
  ] as const)
    for (const [id, { name, bytes }] of Object.entries(media)) {
      const path = mediumPath(thing, id)
      const entry = entries.get(path)
      if (!entry) throw notValid(`the file of “${name}” is missing in it`)
      if (entry.uncompressedSize !== bytes || bytes > MOST_BYTES)
        throw notValid(
          `the file of “${name}” in it is larger than it says, or than ${MOST_BYTES / 1024 / 1024} MB`,
        )
      wanted.add(path)
    }
  for (const path of entries.keys())
    if (!wanted.has(path)) throw notValid(`${JSON.stringify(path.slice(0, 80))} in it belongs to nothing`)
}

function notValid(why: string, problems: readonly Problem[] = []): Refused {
  return new Refused('not-valid', `This package can’t be imported: ${why}. Nothing was changed.`, {
    problems,
  })
}
